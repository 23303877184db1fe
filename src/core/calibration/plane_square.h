// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>
#include <optional>

#include "core/calibration/lens.h"
#include "core/units/points.h"
#include "core/units/quantity.h"
#include "core/units/result.h"

namespace fin {

/// A rectangle of known sides in the lure's plane (a tile, a slate): its corners in the picture, one after
/// the other round it. The first side, from the first corner to the second, is `width` long.
struct SquareMark {
  std::array<PixelPoint, 4> corners;
  Millimetres width;
  Millimetres height;
  Millimetres sideU95{0.0};

  friend bool operator==(const SquareMark&, const SquareMark&) = default;
};

/// The lure's plane as a rectangle in it tells: scale, tilt and perspective at once.
///
/// Model: a plane seen by a pinhole, so that picture and plane are joined by a homography (R. Hartley and A.
/// Zisserman, Multiple View Geometry in Computer Vision, 2003, §2.3), which four corners settle exactly.
/// Uncertainty: every corner off by kEndPlacingU95 in either direction, carried through by differences, and
/// the sides, in quadrature; it holds at the rectangle and grows outside it.
class PlaneSquare {
 public:
  /// Corners after the lens was allowed for. BadRequest where three of them lie in a line, where they do not
  /// go round, or where a side has no length.
  static Result<PlaneSquare> create(const SquareMark& mark);

  /// Where a point would be in a picture taken square to the plane, in which every pixel is mmPerPixel()
  /// wide.
  [[nodiscard]] PixelPoint flattened(PixelPoint straight) const;
  [[nodiscard]] double mmPerPixel() const { return mm_per_px_; }
  [[nodiscard]] double relativeU95() const { return relative_u95_; }

 private:
  PlaneSquare() = default;

  std::array<double, 9> toPlane_{};  ///< picture → mm, homogeneous, column after column
  PixelPoint centre_;
  double mm_per_px_ = 1.0;
  double relative_u95_ = 0.0;
};

/// How well the four corners are those of one rectangle before one camera.
struct SquareCheck {
  double tilt_deg = 0.0;  ///< of the plane against the camera's view
  Pixels residual{0.0};   ///< root mean square over the corners, of the nearest true rectangle
};

/// `mark` as it is seen, lens or not. Without a lens the camera's axis is taken to be the picture's middle
/// and its focal length is found with the pose.
Result<SquareCheck> checkSquare(const SquareMark& mark, const std::optional<Lens>& lens, int width_px,
                                int height_px);

}  // namespace fin
