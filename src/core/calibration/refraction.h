// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/quantity.h"
#include "core/units/result.h"

namespace fin {

/// What lies between a camera and something it sees, along the line of sight. A camera under water has no air
/// and no glass; a ruler that hangs dry before the window has no glass and no water.
struct SightPath {
  Millimetres air{0.0};
  Millimetres glass{0.0};
  Millimetres water{0.0};

  friend bool operator==(const SightPath&, const SightPath&) = default;
};

/// How far it seems to be: air + glass / 1.50 + water / n, with n 1.333 in fresh and 1.340 in sea water (35
/// g/kg), in between by salinity (flat window, square to the sight, small angles; E. Hecht, Optics, 2017,
/// §5.2). Pixels per millimetre go with its inverse, so that this is the distance that a scale's plane asks
/// for. Errors: BadRequest for lengths that are negative or add up to nothing.
Result<Millimetres> apparentDistance(const SightPath& path, GramsPerKilogram salinity);

}  // namespace fin
