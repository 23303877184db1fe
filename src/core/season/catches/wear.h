// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/season/catches/effort.h"
#include "core/season/rig_history.h"

namespace fin {

/// How a reading of a rig goes with the hours that it was fished before each test day: by day means, least
/// squares. `fished` are days on the water with their dates. Errors: as slopeOver (four test days at least).
struct FishedDay {
  std::string date;
  RunningDay run;
};
Result<Slope> wearOf(const RigHistory& history, RigId rig, const std::vector<FishedDay>& fished);

}  // namespace fin
