// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/comparison/vote.h"

class QCustomPlot;

namespace fin::app {

/// A lane for each rig: how often of a hundred it would be preferred to a middling one, with its interval.
/// What was drawn before goes.
void drawVote(QCustomPlot& plot, const VoteCount& count);

}  // namespace fin::app
