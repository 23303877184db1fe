// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/readings.
#pragma once

#include "core/readings/sight.h"
#include "core/signals/cycles.h"
#include "core/units/result.h"

namespace fin {

/// The yaw whose foreshortening is what was seen.
struct YawFit {
  double frequency_Hz = 0.0;
  double frequencySd_Hz = 0.0;
  double peakToPeak_deg = 0.0;
  double peakToPeakU95_deg = 0.0;  ///< from the fit's covariance
  double heading_deg = 0.0;  ///< out of the picture's plane; its sign is the stated one's, else arbitrary
  double whole_px = 0.0;     ///< the length square on, in the middle of the view
  std::vector<Cycle> cycles;
  double variation_percent = 0.0;   ///< of the cycles' length
  double cycleNoise_percent = 0.0;  ///< standard error of one cycle's length
};

/// Least squares of length × cos(sight) = whole (1 + drift) cos(heading + sight + yaw(phase)) + the marks'
/// own errors with the pose; phase by a cubic spline, a knot a cycle. Errors: Unsupported where it comes to
/// nothing, or fewer than two whole cycles are in view.
Result<YawFit> fitYaw(const SightTrace& trace, double rate_Hz);

}  // namespace fin
