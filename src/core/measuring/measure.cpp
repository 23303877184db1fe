// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measuring/measure.h"

#include <fmt/format.h>
#include <algorithm>

#include "core/calibration/clip_clock.h"
#include "core/measuring/hear_pass.h"
#include "core/readings/drag.h"
#include "core/readings/fall.h"
#include "core/readings/hop.h"
#include "core/readings/rest.h"
#include "core/readings/retrieve.h"
#include "core/readings/roll.h"
#include "core/readings/skirt.h"
#include "core/readings/twitch.h"
#include "core/tracking/background/sway.h"
#include "core/tracking/row_times.h"

namespace fin {
namespace {

constexpr double kFollowedShareWanted = 0.9;
constexpr double kDoubtfulShareAllowed = 0.1;
constexpr double kLeastSureShare = 0.2;  ///< of the frames
constexpr double kTailFirst = -0.6;      ///< mean cosine between its axis and its way

std::vector<MarkName> marksOf(const PassRequest& request) {
  std::vector<MarkName> out;
  for (const MarkSeed& s : request.marks) out.push_back(s.name);
  return out;
}

PassNeeds needsOf(const PassRequest& request) {
  return {request.protocol,
          request.view,
          marksOf(request),
          request.scale || request.square,
          request.waterline.has_value(),
          request.outline.has_value()};
}

/// On a pull a lure goes nose first: where it went the other way all along, its ends were taken for each
/// other.
bool swimsTailFirst(const PassRequest& request, const Track& track) {
  if (request.protocol != Protocol::Retrieve || request.view == View::HeadOn || request.view == View::Chase)
    return false;
  const MarkTrack* nose = track.find(MarkName::Nose);
  const MarkTrack* tail = track.find(MarkName::Tail);
  if (nose == nullptr || tail == nullptr) return false;
  std::optional<PixelPoint> first;
  PixelPoint way;
  double ahead = 0.0;
  double frames = 0.0;
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    if (!nose->samples[i].seen || !tail->samples[i].seen) continue;
    if (!first) first = tail->samples[i].at;
    way = tail->samples[i].at - *first;
    const PixelPoint axis = nose->samples[i].at - tail->samples[i].at;
    const double far = length(axis).value() * length(way).value();
    if (length(way).value() < length(axis).value()) continue;
    ahead += dot(axis, way) / far;
    frames += 1.0;
  }
  return frames > 0.0 && ahead < kTailFirst * frames;
}

std::vector<std::string> warningsFor(const PassRequest& request, const Clip& clip, const PassResult& result) {
  std::vector<std::string> out = clip.info().warnings;
  const std::size_t last = clip.index().frameCount() - 1;
  if (request.lastFrame && *request.lastFrame > last) {
    out.push_back(fmt::format("last_frame is past the end; the clip's last frame {} is used", last));
  }
  if (!result.track.outlineLost.empty()) out.push_back(result.track.outlineLost);
  const std::size_t followed = result.track.followed();
  if (!result.track.marks.empty() &&
      static_cast<double>(followed) < kFollowedShareWanted * static_cast<double>(result.track.frameCount)) {
    out.push_back(
        fmt::format("the marks were followed in {} of {} frames only; place one again where it is lost",
                    followed, result.track.frameCount));
  }
  const double sway_px = request.view == View::Chase ? 0.0 : swayOf_px(result.track.background);
  if (sway_px > 0.0 && wasCarried(result.track.background))
    out.push_back(fmt::format(
        "the camera moved along by some {:.0f} px: what rests on where the lure is cannot be told; "
        "film from a stand",
        sway_px));
  else if (sway_px > 0.0)
    out.push_back(fmt::format(
        "the camera swayed by up to {:.1f} px; that was taken out, by what lies behind the lure", sway_px));
  if (swimsTailFirst(request, result.track))
    out.push_back(
        "it swims tail first: were nose and tail taken for each other? Place them the other way round");
  for (const MarkTrack& mark : result.track.marks) {
    const auto doubtful = std::count_if(mark.samples.begin(), mark.samples.end(), [](const MarkSample& s) {
      return s.seen && s.quality < kDoubtfulBelow;
    });
    if (static_cast<double>(doubtful) <= kDoubtfulShareAllowed * static_cast<double>(mark.samples.size()))
      continue;
    out.push_back(
        fmt::format("the {} is doubtful in {} of {} frames: hidden, lost or beside its place; look there, "
                    "and correct it",
                    toString(mark.name), doubtful, mark.samples.size()));
  }
  return out;
}

/// What of a track counts for readings.
Track withoutFouled(Track track, const std::vector<FouledStretch>& fouled) {
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    const bool counts = std::none_of(fouled.begin(), fouled.end(), [&](const FouledStretch& f) {
      return f.frames.holds(track.firstFrame + i);
    });
    if (counts) continue;
    for (MarkTrack& mark : track.marks) mark.samples[i] = {};
    if (!track.outline.empty()) track.outline[i] = {};
    if (!track.brightness.empty()) track.brightness[i].reset();
  }
  return track;
}

/// What rests on a mark that is hardly ever sure is refused, whatever its numbers look like.
void refuseWhatIsDoubtful(Protocol protocol, const Track& track, ReadingSheet& sheet) {
  const auto sureIn = [](const MarkTrack& mark) {
    return std::count_if(mark.samples.begin(), mark.samples.end(),
                         [](const MarkSample& s) { return s.seen && s.quality >= kDoubtfulBelow; });
  };
  for (const ReadingSpec& spec : readingsOf(protocol)) {
    for (const MarkName name : spec.marks) {
      const MarkTrack* mark = track.find(name);
      if (mark == nullptr) continue;
      const auto sure = sureIn(*mark);
      if (static_cast<double>(sure) >= kLeastSureShare * static_cast<double>(mark->samples.size())) continue;
      sheet.refuse(
          spec.id,
          fmt::format("the {} is sure in {} of {} frames only: place it on a clearer detail, or film "
                      "nearer, in better light, and as the camera writes it",
                      toString(name), sure, mark->samples.size()));
      break;
    }
  }
}

