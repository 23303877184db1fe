// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/signals/cycles.h"
#include "core/signals/periodic_fit.h"

namespace fin {

/// A repeating motion found in a trace, against its own running mean over one cycle.
struct Rhythm {
  Series detrended;
  PeriodicFit fit;
  std::vector<Cycle> cycles;
};

/// Finds the repeating motion of a trace in which slow wandering may be as strong as the motion itself.
///
/// Start: of the humps of the periodogram the one which, once the trace is freed of its running mean over
/// that hump's own cycle, holds the largest share of what remains (its harmonics included). A slow wander
/// fails there, because the quicker motion remains beside it; so does the double of a lopsided motion.
/// Finish: fitPeriodic around it. Errors: as fitPeriodic.
Result<Rhythm> findRhythm(const Series& trace, double lowest_Hz, double highest_Hz);

}  // namespace fin
