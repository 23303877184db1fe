// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/interpolation.h"

#include <algorithm>

namespace fin {

double valueAt(const Series& series, double t_s) {
  const auto after = std::lower_bound(series.t_s.begin(), series.t_s.end(), t_s);
  if (after == series.t_s.begin()) return series.y.front();
  if (after == series.t_s.end()) return series.y.back();
  const auto i = static_cast<std::size_t>(after - series.t_s.begin());
  const double share = (t_s - series.t_s[i - 1]) / (series.t_s[i] - series.t_s[i - 1]);
  return series.y[i - 1] + share * (series.y[i] - series.y[i - 1]);
}

}  // namespace fin
