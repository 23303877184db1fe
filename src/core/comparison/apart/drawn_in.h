// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <vector>

namespace fin {

/// A mean and the variance that it is unsure by.
struct DrawnMean {
  double mean = 0.0;
  double variance = 0.0;
};

/// Variance of the true values of several things about their mean: that of their means less what these are
/// unsure by on the average, nought at least.
double varianceBetween(const std::vector<DrawnMean>& means);

/// Means drawn in towards their own mean by as much as they are unsure (C. Morris, Parametric empirical Bayes
/// inference, 1983): for chances only. Below four they stay as they are.
std::vector<DrawnMean> drawnIn(std::vector<DrawnMean> means);

}  // namespace fin
