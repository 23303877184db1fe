// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/signals/periodic_fit.h"
#include "core/signals/series.h"

namespace fin {

/// One whole cycle, from one upward crossing of the middle to the next.
struct Cycle {
  double from_s = 0.0;
  double to_s = 0.0;
  [[nodiscard]] double length_s() const { return to_s - from_s; }
};

/// Whole cycles of a detrended signal whose fundamental is known: upward crossings of zero of the signal
/// smoothed over 0.2 cycle (0.5 where the second harmonic is more than 0.6 of the fundamental), with a
/// hysteresis of a fifth of the amplitude, so that noise makes no cycles of its own. A cycle with a gap
/// of more than a quarter of its length is left out.
///
/// The crossing is of the straight line between two samples: at 50 samples a cycle the lengths of a sine are
/// right to 0.4 % (tests/signals/cycles_test.cpp). Needs a fundamental that is right.
std::vector<Cycle> wholeCycles(const Series& detrended, const PeriodicFit& fit);

/// Peak to peak of a signal in every cycle. Each extreme is the top of a parabola through the samples
/// within a tenth of a cycle of it, so that neither the noise nor the space between frames shifts it much:
/// at 23 samples a cycle a sine's is right to 0.5 %.
std::vector<double> peakToPeak(const Series& series, const std::vector<Cycle>& cycles);

}  // namespace fin
