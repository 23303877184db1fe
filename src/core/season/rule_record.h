// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/day_plan.h"
#include "core/season/catches/effort.h"
#include "core/season/tie_on.h"

namespace fin {

/// What came of a rule while it was awake: of the rigs that it alone would have picked, and of all others.
struct RuleRecord {
  double pickHours = 0.0;  ///< rod-hours
  std::size_t pickFish = 0;
  double otherHours = 0.0;
  std::size_t otherFish = 0;
};
/// By rule, over days on the water. A rule picks the rigs with its highest floor, if half of what it asks for
/// is known; where it could pick none, nothing is counted. The water is taken as it stood when a rod was put
/// in. A record: rules never alter themselves by it. Pure; on any thread.
std::vector<RuleRecord> ruleRecords(const std::vector<TieCandidate>& candidates,
                                    const std::vector<TieRule>& rules, const std::vector<DayPlan>& days,
                                    const std::vector<RunningDay>& runs);

}  // namespace fin
