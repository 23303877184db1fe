// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <random>

#include "core/readings/pass_traces.h"

namespace fin::test {

/// Moves every mark of a true track as following errs on footage whose true tracks are known
/// (docs/methods/following.md, "How a followed mark errs"), standard deviations along each axis of the
/// picture: 0.25 px all along, 0.2 px that comes back with every turn of the body, 0.2 px that wanders over
/// ten frames, 0.12 px from frame to frame.
void followAsSeen(Track& track, std::mt19937& random);

/// Makes the known length wrong, leans the plumb line and places the ends of a waterline, each as far off as
/// its u95 allows for.
void markAsPlaced(Geometry& geometry, const ScaleMark& mark, std::mt19937& random);

}  // namespace fin::test
