// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <cstddef>
#include <span>

namespace fin {

/// The value below which a share `q` of some values lie, the lower one where it falls between two; 0.5 is
/// their median. Reorders them; there has to be one.
template <class Number>
Number quantileOf(std::span<Number> values, double q) {
  const auto nth = values.begin() + static_cast<std::ptrdiff_t>(q * static_cast<double>(values.size() - 1));
  std::nth_element(values.begin(), nth, values.end());
  return *nth;
}

}  // namespace fin
