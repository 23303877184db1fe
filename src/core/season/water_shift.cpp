// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/water_shift.h"

#include <algorithm>
#include <cmath>

namespace fin {

Result<WaterShift> fallShift(const Model& model, const Rig& rig, Grams bodyInWater, const WaterState& from,
                             const WaterState& to) {
  if (!model.weight_g) return failure(ErrorCode::BadRequest, "what the model weighs is not said");
  const auto before = density(from);
  if (!before) return tl::unexpected(before.error());
  const auto after = density(to);
  if (!after) return tl::unexpected(after.error());
  const double displaced = (*model.weight_g - bodyInWater.value()) / before->value();
  WeightQuestion question;
  question.fallRate = {.value = 1.0, .u95 = 0.0};  // its ratio is asked
  question.measured = weightsOf(rig, bodyInWater);
  question.measuredWater = from;
  question.changed =
      weightsOf(rig, Grams(bodyInWater.value() - displaced * (after->value() - before->value())));
  question.changedWater = to;
  const auto answer = changeWeight(question);
  if (!answer) return tl::unexpected(answer.error());
  return WaterShift{answer->rate.value, bodyInWater.value()};
}

Result<WaterShift> fallShift(const std::vector<ComparedPass>& passes, const RigOfPass& rigOf,
                             const Rack& rack, const Rig& rig, const WaterState& from, const WaterState& to) {
  const Model* model = rack.model(rig.model);
  if (model == nullptr) return failure(ErrorCode::BadRequest, "the rack has no such model");
  const auto body = bodyWeight(headsOf(fallsAmong(passes, rigOf), rig.model, rack, from));
  if (!body && rig.head_g.value_or(0.0) <= 0.0) return tl::unexpected(body.error());
  auto out = fallShift(*model, rig, Grams(body ? body->value : 0.0), from, to);
  if (out) out->bodyAssumed = !body;
  return out;
}

}  // namespace fin
