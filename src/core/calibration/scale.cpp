// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/calibration/scale.h"

#include <cmath>

#include "core/calibration/plane_square.h"

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
  const double ends = std::sqrt(2.0) * kEndPlacingU95.value() / apart_px;
  const double ruler = mark.lengthU95.value() / length_mm;
  return inPlane(length_mm / apart_px, std::hypot(ends, ruler), plane);
}

Result<Scale> Scale::ofSquare(const PlaneSquare& square, const std::optional<ScalePlane>& plane) {
  return inPlane(square.mmPerPixel(), square.relativeU95(), plane);
}

/// The lure's plane is further off than the ruler's, or nearer: so is its scale.
Result<Scale> Scale::inPlane(double mm_per_px, double relative_u95, const std::optional<ScalePlane>& plane) {
  if (!plane) return Scale(mm_per_px, std::hypot(relative_u95, kPlaneU95));
  const double ruler = plane->cameraToScale.value();
  const double lure = plane->cameraToLure.value();
  if (!std::isfinite(ruler) || !std::isfinite(lure) || ruler <= 0.0 || lure <= 0.0) {
    return failure(ErrorCode::BadRequest, "scale_plane: both distances must be more than zero",
                   "scale_plane");
  }
  const double planeU95 = std::hypot(kDistanceU95.value() / ruler, kDistanceU95.value() / lure);
  return Scale(mm_per_px * lure / ruler, std::hypot(relative_u95, planeU95));
}

}  // namespace fin
