// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

#include "core/season/conditions.h"

namespace fin {

/// What the noted water itself warns of, the gravest first; general ones are in planning/cautions.h. They
/// defer to local rules and licensed people, and say nothing of ice.
std::vector<std::string> cautionsOn(const WaterNow& water);

}  // namespace fin
