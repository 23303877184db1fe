// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>

#include "core/signals/series.h"

namespace fin {

struct Mean {
  double value = 0.0;
  double u95 = 0.0;
};

/// Mean of a series whose samples hang together. The series is cut into `blocks` stretches of equal length;
/// the t interval over their means is the uncertainty (method of batch means; e.g. A. Law, Simulation
/// Modeling and Analysis, 2015, §9.5.3). Cut a repeating motion into whole cycles before, and into as many
/// blocks at most. With fewer than two filled blocks the uncertainty is that of the whole spread.
Mean blockMean(const Series& series, std::size_t blocks);

}  // namespace fin
