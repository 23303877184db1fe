// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>
#include <optional>
#include <vector>

#include "core/calibration/tank_frame.h"
#include "core/readings/sheet.h"
#include "core/tracking/track.h"

namespace fin {

/// How a body lies along the line from tail to nose, in shares of their distance: its middle between the two
/// sides of the outline, as a cubic over how far from tail to nose, end tenths left out.
struct BodyMiddle {
  std::array<double, 4> cubic{};
  double bend = 0.0;  ///< greatest distance from the cubic's chord over the cubic's own length

  [[nodiscard]] double at(double share) const;
};
/// Flat places. None where the outline leaves gaps.
std::optional<BodyMiddle> bodyMiddle(const std::vector<std::vector<PixelPoint>>& contours, PixelPoint nose,
                                     PixelPoint tail);

/// Whether a lure is rigged straight, from frames in which it lies still: body_bend, and hook_offset where
/// the hook's place is marked. Median over the frames; u95: half a pixel of the outline, 2 %, and the mark's
/// own pixel. It misleads where the body is bent towards the camera, or hook and skirt stand out of the
/// outline. Pure; on any thread.
void readStill(const Track& track, const Rectification& picture, ReadingSheet& sheet);

}  // namespace fin
