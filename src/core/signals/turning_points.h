// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/signals/series.h"

namespace fin {

/// Where a series turned back.
struct TurningPoint {
  double t_s = 0.0;
  double value = 0.0;
  bool high = false;
};

/// High and low by turns, each apart from the next by at least `least`; the series' two ends are none.
std::vector<TurningPoint> turningPoints(const Series& series, double least);

}  // namespace fin
