// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>

#include "core/units/points.h"

namespace fin {

/// Where a body lies in a picture: its two marked ends. The axis runs from tail to nose; seen foreshortened
/// it is shorter than the body.
struct AxisPose {
  PixelPoint nose;
  PixelPoint tail;

  [[nodiscard]] PixelPoint middle() const { return midpoint(nose, tail); }
  [[nodiscard]] PixelPoint axis() const { return nose - tail; }
  [[nodiscard]] double length_px() const { return length(axis()).value(); }
};

/// The farther of the two ends' distances.
inline double apart_px(const AxisPose& a, const AxisPose& b) {
  return std::max(length(a.nose - b.nose).value(), length(a.tail - b.tail).value());
}

/// How far a body's axis may be seen shortened, by the way it is filmed.
enum class Foreshortening {
  None,    ///< from above: it lies level
  Slight,  ///< from the side, on a straight pull
  Any,     ///< it turns as it likes
};

}  // namespace fin
