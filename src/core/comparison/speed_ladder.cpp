// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/speed_ladder.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>

#include "core/comparison/monotone_curve.h"

namespace fin {
namespace {

constexpr double kPlateauShare = 0.2;
constexpr double kNoiseTimes = 3.0;
constexpr double kLostRhythm_percent = 35.0;
constexpr double kLaysOver_deg = 90.0;
constexpr std::size_t kFewestRungs = 3;

double actionOf(const LadderRung& rung) {
  return rung.action_deg.value_or(0.0);
}

/// Why a rung is past the usable band; empty where it is not.
std::string whyBlownOut(const LadderRung& rung) {
  if (rung.spinTurns.value_or(0.0) >= 1.0) return "it spins";
  if (std::abs(rung.list_deg.value_or(0.0)) > kLaysOver_deg) return "it lays over past 90°";
  if (!rung.action_deg) return "no steady rhythm stands out any more";
  if (rung.cycleVariation_percent.value_or(0.0) > kLostRhythm_percent)
    return fmt::format("it loses its rhythm: cycles vary by {:.0f} %", *rung.cycleVariation_percent);
  return {};
}

/// Half-width of the onset: what the rungs beside it do not know of speed and action, and how far the smooth
/// curve is from a straight line between them.
double onsetU95(const std::vector<LadderRung>& rungs, double onset, double threshold) {
  for (std::size_t i = 0; i + 1 < rungs.size(); ++i) {
    if (rungs[i].speed_mm_s > onset || rungs[i + 1].speed_mm_s < onset) continue;
    const double rise = actionOf(rungs[i + 1]) - actionOf(rungs[i]);
    const double run = rungs[i + 1].speed_mm_s - rungs[i].speed_mm_s;
    const double straight =
        rungs[i].speed_mm_s + run * (threshold - actionOf(rungs[i])) / std::max(rise, 1e-6);
    const double byAction =
        std::hypot(rungs[i].actionU95_deg, rungs[i + 1].actionU95_deg) * run / std::max(rise, 1e-6);
    return std::hypot(std::abs(straight - onset), byAction,
                      std::max(rungs[i].speedU95_mm_s, rungs[i + 1].speedU95_mm_s));
  }
  return 0.0;
}

void refuse(SpeedLadder& ladder, ReadingId id, std::string why) {
  ladder.readings.refused.push_back({id, std::move(why)});
}

std::optional<double> readOnset(SpeedLadder& ladder) {
  const auto& rungs = ladder.rungs;
  double plateau = 0.0;
  for (const LadderRung& r : rungs) plateau = std::max(plateau, actionOf(r));
  const double threshold = std::max(kPlateauShare * plateau, kNoiseTimes * actionOf(rungs.front()));
  if (plateau <= 0.0) {
    refuse(ladder, ReadingId::OnsetSpeed, "no pull shows a steady action");
    return std::nullopt;
  }
  if (actionOf(rungs.front()) >= kPlateauShare * plateau) {
    refuse(ladder, ReadingId::OnsetSpeed,
           fmt::format("it works at the slowest pull filmed already ({:.0f} mm/s); film slower ones",
                       rungs.front().speed_mm_s));
    return rungs.front().speed_mm_s;
  }
  std::vector<double> speeds;
  std::vector<double> actions;
  for (const LadderRung& r : rungs) {
    // Past its top a lure that lost its rhythm says nothing of how the action set in.
    if (!r.action_deg && !actions.empty() && actions.back() >= threshold) break;
    speeds.push_back(r.speed_mm_s);
    actions.push_back(actionOf(r));
  }
  const auto onset =
      speeds.size() >= 2 ? MonotoneCurve(speeds, actions).firstRiseThrough(threshold) : std::nullopt;
  if (!onset) {
    refuse(ladder, ReadingId::OnsetSpeed,
           "the action does not rise far enough over the slowest pull's; film faster ones");
    return std::nullopt;
  }
  const double u95 = onsetU95(rungs, *onset, threshold);
  ladder.readings.readings.push_back(
      {ReadingId::OnsetSpeed,
       *onset,
       "mm/s",
       u95,
       static_cast<double>(rungs.size()),
       u95 < 0.05 * *onset   ? Grade::Good
       : u95 < 0.15 * *onset ? Grade::Fair
                             : Grade::Poor,
       {fmt::format(
           "threshold {:.1f}°: the greater of a fifth of the plateau ({:.1f}°) and three times the slowest "
           "pull's action",
           threshold, plateau)}});
  return onset;
}

void readBlowout(SpeedLadder& ladder, std::optional<double> onset) {
  if (!onset) return refuse(ladder, ReadingId::BlowoutSpeed, "it needs an onset to lie above");
  for (const LadderRung& rung : ladder.rungs) {
    if (rung.speed_mm_s <= *onset) continue;
    const std::string why = whyBlownOut(rung);
    if (why.empty()) continue;
    ladder.readings.readings.push_back(
        {ReadingId::BlowoutSpeed,
         rung.speed_mm_s,
         "mm/s",
         rung.speedU95_mm_s,
         1.0,
         Grade::Fair,
         {why,
          "the lowest filmed speed at which it does; the limit lies between it "
          "and the next slower pull"}});
    return;
  }
  refuse(ladder, ReadingId::BlowoutSpeed,
         fmt::format("it holds at the fastest pull filmed ({:.0f} mm/s); film faster ones",
                     ladder.rungs.back().speed_mm_s));
}

}  // namespace

std::optional<double> numberIn(const ReadingSet& set, ReadingId id) {
  const Reading* found = set.find(id);
  const double* number = found == nullptr ? nullptr : std::get_if<double>(&found->value);
  return number == nullptr ? std::nullopt : std::optional(*number);
}

bool isOfLadder(ReadingId reading) {
  return std::find(std::begin(kLadderReadings), std::end(kLadderReadings), reading) !=
         std::end(kLadderReadings);
}

bool showsAction(View view, std::span<const MarkSeed> marks) {
  return view == View::Top || std::any_of(marks.begin(), marks.end(), [](const MarkSeed& m) {
           return m.name == MarkName::Tip || m.name == MarkName::Flank;
         });
}

namespace {

void take(const LadderAction& action, LadderRung& rung) {
  rung.action_deg = action.deg;
  rung.actionU95_deg = action.u95_deg;
}

/// One and the same action on all rungs.
void takeTheActionThatMostHave(std::vector<LadderRung>& rungs) {
  std::size_t best = 0;
  std::ptrdiff_t most = 0;
  for (std::size_t i = 0; i < kLadderActions.size(); ++i) {
    const auto have = std::count_if(rungs.begin(), rungs.end(),
                                    [i](const LadderRung& r) { return r.actions[i].has_value(); });
    if (have > most) {
      most = have;
      best = i;
    }
  }
  if (most == 0) return;
  // A wobble that the side view could not tell is not a lost one: a roll shows that it works.
  if (kLadderActions[best] == ReadingId::WobbleAngle)
    std::erase_if(rungs, [best](const LadderRung& r) { return !r.actions[best] && r.actions.back(); });
  for (LadderRung& rung : rungs) {
    if (rung.actions[best]) {
      take(*rung.actions[best], rung);
    } else {
      rung.action_deg.reset();
    }
  }
}

}  // namespace

std::optional<LadderRung> rungOf(const std::string& name, const ReadingSet& readings, bool actionShown) {
  const Reading* speed = readings.find(ReadingId::TravelSpeed);
  if (speed == nullptr) return std::nullopt;
  LadderRung out;
  out.name = name;
  out.speed_mm_s = std::abs(std::get<double>(speed->value));
  out.speedU95_mm_s = speed->u95.value_or(0.0);
  bool acts = false;
  for (std::size_t i = 0; i < kLadderActions.size(); ++i) {
    const Reading* action = readings.find(kLadderActions[i]);
    if (action == nullptr) continue;
    out.actions[i] = LadderAction{std::get<double>(action->value), action->u95.value_or(0.0)};
    if (!acts) take(*out.actions[i], out);
    acts = true;
  }
  if (!acts && !actionShown) return std::nullopt;
  out.cycleVariation_percent = numberIn(readings, ReadingId::CycleVariation);
  out.spinTurns = numberIn(readings, ReadingId::SpinTurns);
  out.list_deg = numberIn(readings, ReadingId::RollList);
  return out;
}

SpeedLadder evaluateLadder(std::vector<LadderRung> rungs) {
  takeTheActionThatMostHave(rungs);
  SpeedLadder out{std::move(rungs), {}};
  std::sort(out.rungs.begin(), out.rungs.end(),
            [](const LadderRung& a, const LadderRung& b) { return a.speed_mm_s < b.speed_mm_s; });
  if (out.rungs.size() < kFewestRungs) {
    for (const ReadingId id : kLadderReadings)
      refuse(out, id, "three pulls at different speeds or more are wanted");
    return out;
  }
  readBlowout(out, readOnset(out));
  return out;
}

}  // namespace fin
