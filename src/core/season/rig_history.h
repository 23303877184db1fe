// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/comparison/compared_passes.h"
#include "core/planning/day_plan.h"
#include "core/season/bridge.h"
#include "core/season/claims.h"

namespace fin {

/// What one day gave of a reading of a rig.
struct RigDay {
  DayId day;
  std::string date;  ///< empty where it was not said
  BridgedDay values;
};
/// A reading of a rig over all days that have it, by date.
struct RigHistory {
  std::string rig;
  ReadingId reading{};
  std::vector<RigDay> days;
  History history;  ///< of those days, in their order
  /// Where its value lies by the day that was last (95 %, Student's t over its passes; a single one's own).
  std::optional<ReadRange> latest;
  std::size_t setAside = 0;   ///< passes that were pulled more than a tenth slower or faster than most
  std::size_t otherBeat = 0;  ///< twitched or hopped at a beat that is off by more than 15 %
  /// A loudness: two days are only compared where the control was heard on both.
  bool heard = false;
};

/// The histories of these rigs, by rig and reading. Passes of one camera and planned pass count once; pulls
/// at another speed than most are set aside; the control is the rig that came again all day on
/// most days, if it is another one. Pure; on any thread.
std::vector<RigHistory> historiesOf(const std::vector<ComparedPass>& passes, const std::vector<DayHead>& days,
                                    const std::vector<std::string>& rigs);

/// How the state of the water differs between days so far that a reading may differ by that alone: salinity
/// by more than 1 g/kg, temperature by more than 3 °C.
struct WaterDiffers {
  double leastSalinity_g_kg = 0.0;
  double mostSalinity_g_kg = 0.0;
  double least_C = 0.0;
  double most_C = 0.0;
  bool salinity = false;
  bool temperature = false;
};
WaterDiffers waterDiffers(const std::vector<WaterPlan>& waters);

}  // namespace fin
