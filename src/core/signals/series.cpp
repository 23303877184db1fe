// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/series.h"
#include "core/units/estimate.h"

#include <algorithm>
#include <cmath>

namespace fin {

Series Series::between(double from_s, double to_s) const {
  Series out;
  for (std::size_t i = 0; i < size(); ++i) {
    if (t_s[i] >= from_s && t_s[i] <= to_s) out.add(t_s[i], y[i]);
  }
  return out;
}

double Series::spacing_s() const {
  std::vector<double> steps;
  for (std::size_t i = 1; i < size(); ++i) steps.push_back(t_s[i] - t_s[i - 1]);
  return median(std::move(steps));
}

double median(std::vector<double> values) {
  if (values.empty()) return 0.0;
  const auto half = static_cast<std::ptrdiff_t>(values.size() / 2);
  std::nth_element(values.begin(), values.begin() + half, values.end());
  const double upper = values[static_cast<std::size_t>(half)];
  if (values.size() % 2 == 1) return upper;
  return 0.5 * (upper + *std::max_element(values.begin(), values.begin() + half));
}

double robustSpread(const std::vector<double>& values) {
  const double middle = median(values);
  std::vector<double> away;
  for (double v : values) away.push_back(std::abs(v - middle));
  return 1.4826 * median(std::move(away));
}

double medianU95(const std::vector<double>& values) {
  return kNormal95 * kMedianOverMean * robustSpread(values) / std::sqrt(static_cast<double>(values.size()));
}

}  // namespace fin
