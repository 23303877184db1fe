// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/readings/sheet.h"
#include "core/readings/sight.h"

namespace fin {

/// Rate, angle and evenness of the wobble of a body that is seen from its side, told by how much shorter it
/// looks when it turns towards the camera or away.
///
/// Model: a level body that yaws by three harmonics about a heading; its apparent length goes with the cosine
/// of heading, angle of sight and yaw together. About the picture's plane it shortens twice a wobble, askew
/// once: which of the two it is, is decided by rule (sign of the rhythm over the angle of sight, a heading
/// that was stated, energy at half the rate, an odd cue), and refused with both candidates where no rule
/// does. Angle by least squares (Levenberg–Marquardt) with priors on full length, heading and wave form.
/// Uncertainty: its covariance, correlation of the residuals allowed for, and 5 % for wave form and uneven
/// cycles. Refused where u95 is more than a quarter.
/// It misleads where the body pitches as much as it yaws. Accuracy: tests/rehearsal/coverage_test.cpp.
/// Source: Jacobi–Anger expansion (Abramowitz & Stegun 9.1.42 to 9.1.45) for the lines; D. Thomson, Spectrum
/// estimation and harmonic analysis, Proc. IEEE 70, 1982, for the F test of a line.
/// Pure; on any thread.
void readSideWobble(const SightTrace& trace, ReadingSheet& sheet);

}  // namespace fin
