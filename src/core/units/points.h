// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cmath>

#include "core/units/quantity.h"

namespace fin {

/// A place in the picture as it is shown: x right, y down, a pixel's centre at whole numbers.
struct PixelPoint {
  double x_px = 0.0;
  double y_px = 0.0;

  friend bool operator==(const PixelPoint&, const PixelPoint&) = default;
};

inline PixelPoint operator+(PixelPoint a, PixelPoint b) {
  return {a.x_px + b.x_px, a.y_px + b.y_px};
}
inline PixelPoint operator-(PixelPoint a, PixelPoint b) {
  return {a.x_px - b.x_px, a.y_px - b.y_px};
}
inline PixelPoint operator*(PixelPoint a, double k) {
  return {a.x_px * k, a.y_px * k};
}
/// px².
inline double dot(PixelPoint a, PixelPoint b) {
  return a.x_px * b.x_px + a.y_px * b.y_px;
}
inline Pixels length(PixelPoint a) {
  return Pixels(std::hypot(a.x_px, a.y_px));
}
inline PixelPoint midpoint(PixelPoint a, PixelPoint b) {
  return (a + b) * 0.5;
}

/// A place in the lure's plane, in mm. u is along the pull (across in a head-on view); v is up (in a top
/// view: across, to the left of the pull as seen in the picture).
struct TankPoint {
  double u_mm = 0.0;
  double v_mm = 0.0;
};

}  // namespace fin
