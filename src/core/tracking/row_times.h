// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>

#include "core/tracking/track.h"
#include "core/units/quantity.h"

namespace fin {

/// How a rolling shutter reads a picture: row by row, the last one `readout` after the first.
struct RowTimes {
  Seconds readout;
  int width_px = 0;  ///< of the picture as shown
  int height_px = 0;
  int clockwiseTurn_deg = 0;  ///< by which the camera's picture is turned to be shown

  /// How much later than the frame's first row a place is seen.
  [[nodiscard]] Seconds lateAt(PixelPoint p) const;
};

/// A track with its marks and outline where they were at the times of the frames: a place is read a little
/// after that, and where it was before and after tells where it was then (a parabola through three places).
/// What is seen without a neighbour is left as it is. `time_s` is the true time of every frame. Pure.
Track atFrameTimes(const Track& track, std::span<const double> time_s, const RowTimes& rows);

}  // namespace fin
