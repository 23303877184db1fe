// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string_view>
#include <vector>

#include "core/units/estimate.h"
#include "core/water/water.h"

namespace fin {

/// What stays of a weight in water: m (1 − ρ / ρ_material). Lead 11300, tungsten 19300, steel 7850, brass
/// 8500 kg/m³.
Grams weightInWater(Grams dry, KilogramsPerCubicMetre material, KilogramsPerCubicMetre water);

/// Of the metals that a head is made of: lead, tungsten, steel, brass.
std::optional<KilogramsPerCubicMetre> densityOfMetal(std::string_view name);

/// What of a rig sinks: in air, but for the body, which is weighed in the water (negative where it floats).
struct RigWeights {
  Grams head{0.0};
  Grams hook{0.0};
  Grams insert{0.0};
  Grams bodyInWater{0.0};
  KilogramsPerCubicMetre headMaterial{11300.0};    ///< lead
  KilogramsPerCubicMetre insertMaterial{19300.0};  ///< tungsten
};
/// Hooks are steel. Errors: BadRequest for a weight below zero.
Result<Grams> inWater(const RigWeights& rig, KilogramsPerCubicMetre water);

enum class BuoyancyState { Rises, Holds, Sinks };

/// A rig as it was measured, and as it might be.
struct WeightQuestion {
  Estimate fallRate;  ///< measured, mm/s
  RigWeights measured;
  WaterState measuredWater;
  RigWeights changed;
  WaterState changedWater;
  Grams weightU95{0.1};                 ///< of a rig's weight in water
  MillimetresPerSecond holdBand{10.0};  ///< slower than this it holds
};

struct WeightAnswer {
  Estimate rate;  ///< mm/s, downwards; upwards where it is negative
  BuoyancyState state = BuoyancyState::Sinks;
  double dragArea_mm2 = 0.0;  ///< Cd·A of the measured fall
  Grams inWaterBefore{0.0};
  Grams inWaterAfter{0.0};
};

/// Fall rate after a change of weight or water.
///
/// Model: quadratic drag with the measured fall's Cd·A = 2 W′ / (ρ v²), so v₂ = v₁ √(W′₂ ρ₁ / (W′₁ ρ₂)). Same
/// attitude and same way of falling: it misleads where the change turns a glide into a plumb fall. u95 from
/// the measured rate and the two weights. Errors: BadRequest for a rate or a measured weight in water that is
/// not positive, weights below zero, water outside of its formulas.
Result<WeightAnswer> changeWeight(const WeightQuestion& question);

/// The head that makes the rig fall at a wanted rate, everything else as in `changed`.
/// Errors: as above; Unsupported where it would have to lift.
Result<Grams> headForRate(const WeightQuestion& question, MillimetresPerSecond wanted);

/// Seconds from rest to a depth, for v(t) = v∞ tanh(t / τ): τ acosh(exp(depth / (v∞ τ))).
Seconds countdown(Millimetres depth, MillimetresPerSecond rate, Seconds timeConstant);

}  // namespace fin
