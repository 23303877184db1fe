// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/local_fit.h"

#include <Eigen/Dense>
#include <algorithm>

namespace fin {

std::optional<LocalFit> localFit(const Series& series, double at_s, double reach_s) {
  const auto from = std::lower_bound(series.t_s.begin(), series.t_s.end(), at_s - reach_s);
  const auto to = std::upper_bound(from, series.t_s.end(), at_s + reach_s);
  const auto first = from - series.t_s.begin();
  const auto n = to - from;
  if (n < 3) return std::nullopt;
  const Eigen::Index terms = n >= 4 ? 3 : 2;
  Eigen::MatrixXd a(n, terms);
  Eigen::VectorXd b(n);
  for (Eigen::Index i = 0; i < n; ++i) {
    const auto k = static_cast<std::size_t>(first + i);
    const double t = (series.t_s[k] - at_s) / reach_s;
    a(i, 0) = 1.0;
    a(i, 1) = t;
    if (terms > 2) a(i, 2) = t * t;
    b(i) = series.y[k];
  }
  const Eigen::VectorXd fit = a.colPivHouseholderQr().solve(b);
  return LocalFit{fit(0), fit(1) / reach_s};
}

Series smoothed(const Series& series, double reach_s) {
  Series out;
  for (const double t : series.t_s) {
    if (const auto fit = localFit(series, t, reach_s)) out.add(t, fit->value);
  }
  return out;
}

}  // namespace fin
