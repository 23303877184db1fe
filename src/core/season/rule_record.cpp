// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/rule_record.h"

#include <algorithm>

namespace fin {
namespace {

constexpr double kHour_s = 3600.0;

/// What rules looked at when a rod was put in.
DayFacts factsAt(const DayPlan& day, const RunningDay& run, double at_s) {
  DayFacts out{.water = WaterNow(day.conditions, at_s), .hours = (at_s - run.began_s) / kHour_s};
  const auto before = [&](RunEventKind kind) {
    return static_cast<std::size_t>(
        std::count_if(run.touches.begin(), run.touches.end(),
                      [&](const Touch& t) { return t.kind == kind && t.at_s < at_s; }));
  };
  out.misses = before(RunEventKind::Missed);
  out.takes = before(RunEventKind::Caught) + *out.misses;
  return out;
}

/// The rigs that a rule alone would pick; none where it sleeps or too little is known.
std::vector<RigId> picksOf(const TieRule& rule, const std::vector<TieCandidate>& candidates,
                           const DayFacts& facts) {
  const TieOn on = tieOn(candidates, {rule}, facts, {});
  std::vector<RigId> out;
  for (const TieChoice& choice : on.choices) {
    if (on.wishes.empty() || !choice.ranked || choice.floor < on.choices.front().floor) break;
    out.push_back(candidates[choice.candidate].rig);
  }
  return out;
}

std::size_t fishOf(const RunningDay& run, const Stint& stint) {
  return static_cast<std::size_t>(std::count_if(run.touches.begin(), run.touches.end(), [&](const Touch& t) {
    return t.kind == RunEventKind::Caught && t.rig == stint.rig && t.at_s >= stint.from_s &&
           t.at_s <= stint.to_s;
  }));
}

}  // namespace

std::vector<RuleRecord> ruleRecords(const std::vector<TieCandidate>& candidates,
                                    const std::vector<TieRule>& rules, const std::vector<DayPlan>& days,
                                    const std::vector<RunningDay>& runs) {
  std::vector<RuleRecord> out(rules.size());
  for (std::size_t d = 0; d < days.size(); ++d) {
    for (const Stint& stint : runs[d].stints) {
      const DayFacts facts = factsAt(days[d], runs[d], stint.from_s);
      const std::size_t fish = fishOf(runs[d], stint);
      for (std::size_t r = 0; r < rules.size(); ++r) {
        const std::vector<RigId> picks = picksOf(rules[r], candidates, facts);
        if (picks.empty()) continue;
        const bool pick = std::find(picks.begin(), picks.end(), stint.rig) != picks.end();
        (pick ? out[r].pickHours : out[r].otherHours) += stint.hours();
        (pick ? out[r].pickFish : out[r].otherFish) += fish;
      }
    }
  }
  return out;
}

}  // namespace fin
