// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/signals/series.h"

namespace fin {

/// Mean over a centred window of the series joined by straight lines, at the series' own times. Where the
/// window would reach past an end, the mean of the outermost whole window goes on along its own slope.
/// A series shorter than the window gives its straight-line fit.
/// Exact for what is straight between the samples: a rhythm of exactly the window's length vanishes wholly
/// within, and up to half a window from the ends but for how its mean bends there.
Series runningMean(const Series& series, double window_s);

/// series − runningMean(series, window).
Series withoutRunningMean(const Series& series, double window_s);

}  // namespace fin
