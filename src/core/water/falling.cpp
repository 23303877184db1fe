// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/water/falling.h"

#include <cmath>

namespace fin {

Grams weightInWater(Grams dry, KilogramsPerCubicMetre material, KilogramsPerCubicMetre water) {
  return dry * (1.0 - water / material);
}

Result<MillimetresPerSecond> fallRateWith(MillimetresPerSecond measured, Grams inWaterNow,
                                          Grams inWaterThen) {
  if (!(measured.value() > 0.0) || !(inWaterNow.value() > 0.0)) {
    return failure(ErrorCode::BadRequest,
                   "a measured fall needs a rate and a weight in water of more than zero");
  }
  if (!(inWaterThen.value() > 0.0)) {
    return failure(ErrorCode::Unsupported, "with this weight it does not sink");
  }
  return measured * std::sqrt(inWaterThen / inWaterNow);
}

Result<Grams> headFor(const HeadQuestion& q) {
  if (!(q.measured.value() > 0.0) || !(q.wanted.value() > 0.0)) {
    return failure(ErrorCode::BadRequest, "both fall rates must be more than zero");
  }
  const double kept = 1.0 - q.water / q.headMaterial;
  const Grams now = q.head * kept + q.restInWater;
  if (!(q.head.value() >= 0.0) || !(now.value() > 0.0)) {
    return failure(ErrorCode::BadRequest,
                   "by these weights the measured rig would float; weigh it in the water");
  }
  const double faster = q.wanted / q.measured;
  const Grams then = now * (faster * faster) - q.restInWater;
  if (then.value() < 0.0) {
    return failure(ErrorCode::Unsupported, "even without a head it falls faster than wanted");
  }
  return then * (1.0 / kept);
}

}  // namespace fin
