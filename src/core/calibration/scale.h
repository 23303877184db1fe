// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

#include "core/units/points.h"
#include "core/units/result.h"

namespace fin {

/// Two ends of a known length in the picture.
struct ScaleMark {
  PixelPoint from;
  PixelPoint to;
  Millimetres length;
  Millimetres lengthU95{0.0};

  friend bool operator==(const ScaleMark&, const ScaleMark&) = default;
};

/// The ruler hangs in another plane than the lure: both distances from the camera.
struct ScalePlane {
  Millimetres cameraToScale;
  Millimetres cameraToLure;

  friend bool operator==(const ScalePlane&, const ScalePlane&) = default;
};

/// How far a person's placing of one end may be off (95 %), picture pixels.
constexpr Pixels kEndPlacingU95{1.0};

/// How far a distance measured by tape may be off (95 %), and how far a ruler said to hang in the lure's
/// plane may make every length wrong.
constexpr Millimetres kDistanceU95{5.0};
constexpr double kPlaneU95 = 0.005;

class PlaneSquare;

/// Size of a pixel in the lure's plane.
///
/// Model: a camera square to the plane, so one factor holds all over the picture. mm per pixel =
/// length / distance of the ends, times cameraToLure / cameraToScale. It misleads when the ruler's plane
/// is not the lure's and no distances are given. Uncertainty: both ends, the length and the plane in
/// quadrature.
class Scale {
 public:
  /// `from` and `to` after the lens was allowed for. BadRequest when they coincide or a length is not
  /// positive.
  static Result<Scale> create(const ScaleMark& mark, const std::optional<ScalePlane>& plane);
  /// Of the flat picture that a rectangle gives; errors for the distances as above.
  static Result<Scale> ofSquare(const PlaneSquare& square, const std::optional<ScalePlane>& plane);

  /// Told otherwise than by a ruler.
  static Scale known(double mmPerPixel, double relativeU95) { return {mmPerPixel, relativeU95}; }

  [[nodiscard]] double mmPerPixel() const { return mm_per_px_; }
  [[nodiscard]] double relativeU95() const { return relative_u95_; }

 private:
  static Result<Scale> inPlane(double mm_per_px, double relative_u95, const std::optional<ScalePlane>& plane);
  Scale(double mm_per_px, double relative_u95) : mm_per_px_(mm_per_px), relative_u95_(relative_u95) {}

  double mm_per_px_;
  double relative_u95_;
};

}  // namespace fin
