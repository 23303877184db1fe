// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/turning_points.h"

namespace fin {

std::vector<TurningPoint> turningPoints(const Series& series, double least) {
  std::vector<TurningPoint> out;
  if (series.empty()) return out;
  TurningPoint high{series.t_s.front(), series.y.front(), true};
  TurningPoint low{series.t_s.front(), series.y.front(), false};
  int heading = 0;  // not known before it has moved by `least`
  for (std::size_t i = 0; i < series.size(); ++i) {
    const double t = series.t_s[i];
    const double v = series.y[i];
    if (v > high.value) high = {t, v, true};
    if (v < low.value) low = {t, v, false};
    const bool falls = heading >= 0 && high.value - v >= least;
    const bool rises = !falls && heading <= 0 && v - low.value >= least;
    if (!falls && !rises) continue;
    if (heading != 0) out.push_back(falls ? high : low);
    heading = falls ? -1 : 1;
    high = {t, v, true};
    low = {t, v, false};
  }
  return out;
}

}  // namespace fin
