// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/print/report.h"

namespace fin::app {

/// What a rig is, by its name on that day: size, hooks, colours, hardware, how it was rigged; what shops
/// asked for it, and when. `pricesFrom` dates a price that stands with the model alone.
void describeRig(ReportRig& to, const DayPlan& day, const QString& pricesFrom, UnitSystem units);

/// Which rigs share a speed, a line each.
QStringList pulledTogether(const std::vector<ComparedPass>& passes, UnitSystem units);
/// What was held equal that day, and the water, a line each.
QStringList heldEqualOn(const DayPlan& day, UnitSystem units);
/// Which file, which frames, by which method and when: for whoever wants to check.
ReportSection originsOf(const std::vector<ComparedPass>& passes);

}  // namespace fin::app
