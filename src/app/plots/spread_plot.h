// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "app/phrases/words.h"
#include "core/comparison/compared_passes.h"
#include "core/planning/rack.h"

class QCustomPlot;

namespace fin::app {

/// Where a pass stands in the plot, in its coordinates.
struct SpreadPoint {
  PassId pass;
  double x = 0.0;
  double y = 0.0;
};

/// Every pass a ring, every rig's mean with its interval, a lane each, by falling mean; a bar joins those
/// that cannot be told apart. What was drawn before goes.
std::vector<SpreadPoint> drawSpread(QCustomPlot& plot, const Spread& spread,
                                    const std::vector<ComparedRig>& rigs, const QString& name,
                                    const ShownUnit& unit);

}  // namespace fin::app
