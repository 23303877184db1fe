// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measuring/measure.h"

#include <fmt/format.h>
#include <algorithm>

#include "core/calibration/clip_clock.h"

namespace fin {

Result<std::shared_ptr<const Clip>> openClip(const PassRequest& request, Clip::OpenOptions options) {
  auto clip = Clip::open(request.clip, std::move(options));
  if (!clip || !request.byField) return clip;
  if (!(*clip)->info().interlaced || (*clip)->info().clockwiseTurn_deg != 0) {
    return failure(ErrorCode::BadRequest, "by_field: this clip has no fields that could be read apart",
                   "by_field");
  }
  return Clip::byField(std::move(*clip));
}

std::vector<Feasibility> feasibilityFor(const PassRequest& request, const Clip& clip) {
  ClipFacts facts;
  facts.width_px = clip.info().width_px;
  facts.bodyLength_px = bodyLength_px(request);
  const std::size_t last = lastFrameOf(request, clip);
  if (const auto clock = ClipClock::create(clip.index(), request.captureRate)) {
    facts.rate_Hz = clock->rate().value();
    facts.length_s = (clock->timeOf(last) - clock->timeOf(std::min(request.firstFrame, last))).value();
  }
  if (const auto scale = scaleOf(request, request.scalePlane); scale && *scale) {
    facts.scaleRelativeU95 = (*scale)->relativeU95();
  }
  return feasibilityOf(needsOf(request), facts);
}

bool lureLost(const PassRequest& request, const PassResult& result) {
  return (!request.marks.empty() || request.outline) && result.readings.readings.empty() &&
         result.track.frameCount > 2 &&
         result.track.followed() < std::max<std::size_t>(3, result.track.frameCount / 20);
}

}  // namespace fin
