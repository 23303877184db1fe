// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/readings/pass_traces.h"
#include "core/readings/sheet.h"

namespace fin {

/// The straight pull: travel speed; and seen from above the wobble, its angle, the tail's sweep, the swimming
/// number and the variation of the cycles. Writes what stands and why the rest does not.
///
/// Uncertainty: fits by their own covariance, medians over cycles by their spread, the scale and the placing
/// of the marks in quadrature. A frequency needs two whole cycles; from five it is more than poor; above 0.4
/// of the capture rate it is refused, above 0.2 it is fair.
/// Accuracy: over 30 rehearsal pulls with the errors of following the truth lay inside u95 28 times for speed
/// and angle, 29 for frequency, sweep and kick (tests/rehearsal/coverage_test.cpp). Source: our own
/// definitions, docs/methods/rhythm.md. Pure; on any thread.
void readRetrieve(const PassTraces& traces, View view, ReadingSheet& sheet);

/// The rate at which the lure's brightness (0 … 255) repeats. Needs no marks.
void readFlash(const Series& flash, ReadingSheet& sheet);

}  // namespace fin
