// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/readings/outline_traces.h"
#include "core/readings/sheet.h"

namespace fin {

/// Area of a skirted lure while it moves, how far it opens when it stops, how soon half of that has gone, and
/// how much it quivers at rest.
///
/// Model: one stop in the window, from a pull to rest: the pace falls below half of what it was and stays
/// there. It misleads where the lure turns while it opens, so that another side of it is seen.
/// Accuracy: areas are known to half a pixel of the rim, one way for all frames, which nearly leaves the
/// ratio of two areas alone. Of 30 rehearsal passes the truth lay inside u95 28 times for the area in
/// motion, 29 for the ratio, 30 at rest (tests/rehearsal/coverage_test.cpp). Pure; on any thread.
void readSkirt(const OutlineTraces& traces, ReadingSheet& sheet);

}  // namespace fin
