// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/readings.
#pragma once

#include "core/readings/pass_traces.h"
#include "core/units/estimate.h"

namespace fin {

/// How far the body's angle may be off by the placing of nose and tail (95 %), degrees.
double bodyAnglePlaceU95_deg(const PassTraces& traces);

/// The mean of the body's angle against the plumb over a part of a pass, degrees: its scatter over so many
/// blocks, the placing of nose and tail, and how level the camera stands. Good up to 1°, fair up to 3°. Where
/// it is used for the attitude of a fall the truth lay inside u95 in 27 of 30 rehearsal falls.
Estimate meanBodyAngle(const Series& part, std::size_t blocks, const PassTraces& traces);

}  // namespace fin
