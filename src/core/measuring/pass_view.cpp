// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measuring/pass_view.h"

#include <cmath>

namespace fin {

Look lookOf(const PassRequest& request) {
  if (request.view == View::Top) return Look::Above;
  if (request.view == View::HeadOn) return Look::Ahead;
  if (request.view == View::Side || !request.seenFrom || *request.seenFrom == SeenFrom::Side)
    return Look::Side;
  return *request.seenFrom == SeenFrom::Above ? Look::Above : Look::Ahead;
}

RowTimes rowTimesOf(Seconds readout, const ClipInfo& clip) {
  return {readout, clip.width_px, clip.height_px, clip.clockwiseTurn_deg};
}

RollView rollViewOf(const PassRequest& request, const ClipInfo& clip, const std::optional<Scale>& scale) {
  RollView out;
  out.pictureMiddleY_px = request.lens ? request.lens->cy : 0.5 * (clip.height_px - 1);
  if (request.bodyHalfHeight && scale)
    out.halfHeight_px = request.bodyHalfHeight->value() / scale->mmPerPixel();
  if (request.lens) {
    out.cameraDistance_px = request.lens->fy;
  } else if (request.scalePlane && scale) {
    out.cameraDistance_px = request.scalePlane->cameraToLure.value() / scale->mmPerPixel();
  }
  return out;
}

double bottomSlope_deg(const PassRequest& request, const Rectification& picture) {
  if (!request.bottom) return 0.0;
  const PixelPoint up =
      upFromPlumb(request.plumb ? std::optional(picture.flat(*request.plumb)) : std::nullopt);
  const TankFrame frame({std::nullopt, {-up.y_px, up.x_px}, up});
  const PixelLine bottom = picture.flat(*request.bottom);
  const TankPoint from = frame.toTank(bottom.from);
  const TankPoint to = frame.toTank(bottom.to);
  const double slope = std::atan2(to.v_mm - from.v_mm, to.u_mm - from.u_mm) * kDegreesPerRadian;
  // Traces run along the pull, which may be leftwards; a line has no direction.
  return request.pull == Pull::Left ? -std::remainder(slope, 180.0) : std::remainder(slope, 180.0);
}

SightView sightViewOf(const PassRequest& request, const ClipInfo& clip, const std::optional<Scale>& ruler) {
  SightView out;
  out.width_px = clip.width_px;
  out.middle = {0.5 * (clip.width_px - 1), 0.5 * (clip.height_px - 1)};
  if (request.lens) {
    out.focal_px = request.lens->fx;
    out.middle = {request.lens->cx, request.lens->cy};
  } else if (request.scalePlane && ruler) {
    out.focal_px = request.scalePlane->cameraToLure.value() / ruler->mmPerPixel();
  }
  if (request.ownLength && ruler) {
    const OwnLength& own = *request.ownLength;
    out.whole_px = own.length.value() / ruler->mmPerPixel();
    out.wholeRelativeU95 = std::hypot(ruler->relativeU95(), own.u95.value() / own.length.value());
  }
  if (request.viewAngle) {
    out.heading_rad = request.viewAngle->deg / kDegreesPerRadian;
    out.headingU95_rad = request.viewAngle->u95_deg / kDegreesPerRadian;
  }
  return out;
}

AgainstLine placesAgainst(const PixelLine& line, const Timed& part, const Rectification& picture,
                          double unit) {
  AgainstLine out;
  const MarkTrack* nose = part.track.find(MarkName::Nose);
  const MarkTrack* tail = part.track.find(MarkName::Tail);
  if (nose == nullptr || tail == nullptr) return out;
  const PixelLine flat = picture.flat(line);
  PixelPoint way = (flat.to - flat.from) * (1.0 / length(flat.to - flat.from).value());
  std::vector<std::pair<double, PixelPoint>> places;
  for (std::size_t i = 0; i < part.track.frameCount; ++i) {
    if (nose->samples[i].seen && tail->samples[i].seen)
      places.emplace_back(part.time_s[i],
                          midpoint(picture.flat(nose->samples[i].at), picture.flat(tail->samples[i].at)));
  }
  if (places.size() > 1 && dot(places.back().second - places.front().second, way) < 0.0) way = way * -1.0;
  const PixelPoint right{-way.y_px, way.x_px};
  for (const auto& [t, at] : places) {
    out.along.add(t, dot(at - flat.from, way) * unit);
    out.across.add(t, dot(at - flat.from, right) * unit);
  }
  return out;
}

Track framesOf(const Track& track, FrameStretch frames) {
  Track out = track;
  const std::size_t from = std::max(frames.first, track.firstFrame) - track.firstFrame;
  const std::size_t to = std::min(frames.last - track.firstFrame, track.frameCount - 1) + 1;
  const auto cut = [from, to](auto& list) {
    if (list.empty()) return;
    list.erase(list.begin() + static_cast<std::ptrdiff_t>(to), list.end());
    list.erase(list.begin(), list.begin() + static_cast<std::ptrdiff_t>(from));
  };
  out.firstFrame = track.firstFrame + from;
  out.frameCount = to - from;
  for (MarkTrack& mark : out.marks) cut(mark.samples);
  cut(out.background);
  cut(out.outline);
  cut(out.brightness);
  return out;
}

std::vector<MarkSeed> seedsIn(const Track& track, FrameStretch frames) {
  std::vector<MarkSeed> out;
  for (const MarkTrack& mark : track.marks) {
    for (std::size_t n = frames.first; n <= frames.last; ++n) {
      const MarkSample& sample = mark.samples[n - track.firstFrame];
      if (!sample.seen || sample.quality < kDoubtfulBelow) continue;
      out.push_back({mark.name, n, sample.at});
      break;
    }
  }
  return out;
}

}  // namespace fin
