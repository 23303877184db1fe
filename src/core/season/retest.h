// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>

#include "core/planning/day_plan.h"

namespace fin {

/// The same passes once more on another day, of which one thing is different, named in the day's name and
/// among what was held equal. Passes that were made again after a foul, or skipped as settled, come once and
/// as planned. `id` is the new day's; its passes are numbered from the number after it.
DayPlan retestOf(const DayPlan& day, std::int64_t id, const std::string& date, const std::string& change);

/// A day as it begins: nothing was planned to film, foretold, noted or photographed, and nothing happened.
void clearWhatHappened(DayPlan& day);

}  // namespace fin
