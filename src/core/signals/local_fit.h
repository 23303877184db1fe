// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

#include "core/signals/series.h"

namespace fin {

/// Value and slope of a trace at an instant, from the samples within `reach_s` of it: of a parabola where
/// there are four or more (A. Savitzky and M. Golay, 1964, for uneven time), of a straight line from three.
/// None where fewer are there.
struct LocalFit {
  double value = 0.0;
  double slope = 0.0;
};
std::optional<LocalFit> localFit(const Series& series, double at_s, double reach_s);
/// Those values at the series' own instants; none where there is no fit.
Series smoothed(const Series& series, double reach_s);

}  // namespace fin
