// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/phrases/words.h"
#include "core/comparison/cadence.h"

class QCustomPlot;

namespace fin::app {

/// How far a lure climbs with every twitch, against the time between twitches; level water marked.
void drawCadence(QCustomPlot& plot, const CadenceLadder& ladder, UnitSystem units);

}  // namespace fin::app
