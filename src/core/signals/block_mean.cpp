// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/block_mean.h"
#include "core/units/estimate.h"

#include <algorithm>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>
#include <numeric>
#include <vector>

namespace fin {

Mean blockMean(const Series& series, std::size_t blocks) {
  Mean out;
  if (series.empty()) return out;
  const auto all = static_cast<double>(series.size());
  out.value = std::accumulate(series.y.begin(), series.y.end(), 0.0) / all;
  std::vector<double> sums(std::max<std::size_t>(blocks, 1));
  std::vector<double> counts(sums.size());
  const double length = series.span_s() * (1.0 + 1e-9) + 1e-12;
  for (std::size_t i = 0; i < series.size(); ++i) {
    const auto b = static_cast<std::size_t>((series.t_s[i] - series.t_s.front()) / length *
                                            static_cast<double>(sums.size()));
    sums[b] += series.y[i];
    counts[b] += 1.0;
  }
  double power = 0.0;
  double filled = 0.0;
  for (std::size_t b = 0; b < sums.size(); ++b) {
    if (counts[b] <= 0.0) continue;
    power += std::pow(sums[b] / counts[b] - out.value, 2);
    filled += 1.0;
  }
  if (filled < 2.0) {
    for (double v : series.y) power += std::pow(v - out.value, 2) / all;
    out.u95 = kNormal95 * std::sqrt(power);
    return out;
  }
  const boost::math::students_t spread(filled - 1.0);
  out.u95 = boost::math::quantile(spread, 0.975) * std::sqrt(power / (filled - 1.0) / filled);
  return out;
}

}  // namespace fin
