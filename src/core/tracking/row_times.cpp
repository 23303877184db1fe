// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/row_times.h"

#include <algorithm>
#include <optional>
#include <vector>

namespace fin {
namespace {

struct Stamped {
  double time_s = 0.0;
  PixelPoint at;
};

/// Lagrange's polynomial through some places, at a time.
PixelPoint placeAt(double time_s, std::span<const Stamped> through) {
  PixelPoint out;
  for (const Stamped& a : through) {
    double weight = 1.0;
    for (const Stamped& b : through) {
      if (&a != &b) weight *= (time_s - b.time_s) / (a.time_s - b.time_s);
    }
    out = out + a.at * weight;
  }
  return out;
}

/// What is seen of one thing, frame by frame, brought to the frames' times.
std::vector<std::optional<PixelPoint>> broughtToFrames(const std::vector<std::optional<PixelPoint>>& seen,
                                                       std::span<const double> time_s, const RowTimes& rows) {
  std::vector<std::optional<PixelPoint>> out = seen;
  for (std::size_t i = 0; i < seen.size(); ++i) {
    if (!seen[i]) continue;
    std::vector<Stamped> through;
    for (std::size_t k = std::max<std::size_t>(i, 1) - 1; k < std::min(i + 2, seen.size()); ++k) {
      if (seen[k]) through.push_back({time_s[k] + rows.lateAt(*seen[k]).value(), *seen[k]});
    }
    out[i] = placeAt(time_s[i], through);
  }
  return out;
}

}  // namespace

Seconds RowTimes::lateAt(PixelPoint p) const {
  const double across = std::clamp(p.x_px / std::max(width_px - 1, 1), 0.0, 1.0);
  const double down = std::clamp(p.y_px / std::max(height_px - 1, 1), 0.0, 1.0);
  switch (clockwiseTurn_deg) {
    case 90:
      return readout * (1.0 - across);
    case 180:
      return readout * (1.0 - down);
    case 270:
      return readout * across;
    default:
      return readout * down;
  }
}

Track atFrameTimes(const Track& track, std::span<const double> time_s, const RowTimes& rows) {
  Track out = track;
  std::vector<std::optional<PixelPoint>> seen(track.frameCount);
  for (MarkTrack& mark : out.marks) {
    for (std::size_t i = 0; i < track.frameCount; ++i)
      seen[i] = mark.samples[i].seen ? std::optional(mark.samples[i].at) : std::nullopt;
    const auto brought = broughtToFrames(seen, time_s, rows);
    for (std::size_t i = 0; i < track.frameCount; ++i) mark.samples[i].at = brought[i].value_or(PixelPoint{});
  }
  for (std::size_t i = 0; i < out.outline.size(); ++i)
    seen[i] = out.outline[i].seen ? std::optional(out.outline[i].centre) : std::nullopt;
  const auto brought = broughtToFrames(seen, time_s, rows);
  for (std::size_t i = 0; i < out.outline.size(); ++i)
    out.outline[i].centre = brought[i].value_or(PixelPoint{});
  return out;
}

}  // namespace fin
