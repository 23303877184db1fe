// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <vector>

namespace fin {

struct TimeSpan {
  double from_s = 0.0;
  double to_s = 0.0;
};

/// A straight line through the body's place: along the pull, or up in a fall. Values as in the traces.
struct FittedLine {
  TimeSpan span;
  double from = 0.0;
  double to = 0.0;
};

/// Where in a pass its readings came from, on the pass's true time.
struct Evidence {
  std::vector<TimeSpan> cycles;    ///< whole wobbles that were counted; kicks where no wobble was
  std::optional<TimeSpan> steady;  ///< part of a fall
  std::optional<FittedLine> line;
  std::vector<double> breakouts_s;
  std::vector<double> twitches_s;  ///< their starts
};

}  // namespace fin
