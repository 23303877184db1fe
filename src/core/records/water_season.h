// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/records/day_readings.h"
#include "core/season/box.h"
#include "core/season/catches/catch_report.h"
#include "core/season/tie_on.h"

namespace fin {

/// All that a log knows of the water, gathered for what is decided there.
struct WaterSeason {
  Rack rack;
  std::vector<TieRule> rules;            ///< as usual where the log has none of its own
  std::vector<DayPlan> days;             ///< on the water, by date
  std::vector<RunningDay> runs;          ///< of those
  std::vector<ComparedPass> passes;      ///< of all test days
  std::vector<TieCandidate> candidates;  ///< graded rigs with what the tank gave
  std::vector<TierRig> bands;
};
/// `now_s` ends what is still at work on a day of that date; other days end with their last event. Errors:
/// as Log.
Result<WaterSeason> waterSeason(const Log& log, FingerprintCache& fingerprints, double now_s);

/// The moment that a day on the water is looked at: now where it is that day, else its last event or note.
double lookedAt_s(const DayPlan& day, double now_s);
/// What rules look at, at that moment; days since each rig was last fished on this water go into the
/// candidates.
DayFacts factsOf(const DayPlan& day, const RunningDay& run, double at_s);
std::vector<TieCandidate> candidatesFor(const WaterSeason& season, const DayPlan& day);
TieOn tieOnFor(const WaterSeason& season, const DayPlan& day, double now_s);
TierFacts tierFactsOf(const DayPlan& day, const RunningDay& run, double at_s);

/// Graded models' rigs as lures of a box, by the purposes of a verdict.
std::vector<BoxLure> boxLures(const WaterSeason& season, const VerdictPlan& verdict);

}  // namespace fin
