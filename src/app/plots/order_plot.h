// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/comparison/ranking.h"

class QCustomPlot;

namespace fin::app {

/// An order and how firm it is: a lane for each rig, a bar over the places that it may have (95 of 100 draws
/// of the measuring), a dot on their mean, the chance of being first beside it. At most `most` rigs from the
/// top.
void drawOrder(QCustomPlot& plot, const ScoreTable& table, const Ranking& ranking, std::size_t most);

}  // namespace fin::app
