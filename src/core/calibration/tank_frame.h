// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

#include "core/calibration/lens.h"
#include "core/calibration/plane_square.h"
#include "core/calibration/scale.h"

namespace fin {

struct PixelLine {
  PixelPoint from;
  PixelPoint to;

  friend bool operator==(const PixelLine&, const PixelLine&) = default;
};

/// The picture as a camera without distortion would take it square to the lure's plane: the lens allowed for,
/// and the perspective where a rectangle in the plane was shown.
struct Rectification {
  std::optional<Lens> lens;
  std::optional<PlaneSquare> square;

  [[nodiscard]] PixelPoint flat(PixelPoint seen) const;
  [[nodiscard]] PixelLine flat(const PixelLine& seen) const { return {flat(seen.from), flat(seen.to)}; }
};

/// From the flat picture to the lure's plane. u runs along the pull, v is up (in a top view: to the left of
/// the pull). Without a scale one unit is one pixel, and only angles and rates may be read.
class TankFrame {
 public:
  struct Parts {
    std::optional<Scale> scale;
    PixelPoint along{1.0, 0.0};  ///< the pull's direction in the flat picture; any length but 0
    PixelPoint up{0.0, -1.0};    ///< against gravity, or across to the left; any length but 0
  };
  explicit TankFrame(const Parts& parts);

  [[nodiscard]] TankPoint toTank(PixelPoint flat) const;
  /// A shift in the picture at a scale of its own, as a shift in the lure's plane's directions.
  [[nodiscard]] TankPoint shiftToTank(PixelPoint shift, double mmPerPixel) const;
  [[nodiscard]] const std::optional<Scale>& scale() const { return scale_; }

 private:
  std::optional<Scale> scale_;
  PixelPoint along_;
  PixelPoint up_;
};

/// Against gravity, from a plumb line drawn either way; the picture's vertical without one.
PixelPoint upFromPlumb(const std::optional<PixelLine>& plumb);

}  // namespace fin
