// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/readings: what twitches and hops share.
#pragma once

#include <optional>
#include <vector>

#include "core/readings/pass_traces.h"
#include "core/readings/twitch_starts.h"
#include "core/signals/interpolation.h"

namespace fin {

/// The smoothed motion at the frames, along the way that a twitch goes and across it.
struct TwitchMotion {
  Series along;
  Series across;
  Series speed;             ///< along
  double leastSpeed = 0.0;  ///< a slower one may be nothing but the scatter of the marks
};

/// A twitch goes along the pull, a hop upwards. Speeds are slopes of a straight line over about 50 ms, places
/// those of a parabola (local fits after A. Savitzky & M. Golay, 1964, on uneven times).
TwitchMotion motionOfTwitches(const PassTraces& traces);
TwitchMotion motionOfHops(const PassTraces& traces);

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

/// Finds the twitches of a motion. A twitch starts when the speed rises through 25 % of the 95th percentile
/// of the speed (where that is more than scatter); it has to have been slow (under a tenth of it) in between.
/// Where a person said when they start, those are taken.
std::vector<Twitch> findTwitches(const TwitchMotion& motion, const std::optional<TwitchStarts>& said);

/// How many pushes begin before the one before has come to rest: the twitches run into each other.
std::size_t pushesWithoutRest(const TwitchMotion& motion, const std::vector<Twitch>& twitches);

/// When a series passes a level between a sample and the one before it.
double crossing(const Series& s, std::size_t after, double level);

}  // namespace fin
