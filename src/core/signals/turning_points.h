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
/// Places and values are those of samples: smooth first. Exact for a series without noise beyond `least`
/// (tests/signals/turning_points_test.cpp). One pass with a hysteresis, as in rainflow counting
/// (M. Matsuishi & T. Endo, 1968).
std::vector<TurningPoint> turningPoints(const Series& series, double least);

}  // namespace fin
