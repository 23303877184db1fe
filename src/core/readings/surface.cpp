// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/surface.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>

namespace fin {
namespace {

constexpr double kAtSurface_mm = 15.0;
constexpr double kRim_px = 1.5;  ///< by which the outline's top and the marked line may be off together
constexpr std::size_t kFewestOutlines = 16;

/// How far a line lies over a place, straight up.
double underLine(const PixelLine& line, PixelPoint at) {
  const double across = line.to.x_px - line.from.x_px;
  const double share = std::abs(across) > 1e-9 ? (at.x_px - line.from.x_px) / across : 0.5;
  return at.y_px - (line.from.y_px + share * (line.to.y_px - line.from.y_px));
}

double shareWithin(const Series& depth_px, double limit_px) {
  const auto within =
      std::count_if(depth_px.y.begin(), depth_px.y.end(), [&](double d) { return d <= limit_px; });
  return 100.0 * static_cast<double>(within) / static_cast<double>(depth_px.size());
}

}  // namespace

void readSurface(const Track& track, std::span<const double> time_s, const Geometry& geometry,
                 ReadingSheet& sheet) {
  if (!geometry.waterline || !geometry.scale || track.outline.empty()) return;
  const PixelLine line = geometry.picture.flat(*geometry.waterline);
  Series top;
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    if (!track.outline[i].seen) continue;
    double highest = 1e300;
    for (const auto& contour : track.outline[i].contours) {
      for (const PixelPoint p : contour)
        highest = std::min(highest, underLine(line, geometry.picture.flat(p)));
    }
    if (highest < 1e300) top.add(time_s[i], highest);
  }
  if (top.size() < kFewestOutlines)
    return sheet.refuse(ReadingId::SurfaceShare, "too few frames show its outline");
  const double limit = kAtSurface_mm / geometry.scale->mmPerPixel();
  const double shift = std::hypot(kRim_px, limit * geometry.scale->relativeU95());
  Estimate e;
  e.value = shareWithin(top, limit);
  const double edge = 0.5 * std::abs(shareWithin(top, limit + shift) - shareWithin(top, limit - shift));
  e.setUncertainty({{UncertaintySource::OutlineEdge, edge},
                    {UncertaintySource::FrameTime, 100.0 / static_cast<double>(top.size())}});
  e.n = static_cast<double>(top.size());
  e.grade = e.u95 < 3.0 ? Grade::Good : e.u95 < 10.0 ? Grade::Fair : Grade::Poor;
  e.notes.push_back(fmt::format("within {:.0f} mm of the waterline", kAtSurface_mm));
  sheet.give(ReadingId::SurfaceShare, e);
}

}  // namespace fin
