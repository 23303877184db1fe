// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/day_plan.h"
#include "core/rehearsal/rehearse.h"

namespace fin {

/// The scene that a planned pass would give in the rehearsal tank: build and motion follow from the model's
/// family, the rig's weights and the pass's speed, with a little chance from `seed` so that no two passes are
/// the same. Errors: Unsupported for protocols and views that
/// the tank cannot play.
Result<RehearsalScene> sceneFor(const Model& model, const Rig& rig, const PlannedPass& pass, unsigned seed);

}  // namespace fin
