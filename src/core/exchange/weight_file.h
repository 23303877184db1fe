// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

#include "core/comparison/heads.h"

namespace fin {

/// Body weight, kick and the fall rate on each further head (g in water), as agile-fin-readings/1: what
/// cannot be told is refused there. A fall rate that is worked out carries `head_in_water_g`.
std::string writeHeads(const std::vector<HeadFall>& falls, const std::vector<double>& heads_g,
                       const std::vector<std::string>& warnings);

}  // namespace fin
