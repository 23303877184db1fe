// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/readings/pass_traces.h"
#include "core/readings/sheet.h"

namespace fin {

/// The share of the frames in which the outline's top is within 15 mm of the waterline. u95: half the change
/// when that limit shifts by what outline, waterline and scale are unsure by, and the share's own from
/// stretches. Needs an outline that was followed. Pure; on any thread.
void readSurface(const Track& track, std::span<const double> time_s, const Geometry& geometry,
                 ReadingSheet& sheet);

}  // namespace fin
