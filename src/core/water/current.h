// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/result.h"

namespace fin {

// A lure in a current, all speeds in mm/s, angles in degrees. Plane geometry of velocities; it says nothing
// of the line's bow. Errors: BadRequest for a speed below nought or what is no number.

/// How fast the water meets a lure that is towed at `ground` over ground, on a course of `angle` to where the
/// current flows: √(g² + c² − 2gc·cos θ).
Result<double> throughWater(double ground, double current, double angle_deg);
/// The speed over ground that gives a wanted one through the water: c·cos θ + √(w² − c²·sin² θ). Unsupported
/// where the current alone is faster across the course.
Result<double> overGround(double water, double current, double angle_deg);

/// A lure that is cast φ degrees from upstream and reeled in along its line.
struct CastInCurrent {
  double alongLine = 0.0;  ///< w = r − c·cos φ
  double sideways = 0.0;   ///< c·sin φ
};
Result<CastInCurrent> castInCurrent(double reel, double current, double fromUpstream_deg);

/// Between which angles from upstream a reeled lure stays within its band.
struct WorkingAngles {
  double from_deg = 0.0;
  double to_deg = 180.0;
};
/// cos φ = (r − w)/c at both ends of the band. Unsupported where no angle does.
Result<WorkingAngles> workingAngles(double reel, double current, double slowest, double fastest);
/// Reeled so a lure is carried no faster than the current: c·cos φ.
Result<double> reelAsTheCurrent(double current, double fromUpstream_deg);

/// A speed in the units that anglers use.
inline constexpr double kKilometresPerHour = 3.6e-3;         ///< of 1 mm/s
inline constexpr double kMilesPerHour = 3600.0 / 1609344.0;  ///< likewise
inline constexpr double kKnots = 3600.0 / 1852000.0;         ///< likewise

}  // namespace fin
