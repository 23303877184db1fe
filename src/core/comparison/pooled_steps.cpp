// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/pooled_steps.h"

namespace fin {

std::vector<double> nonDecreasing(std::vector<double> values) {
  for (std::size_t i = 1; i < values.size(); ++i) {
    std::size_t from = i;
    double sum = values[i];
    double n = 1.0;
    while (from > 0 && values[from - 1] > sum / n + 1e-12) {
      --from;
      sum += values[from];
      n += 1.0;
    }
    for (std::size_t k = from; k <= i; ++k) values[k] = sum / n;
  }
  return values;
}

std::optional<double> firstReaching(std::span<const double> x, std::span<const double> y, double level) {
  for (std::size_t i = 1; i < y.size(); ++i) {
    if (y[i - 1] >= level || y[i] < level) continue;
    return x[i - 1] + (x[i] - x[i - 1]) * (level - y[i - 1]) / (y[i] - y[i - 1]);
  }
  return std::nullopt;
}

}  // namespace fin
