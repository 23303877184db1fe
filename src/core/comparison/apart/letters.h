// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <string>
#include <utility>
#include <vector>

namespace fin {

/// A letter for each group of which no two are apart, as a string for each of `count`: two share one unless
/// they are apart. By insertion and absorption (H.-P. Piepho, 2004).
std::vector<std::string> lettersFor(std::size_t count,
                                    const std::vector<std::pair<std::size_t, std::size_t>>& apart);

}  // namespace fin
