// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/readings/pass_traces.h"
#include "core/readings/sheet.h"

namespace fin {

/// A drag over the bottom: how much the lure moves for every length that it is pulled. Writes what stands and
/// why the rest does not.
///
/// The angle of the body, and of the tail against it, goes to and fro between turning points that lie apart
/// by more than the marks can feign. The sum of all swings between the first and the last of them, over the
/// way pulled in between, in degrees a metre: a stick gives 0, what works at every touch gives much.
/// Accuracy: of 30 rehearsal drags the truth lay inside u95 28 times (tests/rehearsal/coverage_test.cpp).
/// Pure; on any thread.
void readDrag(const PassTraces& traces, ReadingSheet& sheet);

}  // namespace fin
