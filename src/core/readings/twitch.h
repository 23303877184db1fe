// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/readings/pass_traces.h"
#include "core/readings/sheet.h"
#include "core/readings/twitch_starts.h"

namespace fin {

/// One twitch, from its start to the next one's.
struct Twitch {
  double start_s = 0.0;
  bool leftOut = false;
  double end_s = 0.0;   ///< start of the next, or end of the view
  double peak_s = 0.0;  ///< fastest
  double peakSpeed = 0.0;
  double furthest_s = 0.0;  ///< before it first falls back or comes to rest
  double rearmost_s = 0.0;  ///< after that, before the next start
  double back_s =
      0.0;  ///< when it first was nearly there: in a pause noise alone decides where it was rearmost
};

/// Finds the twitches of a pass. A twitch starts when the speed along the pull rises through 25 % of the 95th
/// percentile of the speed; it has to have been slow (under a tenth of it) in between. Speeds are slopes of a
/// straight line over about 50 ms, places those of a parabola. Where a person said when they start, those are
/// taken.
std::vector<Twitch> findTwitches(const PassTraces& traces, const std::optional<TwitchStarts>& said = {});

/// Twitch and pause, and side-to-side walking. Writes what stands and why the rest does not.
///
/// Uncertainty: medians over twitches by their spread, the scale and the placing of the marks in quadrature.
/// From fewer than 3 twitches everything is poor; erraticness and dart spread need 3. A twitch that was left
/// out counts in nothing but the cadence.
void readTwitch(const PassTraces& traces, Protocol protocol, View view, ReadingSheet& sheet,
                const std::optional<TwitchStarts>& said = {});

}  // namespace fin
