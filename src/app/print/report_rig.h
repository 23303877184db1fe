// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/print/report.h"

namespace fin::app {

/// What a rig is, by its name on that day: size, hooks, colours, hardware, how it was rigged; what shops
/// asked for it, and when. `pricesFrom` dates a price that stands with the model alone.
void describeRig(ReportRig& to, const DayPlan& day, const QString& pricesFrom, UnitSystem units);

}  // namespace fin::app
