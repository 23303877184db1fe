// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/weight_study.h"

#include <algorithm>
#include <cmath>

#include "core/readings/terminal_fall.h"

namespace fin {
namespace {

/// From the drop that coming up to speed took.
Seconds timeConstantOf(const ReadingSet& readings) {
  const auto drop = numberIn(readings, ReadingId::SettleDistance);
  const auto rate = numberIn(readings, ReadingId::FallRate);
  return Seconds(drop && rate && *rate > 0.0 ? *drop / (TerminalFall::kSettledDrop * *rate) : 0.0);
}

}  // namespace

std::vector<MeasuredFall> fallsAmong(const std::vector<ComparedPass>& passes, const RigOfPass& rigOf) {
  std::vector<MeasuredFall> out;
  for (const ComparedRig& rig : valuesOf(passes, ReadingId::FallRate)) {
    const Spread spread = compare({rig}, ReadingId::FallRate);
    MeasuredFall fall{.rig = rig.rig};
    fall.rate = {.value = spread.rigs[0].mean,
                 .u95 = spread.rigs[0].u95(),
                 .n = static_cast<double>(rig.values.size())};
    const auto first = std::find_if(passes.begin(), passes.end(),
                                    [&](const ComparedPass& p) { return p.id == rig.values.front().pass; });
    if (first != passes.end()) {
      if (const Rig* known = rigOf(*first)) fall.rigId = known->id;
      fall.timeConstant = timeConstantOf(first->readings);
      if (const auto like = headFallOf(rig.rig, 0.0, first->readings)) {
        fall.mode = like->mode;
        fall.attitude_deg = like->attitude_deg;
        fall.glideRatio = like->glideRatio;
        fall.kick_deg = like->kick_deg;
      }
    }
    out.push_back(std::move(fall));
  }
  return out;
}

RigWeights weightsOf(const Rig& rig, Grams bodyInWater) {
  RigWeights out;
  out.head = Grams(rig.head_g.value_or(0.0));
  out.hook = Grams(rig.hook_g.value_or(0.0));
  out.insert = Grams(rig.insert_g.value_or(0.0));
  out.bodyInWater = bodyInWater;
  return out;
}

std::vector<HeadFall> headsOf(const std::vector<MeasuredFall>& falls, ModelId model, const Rack& rack,
                              const WaterState& water) {
  std::vector<HeadFall> out;
  const auto density = fin::density(water);
  if (!density) return out;
  for (const MeasuredFall& fall : falls) {
    const Rig* rig = fall.rigId ? rack.rig(*fall.rigId) : nullptr;
    if (rig == nullptr || rig->model != model) continue;
    const auto head = inWater(weightsOf(*rig, Grams(0.0)), *density);
    if (!head || head->value() <= 0.0) continue;
    out.push_back({.name = fall.rig,
                   .head_g = head->value(),
                   .rate_mm_s = fall.rate.value,
                   .rateU95_mm_s = fall.rate.u95,
                   .mode = fall.mode,
                   .attitude_deg = fall.attitude_deg,
                   .glideRatio = fall.glideRatio,
                   .kick_deg = fall.kick_deg});
  }
  return out;
}

Result<HangingLure> hangingLure(const Model& model, const WeightQuestion& question,
                                const WeightAnswer& answer) {
  if (!model.weight_g) return failure(ErrorCode::BadRequest, "say in the rack what the model weighs");
  const bool soldWithHooks = model.family != Family::SoftPlastic;
  const double hooks = question.changed.hook.value() - (soldWithHooks ? question.measured.hook.value() : 0.0);
  HangingLure out;
  out.mass = Grams(*model.weight_g + question.changed.head.value() + question.changed.insert.value() + hooks);
  out.inWater = answer.inWaterAfter;
  out.inWaterU95 = question.weightU95;
  out.weighedIn = question.changedWater;
  out.dragArea_mm2 = answer.dragArea_mm2;
  if (question.fallRate.value > 0.0) out.dragAreaU95 = 2.0 * question.fallRate.u95 / question.fallRate.value;
  return out;
}

std::vector<FallCheck> checkAgainst(const std::vector<MeasuredFall>& falls, const MeasuredFall& fall,
                                    const WeightQuestion& question, const Rack& rack) {
  std::vector<FallCheck> out;
  const Rig* rig = fall.rigId ? rack.rig(*fall.rigId) : nullptr;
  if (rig == nullptr) return out;
  for (const MeasuredFall& other : falls) {
    const Rig* second = other.rigId ? rack.rig(*other.rigId) : nullptr;
    if (second == nullptr || second->model != rig->model || second->id == rig->id) continue;
    WeightQuestion asked = question;
    asked.changed = weightsOf(*second, asked.measured.bodyInWater);
    asked.changedWater = asked.measuredWater;
    const auto predicted = changeWeight(asked);
    if (!predicted) continue;
    const double miss = predicted->rate.value - other.rate.value;
    FallCheck check{other.rig, predicted->rate, other.rate};
    check.within = std::abs(miss) <= std::hypot(predicted->rate.u95, other.rate.u95);
    check.miss = miss / other.rate.value;
    if (!check.within && other.mode != fall.mode) check.otherMode = other.mode;
    out.push_back(std::move(check));
  }
  return out;
}

}  // namespace fin
