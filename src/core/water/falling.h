// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/quantity.h"
#include "core/units/result.h"

namespace fin {

/// What stays of a weight in water: m (1 − ρ / ρ_material). Lead 11300, tungsten 19300, steel 7850, brass
/// 8500 kg/m³.
Grams weightInWater(Grams dry, KilogramsPerCubicMetre material, KilogramsPerCubicMetre water);

/// Fall rate with another weight in water, in the same attitude and the same water: v √(W′₂ / W′₁).
/// Errors: BadRequest for weights or rates that are not positive.
Result<MillimetresPerSecond> fallRateWith(MillimetresPerSecond measured, Grams inWaterNow, Grams inWaterThen);

/// Weight of a head that makes a rig fall at a wanted rate: W′₂ = W′₁ (v₂ / v₁)², the rest of the rig keeping
/// its own weight in water; then out of the water again by the head's material.
///
/// Model: quadratic drag, same attitude, same way of falling; it misleads where the other head turns a glide
/// into a plumb fall. Errors: BadRequest for rates or weights that are not positive; Unsupported where the
/// wanted rate would need a head that lifts.
struct HeadQuestion {
  MillimetresPerSecond measured;
  MillimetresPerSecond wanted;
  Grams head;         ///< in air, on the measured rig
  Grams restInWater;  ///< everything but the head; negative where it floats
  KilogramsPerCubicMetre headMaterial{11300.0};
  KilogramsPerCubicMetre water{1000.0};
};
Result<Grams> headFor(const HeadQuestion& question);

}  // namespace fin
