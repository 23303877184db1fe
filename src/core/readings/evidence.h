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

/// From a twitch's start to the next one's, or to the end of the view.
struct TwitchSpan {
  TimeSpan span;
  bool leftOut = false;  ///< the person said that it does not count
};

/// Where in a pass its readings came from, on the pass's true time.
struct Evidence {
  std::vector<TimeSpan> cycles;    ///< whole wobbles that were counted; kicks where no wobble was
  std::optional<TimeSpan> steady;  ///< part of a fall
  std::optional<FittedLine> line;
  std::vector<double> breakouts_s;
  std::vector<TwitchSpan> twitches;
  std::optional<double> stop_s;  ///< when a skirted lure came to rest
};

}  // namespace fin
