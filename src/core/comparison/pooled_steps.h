// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/comparison: values that cannot fall, but for their scatter.
#pragma once

#include <optional>
#include <span>
#include <vector>

namespace fin {

/// Pool adjacent violators (R. Barlow et al., Statistical inference under order restrictions, 1972): what
/// falls is levelled with what came before, by least squares.
std::vector<double> nonDecreasing(std::vector<double> values);

/// Where a non-decreasing curve, straight between its points, first comes to a level from below it; none
/// where it begins there or never does.
std::optional<double> firstReaching(std::span<const double> x, std::span<const double> y, double level);

}  // namespace fin
