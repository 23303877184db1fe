// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/calibration/scale.h"

#include <cmath>

namespace fin {

constexpr double kShortestScale_px = 2.0;

Result<Scale> Scale::create(const ScaleMark& mark, const std::optional<ScalePlane>& plane) {
  const double apart_px = length(mark.to - mark.from).value();
  const double length_mm = mark.length.value();
  if (!(apart_px >= kShortestScale_px)) {
    return failure(ErrorCode::BadRequest,
                   "scale: the two ends lie on one spot; click both ends of the length", "scale");
  }
  if (!std::isfinite(length_mm) || length_mm <= 0.0) {
    return failure(ErrorCode::BadRequest, "scale: length_mm must be more than zero", "scale.length_mm");
  }
  if (!std::isfinite(mark.lengthU95.value()) || mark.lengthU95.value() < 0.0) {
    return failure(ErrorCode::BadRequest, "scale: length_u95_mm must not be negative", "scale.length_u95_mm");
  }
  double farther = 1.0;
  double planeU95 = kPlaneU95;
  if (plane) {
    const double ruler = plane->cameraToScale.value();
    const double lure = plane->cameraToLure.value();
    if (!std::isfinite(ruler) || !std::isfinite(lure) || ruler <= 0.0 || lure <= 0.0) {
      return failure(ErrorCode::BadRequest, "scale_plane: both distances must be more than zero",
                     "scale_plane");
    }
    farther = lure / ruler;
    planeU95 = std::hypot(kDistanceU95.value() / ruler, kDistanceU95.value() / lure);
  }
  const double ends = std::sqrt(2.0) * kEndPlacingU95.value() / apart_px;
  const double ruler = mark.lengthU95.value() / length_mm;
  return Scale(length_mm / apart_px * farther, std::hypot(ends, ruler, planeU95));
}

}  // namespace fin
