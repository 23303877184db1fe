// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/line_fit.h"

#include <algorithm>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>
#include <numeric>

#include "core/signals/serial_correlation.h"

namespace fin {
Result<LineFit> fitLine(const Series& series) {
  const std::size_t n = series.size();
  if (n < 3) return failure(ErrorCode::Unsupported, "too few frames for a line");
  const auto count = static_cast<double>(n);
  LineFit fit;
  fit.n = n;
  fit.meanTime_s = std::accumulate(series.t_s.begin(), series.t_s.end(), 0.0) / count;
  fit.meanValue = std::accumulate(series.y.begin(), series.y.end(), 0.0) / count;
  double stt = 0.0;
  double sty = 0.0;
  for (std::size_t i = 0; i < n; ++i) {
    const double dt = series.t_s[i] - fit.meanTime_s;
    stt += dt * dt;
    sty += dt * (series.y[i] - fit.meanValue);
  }
  if (stt <= 0.0) return failure(ErrorCode::Unsupported, "no time passes between the frames");
  fit.slope = sty / stt;

  std::vector<double> residuals;
  double rss = 0.0;
  for (std::size_t i = 0; i < n; ++i) {
    residuals.push_back(series.y[i] - fit.at(series.t_s[i]));
    rss += residuals.back() * residuals.back();
  }
  fit.residualSd = std::sqrt(rss / (count - 2.0));
  const double r = lagOneCorrelation(residuals);
  const double independent = std::max(count * (1.0 - r) / (1.0 + r), 3.0);
  const double t95 = boost::math::quantile(boost::math::students_t(independent - 2.0), 0.975);
  fit.slopeU95 = t95 * std::sqrt(rss / (independent - 2.0) / count) / std::sqrt(stt / count);
  return fit;
}

}  // namespace fin
