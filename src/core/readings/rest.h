// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/readings/pass_traces.h"
#include "core/readings/sheet.h"

namespace fin {

/// A lure at rest on the bottom: how it stands, and for how long. A lure that lies there from the first frame
/// on is taken to have touched down then. `bottom_deg` is how the bottom slopes in the view, upwards along
/// the pull. Uncertainty: the mean by its sway, the marks over the body's length and the bottom line in
/// quadrature; the time by two frames. Of 30 rehearsal passes the truth lay inside u95 30 times
/// (tests/rehearsal/coverage_test.cpp). Pure; on any thread.
void readRest(const PassTraces& traces, double bottom_deg, ReadingSheet& sheet);

}  // namespace fin
