// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/water/weight_change.h"

#include <cmath>

namespace fin {
namespace {

constexpr KilogramsPerCubicMetre kSteel{7850.0};
constexpr double kGravity_m_s2 = 9.80665;

struct Weighed {
  Grams before{0.0};
  Grams after{0.0};
  KilogramsPerCubicMetre waterBefore{0.0};
  KilogramsPerCubicMetre waterAfter{0.0};
};

Result<Weighed> weigh(const WeightQuestion& q) {
  const auto waterBefore = density(q.measuredWater);
  if (!waterBefore) return tl::unexpected(waterBefore.error());
  const auto waterAfter = density(q.changedWater);
  if (!waterAfter) return tl::unexpected(waterAfter.error());
  const auto before = inWater(q.measured, *waterBefore);
  if (!before) return tl::unexpected(before.error());
  const auto after = inWater(q.changed, *waterAfter);
  if (!after) return tl::unexpected(after.error());
  if (!(q.fallRate.value > 0.0))
    return failure(ErrorCode::BadRequest, "a fall that was measured needs a rate of more than zero");
  if (!(before->value() > 0.0)) {
    return failure(ErrorCode::BadRequest,
                   "by these weights the measured rig would not have sunk; weigh its body in the water");
  }
  return Weighed{*before, *after, *waterBefore, *waterAfter};
}

}  // namespace

std::optional<KilogramsPerCubicMetre> densityOfMetal(std::string_view name) {
  if (name == "lead") return KilogramsPerCubicMetre(11300.0);
  if (name == "tungsten") return KilogramsPerCubicMetre(19300.0);
  if (name == "steel") return KilogramsPerCubicMetre(7850.0);
  if (name == "brass") return KilogramsPerCubicMetre(8500.0);
  return std::nullopt;
}

Grams weightInWater(Grams dry, KilogramsPerCubicMetre material, KilogramsPerCubicMetre water) {
  return dry * (1.0 - water / material);
}

Result<Grams> inWater(const RigWeights& rig, KilogramsPerCubicMetre water) {
  for (const Grams part : {rig.head, rig.hook, rig.insert}) {
    if (!(part.value() >= 0.0))
      return failure(ErrorCode::BadRequest, "head, hook and insert cannot weigh less than nothing");
  }
  return weightInWater(rig.head, rig.headMaterial, water) + weightInWater(rig.hook, kSteel, water) +
         weightInWater(rig.insert, rig.insertMaterial, water) + rig.bodyInWater;
}

Result<WeightAnswer> changeWeight(const WeightQuestion& q) {
  const auto weighed = weigh(q);
  if (!weighed) return tl::unexpected(weighed.error());
  WeightAnswer out;
  out.inWaterBefore = weighed->before;
  out.inWaterAfter = weighed->after;
  const double v = q.fallRate.value * 1e-3;
  out.dragArea_mm2 =
      2.0 * weighed->before.value() * 1e-3 * kGravity_m_s2 / (weighed->waterBefore.value() * v * v) * 1e6;
  const double share = weighed->after / weighed->before * (weighed->waterBefore / weighed->waterAfter);
  const auto rateOf = [&](double weightShare) {
    return std::copysign(q.fallRate.value * std::sqrt(std::abs(weightShare)), weightShare);
  };
  out.rate.value = rateOf(share);
  out.rate.n = q.fallRate.n;
  out.rate.grade = q.fallRate.grade;
  // The root is steep where hardly any weight is left: by what the rate is at the ends of the weight's
  // interval.
  const double weight = q.weightU95.value() / weighed->before.value();
  const double byAfter = 0.5 * (rateOf(share + weight) - rateOf(share - weight));
  const double byBefore = 0.5 * out.rate.value * weight;
  out.rate.u95 = std::hypot(std::sqrt(std::abs(share)) * q.fallRate.u95, byAfter, byBefore);
  out.state = std::abs(out.rate.value) <= q.holdBand.value() ? BuoyancyState::Holds
              : out.rate.value > 0.0                         ? BuoyancyState::Sinks
                                                             : BuoyancyState::Rises;
  return out;
}

Result<Grams> headForRate(const WeightQuestion& q, MillimetresPerSecond wanted) {
  const auto weighed = weigh(q);
  if (!weighed) return tl::unexpected(weighed.error());
  if (!(wanted.value() > 0.0))
    return failure(ErrorCode::BadRequest, "the wanted fall rate must be more than zero");
  const double faster = wanted.value() / q.fallRate.value;
  const Grams then = weighed->before * (faster * faster * (weighed->waterAfter / weighed->waterBefore));
  const double kept = 1.0 - weighed->waterAfter / q.changed.headMaterial;
  const Grams head = q.changed.head + (then - weighed->after) * (1.0 / kept);
  if (head.value() < 0.0)
    return failure(ErrorCode::Unsupported, "even without a head it falls faster than wanted");
  return head;
}

Seconds countdown(Millimetres depth, MillimetresPerSecond rate, Seconds timeConstant) {
  const double tau = timeConstant.value();
  if (!(tau > 0.0)) return Seconds(depth.value() / rate.value());
  const double along = depth.value() / (rate.value() * tau);
  // acosh(exp(x)) = x + ln(1 + √(1 − exp(−2x))), which does not overflow.
  return Seconds(tau * (along + std::log1p(std::sqrt(-std::expm1(-2.0 * along)))));
}

}  // namespace fin
