// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/planning/day_plan.h"

namespace fin {

/// Four days on the water in the autumn after the first test day: what the water was like, what was tied on,
/// and what came of it. Two of the rigs are swapped by blocks of place and hour. All is invented.
std::vector<DayPlan> demoWaterDays(const DayPlan& first, double morning_s);

/// What the testers expected of the first day before they filmed: some of it came otherwise.
Foretold demoForecast(double morning_s);

/// The number of the first of them.
inline constexpr std::int64_t kFirstWaterDay = 1000;

/// The canal and the reservoir that they fish, by their numbers.
inline constexpr std::int64_t kCanal = 132;
inline constexpr std::int64_t kReservoir = 133;

}  // namespace fin
