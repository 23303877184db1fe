// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/readings.
#pragma once

#include "core/readings/sight.h"
#include "core/units/result.h"

namespace fin {

/// The yaw whose foreshortening is what was seen.
struct YawFit {
  double frequencySd_Hz = 0.0;
  double peakToPeak_deg = 0.0;
  double peakToPeakU95_deg = 0.0;  ///< from the fit's covariance
  double heading_deg = 0.0;  ///< out of the picture's plane; its sign is the stated one's, else arbitrary
  double whole_px = 0.0;     ///< the length square on, in the middle of the view
  Series yaw_deg;            ///< as fitted
  double cycleNoise_percent = 0.0;  ///< standard error of one cycle's length
};

/// Least squares of length × cos(sight) = whole (1 + drift) cos(heading + sight + yaw(phase)) + the marks'
/// own errors with the pose; phase by a cubic spline, a knot a cycle. Errors: Unsupported where it comes to
/// nothing.
Result<YawFit> fitYaw(const SightTrace& trace, double rate_Hz);

}  // namespace fin
