// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/water_season.h"

#include <algorithm>

#include "core/comparison/ranking.h"
#include "core/units/date.h"

namespace fin {
namespace {

constexpr double kHour_s = 3600.0;

double lastNoted_s(const DayPlan& day) {
  double out = 0.0;
  for (const RunEvent& event : day.events) out = std::max({out, event.at_s, event.until_s});
  for (const ConditionLine& line : day.conditions) out = std::max(out, line.at_s);
  return out;
}

bool isGlass(const WaterNow& water) {
  return water.word(Condition::Wind) == "mirror";
}

}  // namespace

double lookedAt_s(const DayPlan& day, double now_s) {
  return dateOf(day).empty() || dateOf(day) == dateAt(now_s) ? std::max(now_s, lastNoted_s(day))
                                                             : lastNoted_s(day);
}

Result<WaterSeason> waterSeason(const Log& log, FingerprintCache& fingerprints, double now_s) {
  const auto heads = log.days();
  if (!heads) return tl::unexpected(heads.error());
  WaterSeason out;
  std::vector<DayPlan> tests;
  for (const DayHead& head : *heads) {
    auto plan = log.plan(head.id);
    if (!plan) return tl::unexpected(plan.error());
    if (plan->kind == DayKind::Test) {
      tests.push_back(std::move(*plan));
      continue;
    }
    out.runs.push_back(runOf(plan->events, plan->waterDay.rods, lookedAt_s(*plan, now_s)));
    out.days.push_back(std::move(*plan));
  }
  const auto any = heads->empty() ? log.plan() : log.plan(heads->front().id);
  if (!any) return tl::unexpected(any.error());
  out.rack = any->rack;
  out.rules = any->rules.empty() ? usualRules() : any->rules;
  const auto read = readingsOver(log, tests, fingerprints);
  if (!read) return tl::unexpected(read.error());
  out.passes = read->current;
  out.candidates = candidatesOf(out.rack, out.passes);
  out.bands = tierRigsOf(out.rack, bandsOf(out.passes));
  return out;
}

DayFacts factsOf(const DayPlan& day, const RunningDay& run, double at_s) {
  DayFacts out{.water = WaterNow(day.conditions, at_s)};
  if (run.began_s == 0.0) return out;
  out.hours = std::max(0.0, at_s - run.began_s) / kHour_s;
  out.misses = run.count(RunEventKind::Missed);
  out.takes = run.count(RunEventKind::Caught) + *out.misses;
  return out;
}

std::vector<TieCandidate> candidatesFor(const WaterSeason& season, const DayPlan& day) {
  std::vector<TieCandidate> out = season.candidates;
  const auto today = dayNumberOf(dateOf(day));
  if (!today) return out;
  for (std::size_t d = 0; d < season.days.size(); ++d) {
    const auto then = dayNumberOf(dateOf(season.days[d]));
    if (!then || *then >= *today || season.days[d].waterBody != day.waterBody) continue;
    for (const Stint& stint : season.runs[d].stints) {
      for (TieCandidate& candidate : out) {
        const auto since = static_cast<double>(*today - *then);
        if (candidate.rig == stint.rig)
          candidate.daysUnseen = std::min(since, candidate.daysUnseen.value_or(since));
      }
    }
  }
  return out;
}

TieOn tieOnFor(const WaterSeason& season, const DayPlan& day, double now_s) {
  const double at = lookedAt_s(day, now_s);
  const RunningDay run = runOf(day.events, day.waterDay.rods, at);
  return tieOn(candidatesFor(season, day), season.rules, factsOf(day, run, at), day.waterDay.schools);
}

TierFacts tierFactsOf(const DayPlan& day, const RunningDay& run, double at_s) {
  const WaterNow water(day.conditions, at_s);
  const double wind = water.number(Condition::Wind).value_or(0.0);
  const auto light = water.word(Condition::Light);
  const auto fish = water.word(Condition::Fish);
  TierFacts out;
  out.sinceTouch_rodMin = run.sinceTouch_rodMin();
  out.patience_rodMin = day.waterDay.patience_min;
  out.glass = isGlass(water);
  out.sun = light == "bright";
  out.fishSeen = fish == "seen" || fish == "follow";
  out.crests = windWord(wind) == "first crests" || wind >= *windOf("first crests");
  out.cloud = water.number(Condition::Cloud).value_or(0.0) >= 7.0;
  out.dusk = light == "dusk";
  out.justBitten = run.toFirstTouch_rodMin().has_value() && run.sinceTouch_rodMin() < out.patience_rodMin;
  return out;
}

std::vector<BoxLure> boxLures(const WaterSeason& season, const VerdictPlan& verdict) {
  std::vector<Entry> entries;
  std::vector<const Model*> models;
  for (const Rig& rig : season.rack.rigs) {
    const Model* model = season.rack.model(rig.model);
    if (model == nullptr || !model->graded) continue;
    entries.push_back({.rig = season.rack.fullName(rig),
                       .model = model->name,
                       .price = model->price,
                       .length_mm = model->length_mm});
    models.push_back(model);
  }
  std::vector<BoxLure> out;
  for (std::size_t e = 0; e < entries.size(); ++e) {
    const bool owned = std::any_of(season.rack.pieces.begin(), season.rack.pieces.end(), [&](const Piece& p) {
      return p.model == models[e]->id && p.state != PieceState::Lost;
    });
    out.push_back({entries[e].rig, {}, entries[e].price, owned});
  }
  RankOptions options = purposeOptions();
  options.draws = 1;  // only points are asked for, not their chances
  for (const Purpose& purpose : verdict.purposes) {
    const Ranking ranking =
        rank(tableFor(season.passes, entries, purpose.wishes, verdict.judgements), options);
    for (BoxLure& lure : out) lure.points.emplace_back();
    for (const Placing& placing : ranking.placings) out[placing.entry].points.back() = placing.total;
  }
  return out;
}

}  // namespace fin
