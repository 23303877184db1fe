// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/outline_traces.h"

#include <cmath>
#include <opencv2/imgproc.hpp>

#include "core/readings/outline_mask.h"
#include "core/signals/local_fit.h"

namespace fin {
namespace {

constexpr double kStep_s = 1.0 / 60.0;
constexpr double kPaceWindow_s = 0.06;  ///< either way
constexpr double kBeside_px = 8.0;      ///< over which the flat picture's own size is taken

/// mm² (or flat px²) to a px² of the picture, at a place.
double areaPerPixel(PixelPoint at, const Geometry& geometry) {
  const auto flat = [&](double dx, double dy) { return geometry.picture.flat(at + PixelPoint{dx, dy}); };
  const PixelPoint u = flat(kBeside_px, 0.0) - flat(-kBeside_px, 0.0);
  const PixelPoint v = flat(0.0, kBeside_px) - flat(0.0, -kBeside_px);
  const double grown = std::abs(u.x_px * v.y_px - u.y_px * v.x_px) / (4.0 * kBeside_px * kBeside_px);
  const double side = geometry.scale ? geometry.scale->mmPerPixel() : 1.0;
  return grown * side * side;
}

double changeBetween(const OutlineSample& before, const OutlineSample& now) {
  const cv::Rect box = boundsOf(before) | boundsOf(now);
  cv::Mat apart;
  cv::bitwise_xor(maskOf(before, box), maskOf(now, box), apart);
  return cv::countNonZero(apart) / now.area_px2;
}

double rimLength(const OutlineSample& sample) {
  double out = 0.0;
  for (const auto& rim : sample.contours) out += static_cast<double>(rim.size());
  return out;
}

/// Speed along the path of the nose, or of the outline's middle.
Series paceOf(const Track& track, std::span<const double> time_s, const Geometry& geometry) {
  const MarkTrack* nose = track.find(MarkName::Nose);
  Series x;
  Series y;
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    const bool byNose = nose != nullptr;
    if (byNose ? !nose->samples[i].seen : !track.outline[i].seen) continue;
    const PixelPoint at = geometry.picture.flat(byNose ? nose->samples[i].at : track.outline[i].centre);
    x.add(time_s[i], at.x_px);
    y.add(time_s[i], at.y_px);
  }
  const double unit = geometry.scale ? geometry.scale->mmPerPixel() : 1.0;
  Series out;
  for (const double t : x.t_s) {
    const auto u = localFit(x, t, kPaceWindow_s);
    const auto v = localFit(y, t, kPaceWindow_s);
    if (u && v) out.add(t, std::hypot(u->slope, v->slope) * unit);
  }
  return out;
}

}  // namespace

OutlineTraces traceOutline(const Track& track, std::span<const double> time_s, const Geometry& geometry) {
  OutlineTraces out;
  if (track.outline.empty()) return out;
  out.inMillimetres = geometry.scale.has_value();
  if (geometry.scale) out.scaleRelativeU95 = geometry.scale->relativeU95();
  std::vector<double> rims;
  std::vector<double> areas;
  std::size_t before = 0;  // the frame nearest to a step before this one
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    const OutlineSample& now = track.outline[i];
    if (!now.seen || !now.whole) continue;
    out.area.add(time_s[i], now.area_px2 * areaPerPixel(now.centre, geometry));
    rims.push_back(rimLength(now));
    areas.push_back(now.area_px2);
    while (before + 1 < i && time_s[i] - time_s[before + 1] > kStep_s * 0.99) ++before;
    const OutlineSample& then = track.outline[before];
    if (before < i && then.seen && then.whole && time_s[i] - time_s[before] < 2.5 * kStep_s)
      out.change.add(time_s[i], changeBetween(then, now) * kStep_s / (time_s[i] - time_s[before]));
  }
  out.perimeter_px = median(rims);
  out.area_px2 = median(areas);
  out.pace = paceOf(track, time_s, geometry);
  return out;
}

Series traceFlash(const Track& track, std::span<const double> time_s) {
  Series out;
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    if (!track.outline.empty()) {
      if (track.outline[i].seen && track.outline[i].whole) out.add(time_s[i], track.outline[i].brightness);
    } else if (i < track.brightness.size() && track.brightness[i]) {
      out.add(time_s[i], *track.brightness[i]);
    }
  }
  return out;
}

}  // namespace fin
