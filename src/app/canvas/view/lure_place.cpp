// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/canvas/view/lure_place.h"

#include <algorithm>

namespace fin::app {

std::optional<QPointF> lurePlace(const Track& track, std::size_t frame, std::size_t around) {
  if (track.frameCount == 0) return std::nullopt;
  const std::size_t last = track.firstFrame + track.frameCount - 1;
  const std::size_t middle = std::clamp(frame, track.firstFrame, last);
  const std::size_t from = middle - std::min(around, middle - track.firstFrame) - track.firstFrame;
  const std::size_t to = std::min(middle + around, last) - track.firstFrame;
  QPointF sum;
  int count = 0;
  const auto add = [&](bool seen, PixelPoint at) {
    if (!seen) return;
    sum += QPointF(at.x_px, at.y_px);
    ++count;
  };
  for (std::size_t i = from; i <= to; ++i) {
    for (const MarkTrack& mark : track.marks) add(mark.samples[i].seen, mark.samples[i].at);
    if (track.marks.empty() && i < track.outline.size()) add(track.outline[i].seen, track.outline[i].centre);
  }
  if (count == 0) return std::nullopt;
  return sum / count;
}

}  // namespace fin::app
