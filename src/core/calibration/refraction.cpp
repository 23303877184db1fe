// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/calibration/refraction.h"

#include <cmath>

namespace fin {

constexpr double kGlass = 1.50;
constexpr double kFresh = 1.333;
constexpr double kSea = 1.340;
constexpr double kSeaSalinity = 35.0;

Result<Millimetres> apparentDistance(const SightPath& path, GramsPerKilogram salinity) {
  for (const Millimetres part : {path.air, path.glass, path.water}) {
    if (!std::isfinite(part.value()) || part.value() < 0.0) {
      return failure(ErrorCode::BadRequest, "distances must not be negative", "scale_plane");
    }
  }
  const double n = kFresh + (kSea - kFresh) * salinity.value() / kSeaSalinity;
  const Millimetres seems = path.air + path.glass * (1.0 / kGlass) + path.water * (1.0 / n);
  if (seems.value() <= 0.0)
    return failure(ErrorCode::BadRequest, "the distances add up to nothing", "scale_plane");
  return seems;
}

}  // namespace fin
