// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

#include "core/comparison/compared_passes.h"

namespace fin {

/// The speeds at which a rig was seen to work, mm/s.
struct SpeedBand {
  std::string rig;
  double from_mm_s = 0.0;
  double to_mm_s = 0.0;
  bool ladder = false;  ///< found from its ladder; else a tenth about the one speed it was pulled at
  /// The band ends where filming did, not where the rig does.
  bool openBelow = true;
  bool openAbove = true;

  friend bool operator==(const SpeedBand&, const SpeedBand&) = default;
};

/// Rigs that one speed suits.
struct SpeedSet {
  std::vector<std::string> rigs;
  double from_mm_s = 0.0;
  double to_mm_s = 0.0;
};

/// From onset to the fastest pull that went well (speed_ladder.h), by falling upper end. A rig whose filmed
/// speeds hold no usable band has none.
std::vector<SpeedBand> bandsOf(const std::vector<ComparedPass>& passes);

/// The largest sets of two rigs and more that share a speed, none within another; by size, then by width.
/// Found exactly, by a sweep over the bands' ends (Helly in one dimension: what meets pairwise meets at
/// once).
std::vector<SpeedSet> setsThatShare(const std::vector<SpeedBand>& bands);
/// Pairs for two rods, the widest shared band first.
std::vector<SpeedSet> pairsThatShare(const std::vector<SpeedBand>& bands);

/// What is needed of a rig for a day's order; length none where it is not known.
struct OrderedRig {
  std::string rig;
  double speed_mm_s = 0.0;  ///< middle of its band
  std::optional<double> length_mm;
};
/// Fast and big first, slow and small last: by the sum of both places.
std::vector<OrderedRig> bySpeed(std::vector<OrderedRig> rigs);
/// Nearest to the prey's length first (by ratio), of equals the faster; unknown lengths last.
std::vector<OrderedRig> byPrey(std::vector<OrderedRig> rigs, double prey_mm);

}  // namespace fin
