// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

#include "core/comparison/cadence.h"
#include "core/comparison/speed_ladder.h"

namespace fin {

/// A ladder as `agile-fin-readings/1`: its readings, and the points of the curve under "points".
std::string writeLadder(const SpeedLadder& ladder, const std::vector<std::string>& warnings);

/// The same of twitches at several intervals.
std::string writeCadence(const CadenceLadder& ladder, const std::vector<std::string>& warnings);

}  // namespace fin