void refuseWhatRestsOnPlaces(Protocol protocol, ReadingSheet& sheet) {
  for (const ReadingSpec& spec : readingsOf(protocol)) {
    if (restsOnPlaces(protocol, spec))
      sheet.refuse(spec.id, "the camera moved while it filmed; film from a stand");
  }
}

/// What cannot be heard is refused, with the reason; what cannot be decoded is an error.
Result<void> readSound(const PassRequest& request, const Clip& clip, const ClipClock& clock,
                       ReadingSheet& sheet, const JobControl& job) {
  const auto heard = hearPass(request, clip, clock, job);
  if (heard) {
    readRattle(*heard, sheet);
    return {};
  }
  if (heard.error().code != ErrorCode::Unsupported) return tl::unexpected(heard.error());
  for (const ReadingSpec& spec : readingsOf(Protocol::Sound)) sheet.refuse(spec.id, heard.error().message);
  return {};
}

RowTimes rowTimesOf(Seconds readout, const ClipInfo& clip) {
  return {readout, clip.width_px, clip.height_px, clip.clockwiseTurn_deg};
}

/// From where the side view sees a roll.
RollView rollViewOf(const PassRequest& request, const Clip& clip, const std::optional<Scale>& scale) {
  RollView out;
  out.pictureMiddleY_px = request.lens ? request.lens->cy : 0.5 * (clip.info().height_px - 1);
  if (request.bodyHalfHeight && scale)
    out.halfHeight_px = request.bodyHalfHeight->value() / scale->mmPerPixel();
  if (request.lens) {
    out.cameraDistance_px = request.lens->fy;
  } else if (request.scalePlane && scale) {
    out.cameraDistance_px = request.scalePlane->cameraToLure.value() / scale->mmPerPixel();
  }
  return out;
}

/// How the marked bottom slopes in the lure's plane, in the traces' own directions; level where none is
/// marked.
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

}  // namespace

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

Result<PassResult> readPass(const PassRequest& request, const Clip& clip, Track track,
                            const JobControl& job) {
  const auto clock = ClipClock::create(clip.index(), request.captureRate);
  if (!clock) return tl::unexpected(clock.error());
  PassResult result;
  result.track = std::move(track);
  result.timeBasis = clock->basis();
  for (std::size_t i = 0; i < result.track.frameCount; ++i) {
    result.time_s.push_back(clock->timeOf(result.track.firstFrame + i).value());
  }

  const auto picture = rectificationOf(request);
  if (!picture) return tl::unexpected(picture.error());
  const auto scale = scaleOf(request, request.scalePlane);
  if (!scale) return tl::unexpected(scale.error());
  Geometry geometry{request.view, request.pull, *scale, *picture, request.plumb, request.waterline, {}};
  // What is followed behind the lure lies where the ruler does.
  geometry.backgroundScale = *scaleOf(request, std::nullopt);
  const bool chased = request.view == View::Chase;
  if (chased && !followsBackground(request)) result.track.background.clear();
  Track counting = chased ? result.track : steadied(result.track);
  if (request.rollingShutter)
    counting = atFrameTimes(counting, result.time_s, rowTimesOf(*request.rollingShutter, clip.info()));
  counting = withoutFouled(std::move(counting), request.fouled);
  result.traces = traceBody(counting, result.time_s, geometry);

  ReadingSheet sheet;
  if (request.protocol == Protocol::Retrieve) {
    readRetrieve(result.traces, request.view, sheet);
    readFlash(traceFlash(counting, result.time_s), sheet);
    readRoll(traceRoll(counting, result.time_s, geometry, rollViewOf(request, clip, *scale)), sheet);
  }
  if (request.protocol == Protocol::Fall) readFall(result.traces, request.view, sheet, request.thresholds);
  if (request.protocol == Protocol::Twitch || request.protocol == Protocol::Walk)
    readTwitch(result.traces, request.protocol, request.view, sheet, request.twitches, request.thresholds);
  if (request.protocol == Protocol::Hop) readHop(result.traces, sheet, request.twitches);
  if (request.protocol == Protocol::Drag) readDrag(result.traces, sheet);
  if (request.protocol == Protocol::Rest) readRest(result.traces, bottomSlope_deg(request, *picture), sheet);
  if (request.protocol == Protocol::Rest || request.protocol == Protocol::Skirt) {
    result.outline = traceOutline(counting, result.time_s, geometry);
    readSkirt(result.outline, sheet);
  }
  if (request.protocol == Protocol::Sound) {
    if (auto ok = readSound(request, clip, *clock, sheet, job); !ok) return tl::unexpected(ok.error());
  }
  refuseWhatIsDoubtful(request.protocol, result.track, sheet);
  if (!chased && wasCarried(result.track.background)) refuseWhatRestsOnPlaces(request.protocol, sheet);
  result.readings = sheet.complete(needsOf(request));
  result.evidence = std::move(sheet.evidence());
  result.warnings = warningsFor(request, clip, result);
  return result;
}

bool lureLost(const PassRequest& request, const PassResult& result) {
  return (!request.marks.empty() || request.outline) && result.readings.readings.empty() &&
         result.track.frameCount > 2 &&
         result.track.followed() < std::max<std::size_t>(3, result.track.frameCount / 20);
}

}  // namespace fin
