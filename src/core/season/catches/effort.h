// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/planning/day_plan.h"
#include "core/season/catches/compare_rates.h"
#include "core/season/tiers.h"

namespace fin {

/// A rod at work with one rig, from being put in to being taken out, changed or caught up by now.
struct Stint {
  int rod = 1;
  RigId rig;
  PieceId piece;
  double from_s = 0.0;
  double to_s = 0.0;
  double idle_s = 0.0;  ///< of it that was a gap in which nothing was fished
  std::optional<double> speed_mm_s;
  int block = 0;
  int tier = 0;

  [[nodiscard]] double hours() const { return (to_s - from_s - idle_s) / 3600.0; }
};

/// What a rod holds now.
struct RodNow {
  int rod = 1;
  RigId rig;
  PieceId piece;
  bool working = false;
  std::optional<double> speed_mm_s;
};

/// Something that came of a rod.
struct Touch {
  EventId event;
  RunEventKind kind = RunEventKind::Caught;
  RigId rig;  ///< none where it was noted after the rod was put down, and nobody said of which
  PieceId piece;
  int block = 0;
  double at_s = 0.0;
};

/// A day on the water by its events: rod-time is the clock between.
struct RunningDay {
  std::vector<Stint> stints;
  std::vector<Touch> touches;  ///< fish, misses, follows, fouls and losses
  std::vector<RodNow> rods;
  double began_s = 0.0;  ///< when the first rod was put in; 0 where none was
  double last_s = 0.0;   ///< the last moment that counts
  int tier = 1;
  std::vector<std::string> troubles;  ///< a clock that went back, a fish of which nobody knows the rig

  [[nodiscard]] double rodHours() const;
  [[nodiscard]] std::size_t count(RunEventKind kind) const;
  /// Rod-minutes since the last fish, miss or follow; all of them where nothing came.
  [[nodiscard]] double sinceTouch_rodMin() const;
  /// Rod-minutes until the first touch; none before it.
  [[nodiscard]] std::optional<double> toFirstTouch_rodMin() const;
};
/// `now_s` ends what is still at work; nothing counts after it. A clock that went back makes no time: the
/// time between is nought, and it is said.
RunningDay runOf(const std::vector<RunEvent>& events, int rods, double now_s);

/// Rod-minutes in which nothing could be expected.
struct Wasted {
  double outsideBand_rodMin = 0.0;  ///< pulled at a speed at which the rig does not work
  double outOfWater_rodMin = 0.0;   ///< of all rods, since the first was put in
};
Wasted wastedOf(const RunningDay& day, const std::vector<TierRig>& bands, int rods);

/// By rig, over days: hours, and how often that came of them.
struct RigTally {
  RigId rig;
  double hours = 0.0;
  std::size_t fish = 0;
  std::size_t misses = 0;
  std::size_t follows = 0;
  std::size_t fouls = 0;
  std::size_t lost = 0;  ///< lures
};
std::vector<RigTally> talliesOf(const std::vector<RunningDay>& days);

/// Two rigs within the blocks of place and hour in which both fished.
std::vector<EffortBlock> blocksOf(const std::vector<RunningDay>& days, RigId first, RigId second);
/// Which of two rigs the first rod has in each block: drawn in pairs, so that none leads.
std::vector<bool> firstOnFirstRod(std::size_t blocks, unsigned seed);

}  // namespace fin
