// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/moving_ends.h"

#include "support/followed_error.h"

namespace fin::test {

PassTraces tracesOf(const std::function<Ends(double)>& ends, double seconds, View view,
                    std::optional<double> water_mm, std::mt19937* followed) {
  const auto seen = [](PixelPoint mm) { return MarkSample{true, {2.0 * mm.x_px, -2.0 * mm.y_px}, 1.0}; };
  Track track{0, static_cast<std::size_t>(120.0 * seconds), {{MarkName::Nose, {}}, {MarkName::Tail, {}}}};
  std::vector<double> time_s;
  for (std::size_t n = 0; n < track.frameCount; ++n) {
    time_s.push_back(static_cast<double>(n) / 120.0);
    const Ends at = ends(time_s.back());
    track.marks[0].samples.push_back(seen(at.nose));
    track.marks[1].samples.push_back(seen(at.tail));
  }
  const ScaleMark ruler{{0, 0}, {600, 0}, Millimetres(300.0), Millimetres(0.5)};
  Geometry geometry;
  geometry.view = view;
  geometry.pull = Pull::Right;
  geometry.scale = *Scale::create(ruler, {});
  if (water_mm) geometry.waterline = PixelLine{{0.0, -2.0 * *water_mm}, {1000.0, -2.0 * *water_mm}};
  if (followed != nullptr) {
    followAsSeen(track, *followed);
    markAsPlaced(geometry, ruler, *followed);
  }
  return traceBody(track, time_s, geometry);
}

}  // namespace fin::test
