// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/readings/sheet.h"
#include "core/readings/thresholds.h"
#include "core/readings/twitch_motion.h"

namespace fin {

/// The water before a fish: a box about it, which the lure enters at the middle of its rear edge.
struct Zone {
  double half_mm = 100.0;       ///< along the pull, either way
  double halfHeight_mm = 50.0;  ///< up and down
  double interval_s = 0.0;      ///< from twitch to twitch
};

/// One measured twitch from its start on: how far along the pull and how far up at rising times, mm, up to
/// the next one's start. Straight in between.
struct TwitchPath {
  std::vector<double> t_s;
  std::vector<double> along_mm;
  std::vector<double> up_mm;
  double rearmost_s = 0.0;  ///< where the pause begins
};
std::vector<TwitchPath> twitchPaths(const TwitchMotion& motion, const std::vector<Twitch>& twitches);

/// How long a lure stays before a fish, when it is twitched again every `zone.interval_s`: measured twitches,
/// drawn whole, enter a box at the middle of its rear edge; counted are the seconds inside until a twitch
/// ends past the front or outside of the height, or a minute has gone. A longer pause than filmed goes on
/// along its last 30 %. Mean and tenth percentile of many such runs, from a fixed seed. u95: the measured
/// twitches themselves drawn anew (B. Efron, Bootstrap methods, 1979), widened for their number, by Student's
/// t. Refused (Unsupported): under six twitches; an interval that ends before the rearmost place or is over
/// half as long again as filmed. Pure; on any thread.
struct ZoneSeconds {
  Estimate mean;
  Estimate tenth;
};
Result<ZoneSeconds> secondsInZone(const std::vector<TwitchPath>& paths, const Zone& zone);

/// Writes both, twitched as filmed where the thresholds name no interval.
void readZone(const TwitchMotion& motion, const std::vector<Twitch>& twitches, const Thresholds& thresholds,
              ReadingSheet& sheet);

}  // namespace fin
