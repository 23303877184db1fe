// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

#include "core/comparison/compared_passes.h"
#include "core/planning/weight_study.h"

namespace fin {

/// How a fall rate shifts from one water to another by the weight in water alone.
struct WaterShift {
  double ratio = 1.0;          ///< the second over the first
  double bodyInWater_g = 0.0;  ///< in the first water; negative where it floats
  bool bodyAssumed = false;    ///< nobody knows what the body weighs there: taken as nothing
};

/// Of a rig whose model weighs so much, and whose body's weight in the first water is known: the body
/// displaces (mass − weight in water) / density, which is lifted by the difference of the densities; drag as
/// weight_change.h. It misleads where the bait takes up water or compresses. Errors: BadRequest without a
/// model's weight, and as changeWeight.
Result<WaterShift> fallShift(const Model& model, const Rig& rig, Grams bodyInWater, const WaterState& from,
                             const WaterState& to);

/// The same with the body's weight as falls of the model's rigs on two heads and more tell it; where they do
/// not, a body on a head is taken to weigh nothing in the water. `rigOf` is as in weight_study.h. Errors: as
/// bodyWeight where it has no head.
Result<WaterShift> fallShift(const std::vector<ComparedPass>& passes, const RigOfPass& rigOf,
                             const Rack& rack, const Rig& rig, const WaterState& from, const WaterState& to);

}  // namespace fin
