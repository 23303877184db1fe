// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/comparison/compared_passes.h"
#include "core/planning/rack.h"
#include "core/season/tie_rules.h"

namespace fin {

/// A rig that may be tied on, with all that is known of it.
struct TieCandidate {
  RigId rig;
  std::string name;
  std::optional<double> length_mm;
  Finish finish = Finish::Unknown;
  std::optional<double> daysUnseen;      ///< since it was last fished on this water
  std::map<ReadingId, double> readings;  ///< means over its passes
};
/// Graded rigs of the rack with what their passes gave, of pulls at the speed at which most were pulled.
std::vector<TieCandidate> candidatesOf(const Rack& rack, const std::vector<ComparedPass>& passes);

/// A wish that is awake, and whose.
struct AwakeWish {
  std::size_t rule = 0;  ///< its place among the rules
  TieWish wish;
  double weight = 1.0;  ///< of a finish half: cadence goes over colour
};
/// How well a rig does by the wishes that are awake.
struct TieChoice {
  std::size_t candidate = 0;
  std::vector<std::optional<double>> points;  ///< by wish, 0 to 10; none where it is not known
  double known = 0.0;                         ///< share of the weight of all wishes
  double floor = 0.0;                         ///< with what is not known at nothing
  double ceiling = 0.0;                       ///< with what is not known at its best
  bool ranked = false;                        ///< half of the weight is known
};
struct TieOn {
  std::vector<RuleState> rules;  ///< as they came
  std::vector<AwakeWish> wishes;
  std::vector<TieChoice> choices;  ///< ranked ones first, by floor
  /// Wishes, by their place, that want the opposite of the same: both count.
  std::vector<std::pair<std::size_t, std::size_t>> opposed;
  bool tooClose = false;        ///< the second may be as good as the first
  std::string whyNone;          ///< why nothing is proposed; empty where something is
  std::vector<ReadingId> film;  ///< what would tell more: readings that are wanted and not known of all, the
                                ///< weightiest first
};

/// What to tie on. Points as in deciding, from the worst to the best of these rigs (all alike: five each).
/// Where no wish is awake, or of no rig half is known, nothing is proposed. Pure; on any thread.
TieOn tieOn(const std::vector<TieCandidate>& candidates, const std::vector<TieRule>& rules,
            const DayFacts& facts, const std::vector<SchoolSide>& schools);

/// The choice of points and weights alone: floor, ceiling and known share.
TieChoice choiceOf(const std::vector<std::optional<double>>& points, const std::vector<double>& weights);

}  // namespace fin
