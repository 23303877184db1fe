// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>

#include "core/units/points.h"
#include "core/units/result.h"

namespace fin {

/// Radial–tangential lens (D. C. Brown, Close-range camera calibration, 1971): a pinhole with
/// coefficients k1, k2, p1, p2, k3 in that order. Straightening is by fixed-point iteration; it is good
/// to 0.01 px wherever the distortion does not fold the picture over.
struct Lens {
  double fx = 1.0;
  double fy = 1.0;
  double cx = 0.0;
  double cy = 0.0;
  std::array<double, 5> k{};

  /// BadRequest ("lens") for focal lengths that are not positive or numbers that are not finite.
  [[nodiscard]] Result<void> validate() const;
  /// Where a point would be in the picture of a lens without distortion.
  [[nodiscard]] PixelPoint straightened(PixelPoint seen) const;
  /// The reverse: where the lens puts a point of the undistorted picture.
  [[nodiscard]] PixelPoint distorted(PixelPoint straight) const;

  friend bool operator==(const Lens&, const Lens&) = default;
};

}  // namespace fin
