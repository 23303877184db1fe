// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>
#include <algorithm>
#include <cmath>

#include "core/calibration/clip_clock.h"
#include "core/measuring/hear_pass.h"
#include "core/measuring/measure.h"
#include "core/readings/beat.h"
#include "core/readings/course.h"
#include "core/readings/drag.h"
#include "core/readings/fall.h"
#include "core/readings/head_on_wobble.h"
#include "core/readings/hop.h"
#include "core/readings/own_ruler.h"
#include "core/readings/rest.h"
#include "core/readings/retrieve.h"
#include "core/readings/roll.h"
#include "core/readings/side_wobble.h"
#include "core/readings/skirt.h"
#include "core/readings/stretches.h"
#include "core/readings/surface.h"
#include "core/readings/twitch.h"
#include "core/readings/twitch_knocks.h"
#include "core/tracking/background/sway.h"
#include "core/tracking/row_times.h"

namespace fin {
namespace {

constexpr double kFollowedShareWanted = 0.9;
constexpr double kDoubtfulShareAllowed = 0.1;
constexpr double kLeastSureShare = 0.2;  ///< of the frames
constexpr double kTailFirst = -0.6;      ///< mean cosine between its axis and its way

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

void refuseWhatRestsOnPlaces(Protocol protocol, const std::string& why, ReadingSheet& sheet) {
  for (const ReadingSpec& spec : readingsOf(protocol)) {
    if (restsOnPlaces(protocol, spec)) sheet.refuse(spec.id, why);
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

constexpr double kAtBottom_mm = 10.0;
constexpr double kAtBottom_bodies = 0.1;  ///< where no size is known

/// From where a pull is seen, whatever carries the camera.
enum class Look { Above, Side, Ahead };

Look lookOf(const PassRequest& request) {
  if (request.view == View::Top) return Look::Above;
  if (request.view == View::HeadOn) return Look::Ahead;
  if (request.view == View::Side || !request.seenFrom || *request.seenFrom == SeenFrom::Side)
    return Look::Side;
  return *request.seenFrom == SeenFrom::Above ? Look::Above : Look::Ahead;
}

/// The frames of a track from one to another, both included; they have some in common.
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

/// A track with the true times of its frames: the whole window, or one stretch of it.
struct Timed {
  Track track;
  std::vector<double> time_s;
};

/// Reads one pass: all that its readings share is made once.
class PassReader {
 public:
  PassReader(const PassRequest& request, const Clip& clip, const ClipClock& clock, Rectification picture,
             const JobControl& job)
      : request_(request), clip_(clip), clock_(clock), picture_(std::move(picture)), job_(job) {}

  Result<PassResult> read(Track track);

 private:
  void takeScale(const Timed& whole);
  void takeOwnScale(const Timed& whole, const std::optional<Scale>& ruler);
  Result<void> readAll(const Timed& whole);
  Result<void> readOne(Protocol protocol, const Timed& part, std::optional<std::size_t> stretch);
  void readPull(const Timed& part, const PassTraces& traces, ReadingSheet& sheet);
  void readWobbleSeenFrom(Look look, const Timed& part, ReadingSheet& sheet);
  Result<void> readKnocks(const Timed& part, ReadingSheet& sheet);
  [[nodiscard]] SightView sightView(const std::optional<Scale>& ruler) const;
  [[nodiscard]] std::vector<ClipStretch> stretchesOf(const Timed& whole) const;

  const PassRequest& request_;
  const Clip& clip_;
  const ClipClock& clock_;
  Rectification picture_;
  const JobControl& job_;
  Geometry geometry_;
  std::optional<Scale> ruler_;
  std::optional<Estimate> ownScale_;
  std::string noOwnScale_;
  PassResult result_;
};

Result<PassResult> PassReader::read(Track track) {
  result_.track = std::move(track);
  result_.timeBasis = clock_.basis();
  for (std::size_t i = 0; i < result_.track.frameCount; ++i)
    result_.time_s.push_back(clock_.timeOf(result_.track.firstFrame + i).value());
  const auto ruler = scaleOf(request_, request_.scalePlane);
  if (!ruler) return tl::unexpected(ruler.error());
  ruler_ = *ruler;
  geometry_ = {request_.view,  request_.pull,      ruler_,          picture_,
               request_.plumb, request_.waterline, request_.bottom, std::nullopt};
  const bool chased = request_.view == View::Chase;
  if (chased && !followsBackground(request_)) result_.track.background.clear();
  Timed whole{chased ? result_.track : steadied(result_.track), result_.time_s};
  if (request_.rollingShutter)
    whole.track = atFrameTimes(whole.track, whole.time_s, rowTimesOf(*request_.rollingShutter, clip_.info()));
  whole.track = withoutFouled(std::move(whole.track), request_.fouled);
  takeScale(whole);
  result_.traces = traceBody(whole.track, whole.time_s, geometry_);
  if (auto ok = readAll(whole); !ok) return tl::unexpected(ok.error());
  for (std::string& warning : warningsFor(request_, clip_, result_))
    result_.warnings.push_back(std::move(warning));
  return std::move(result_);
}

/// A ruler's scale, or the lure's own length, whichever is surer. What is followed behind the lure lies where
/// the ruler does.
void PassReader::takeScale(const Timed& whole) {
  if (request_.ownLength) takeOwnScale(whole, ruler_);
  const auto behind = scaleOf(request_, std::nullopt);
  if (behind && *behind) {
    geometry_.backgroundScale = **behind;
  } else if (geometry_.scale && request_.scalePlane) {
    const double farther =
        request_.scalePlane->cameraToScale.value() / request_.scalePlane->cameraToLure.value();
    geometry_.backgroundScale =
        Scale::known(geometry_.scale->mmPerPixel() * farther, geometry_.scale->relativeU95());
  }
}

void PassReader::takeOwnScale(const Timed& whole, const std::optional<Scale>& ruler) {
  const OwnLength& own = *request_.ownLength;
  const Look look = lookOf(request_);
  if (look == Look::Ahead) return;  // its length is not seen
  const SightTrace sight = traceSight(whole.track, whole.time_s, geometry_, sightView(ruler));
  OwnRulerInput input{{sight.t_s, sight.length_px}, {}, 0.0, own.length.value(), own.u95.value()};
  if (look == Look::Above) input.swing_deg = 90.0;  // a level body shows its whole length from above
  if (look == Look::Side && !hasStretches(request_) && request_.protocol == Protocol::Retrieve) {
    ReadingSheet wobble;
    readSideWobble(sight, wobble);
    if (const Estimate* angle = wobble.estimate(ReadingId::WobbleAngle)) input.swing_deg = 0.5 * angle->value;
    for (const TimeSpan& cycle : wobble.evidence().cycles) input.cycles.push_back({cycle.from_s, cycle.to_s});
  }
  const auto scale = ownRuler(input);
  if (!scale) {
    noOwnScale_ = scale.error().message;
    return;
  }
  ownScale_ = scale->scale;
  const Scale told = Scale::known(1.0 / scale->scale.value, scale->relativeU95());
  if (!ruler || told.relativeU95() < ruler->relativeU95()) geometry_.scale = told;
  if (!ruler) return;
  const double differ = told.mmPerPixel() / ruler->mmPerPixel();
  if (std::abs(differ - 1.0) <= std::hypot(told.relativeU95(), ruler->relativeU95())) return;
  std::string implied;
  if (request_.scalePlane)
    implied = fmt::format("; the lure would have been {:.0f} mm from the camera",
                          request_.scalePlane->cameraToLure.value() * differ);
  result_.warnings.push_back(fmt::format(
      "the ruler and the lure's own length disagree by {:.1f} %{}: check both, and where the ruler hung",
      100.0 * std::abs(differ - 1.0), implied));
}

SightView PassReader::sightView(const std::optional<Scale>& ruler) const {
  SightView out;
  out.width_px = clip_.info().width_px;
  out.middle = {0.5 * (clip_.info().width_px - 1), 0.5 * (clip_.info().height_px - 1)};
  if (request_.lens) {
    out.focal_px = request_.lens->fx;
    out.middle = {request_.lens->cx, request_.lens->cy};
  } else if (request_.scalePlane && ruler) {
    out.focal_px = request_.scalePlane->cameraToLure.value() / ruler->mmPerPixel();
  }
  if (request_.ownLength && ruler) {
    const OwnLength& own = *request_.ownLength;
    out.whole_px = own.length.value() / ruler->mmPerPixel();
    out.wholeRelativeU95 = std::hypot(ruler->relativeU95(), own.u95.value() / own.length.value());
  }
  if (request_.viewAngle) {
    out.heading_rad = request_.viewAngle->deg / kDegreesPerRadian;
    out.headingU95_rad = request_.viewAngle->u95_deg / kDegreesPerRadian;
  }
  return out;
}

std::vector<ClipStretch> PassReader::stretchesOf(const Timed& whole) const {
  if (!request_.findStretches) return request_.stretches;
  const double bottom = geometry_.scale ? kAtBottom_mm : kAtBottom_bodies * result_.traces.bodyLength;
  std::vector<ClipStretch> out;
  const auto frameAt = [&](double t) {
    const auto found = std::lower_bound(whole.time_s.begin(), whole.time_s.end(), t - 1e-9);
    return whole.track.firstFrame + static_cast<std::size_t>(found - whole.time_s.begin());
  };
  for (const PathStretch& stretch : findStretches(result_.traces, bottom)) {
    const std::size_t from = out.empty() ? whole.track.firstFrame : out.back().frames.last + 1;
    out.push_back({stretch.protocol, {from, std::max(from, frameAt(stretch.to_s))}});
  }
  if (!out.empty()) out.back().frames.last = whole.track.firstFrame + whole.track.frameCount - 1;
  return out;
}

Result<void> PassReader::readAll(const Timed& whole) {
  if (!hasStretches(request_)) return readOne(request_.protocol, whole, std::nullopt);
  result_.stretches = stretchesOf(whole);
  if (result_.stretches.empty())
    result_.warnings.emplace_back("no stretch could be told: the lure hardly moves, or was not followed");
  for (std::size_t i = 0; i < result_.stretches.size(); ++i) {
    const FrameStretch& frames = result_.stretches[i].frames;
    const std::size_t end = whole.track.firstFrame + whole.track.frameCount;
    if (frames.first >= end || frames.last < whole.track.firstFrame) continue;  // outside of the window
    Timed part{framesOf(whole.track, frames), {}};
    const std::size_t from = part.track.firstFrame - whole.track.firstFrame;
    part.time_s.assign(whole.time_s.begin() + static_cast<std::ptrdiff_t>(from),
                       whole.time_s.begin() + static_cast<std::ptrdiff_t>(from + part.track.frameCount));
    if (auto ok = readOne(result_.stretches[i].protocol, part, i); !ok) return ok;
  }
  return {};
}

Result<void> PassReader::readOne(Protocol protocol, const Timed& part, std::optional<std::size_t> stretch) {
  ReadingSheet sheet;
  const PassTraces traces = stretch ? traceBody(part.track, part.time_s, geometry_) : result_.traces;
  if (protocol == Protocol::Retrieve) readPull(part, traces, sheet);
  if (protocol == Protocol::Fall) readFall(traces, request_.view, sheet, request_.thresholds);
  if (protocol == Protocol::Twitch || protocol == Protocol::Walk || protocol == Protocol::Pause) {
    readTwitch(traces, protocol, request_.view, sheet, request_.twitches, request_.thresholds);
    if (auto ok = readKnocks(part, sheet); !ok) return ok;
  }
  if (protocol == Protocol::Hop) readHop(traces, sheet, request_.twitches);
  if (protocol == Protocol::Drag) readDrag(traces, sheet);
  if (protocol == Protocol::Rest) readRest(traces, bottomSlope_deg(request_, picture_), sheet);
  if (protocol == Protocol::Rest || protocol == Protocol::Skirt) {
    result_.outline = traceOutline(part.track, part.time_s, geometry_);
    readSkirt(result_.outline, sheet);
  }
  if (protocol == Protocol::Sound) {
    if (auto ok = readSound(request_, clip_, clock_, sheet, job_); !ok) return ok;
  }
  if (ownScale_) sheet.give(ReadingId::OwnScale, *ownScale_);
  if (!noOwnScale_.empty()) sheet.refuse(ReadingId::OwnScale, noOwnScale_);
  refuseWhatIsDoubtful(protocol, part.track, sheet);
  const bool chased = request_.view == View::Chase;
  if (!chased && wasCarried(result_.track.background))
    refuseWhatRestsOnPlaces(protocol, "the camera moved while it filmed; film from a stand", sheet);
  if (chased && !traces.againstTank && protocol != Protocol::Retrieve)
    refuseWhatRestsOnPlaces(protocol, "the camera moves along: let the background be followed to tell places",
                            sheet);
  PassNeeds needs = needsOf(request_);
  needs.protocol = protocol;
  needs.hasSound = clip_.info().hasSound;
  needs.hasScale = geometry_.scale.has_value();  // the lure may have been no ruler
  const ReadingSet set = sheet.complete(needs);
  for (Reading reading : set.readings) {
    reading.stretch = stretch;
    result_.readings.readings.push_back(std::move(reading));
  }
  for (Refusal refusal : set.refused) {
    refusal.stretch = stretch;
    result_.readings.refused.push_back(std::move(refusal));
  }
  if (!stretch || *stretch == 0) result_.evidence = std::move(sheet.evidence());
  return {};
}

void PassReader::readWobbleSeenFrom(Look look, const Timed& part, ReadingSheet& sheet) {
  if (look == Look::Side)
    return readSideWobble(traceSight(part.track, part.time_s, geometry_, sightView(ruler_)), sheet);
  if (look != Look::Ahead) return;
  const auto refuse = [&](const char* why) {
    for (const ReadingId id : {ReadingId::WobbleFrequency, ReadingId::WobbleAngle, ReadingId::CycleVariation})
      sheet.refuse(id, why);
  };
  if (part.track.find(MarkName::Back) == nullptr || part.track.find(MarkName::Belly) == nullptr)
    return refuse("from ahead a wobble needs the marks back and belly");
  if (!request_.bodyHalfHeight || !request_.ownLength)
    return refuse("from ahead a wobble needs the lure's own length and half its height");
  const HeadOnBody body{request_.ownLength->length.value(), request_.ownLength->u95.value(),
                        2.0 * request_.bodyHalfHeight->value()};
  std::vector<double> heights;
  for (std::size_t i = 0; i < part.track.frameCount; ++i) {
    const MarkSample& back = part.track.find(MarkName::Back)->samples[i];
    const MarkSample& belly = part.track.find(MarkName::Belly)->samples[i];
    if (back.seen && belly.seen)
      heights.push_back(length(picture_.flat(back.at) - picture_.flat(belly.at)).value());
  }
  if (heights.empty()) return refuse("back and belly are not seen");
  const double height = median(heights);
  readHeadOnWobble(headOnYaw_deg(part.track, part.time_s, picture_, body),
                   body.length_mm * height / body.height_mm, height, body, sheet);
}

/// Along the marked line of the pull, and to its right as the lure goes.
struct AgainstLine {
  Series along;
  Series across;
};

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

void PassReader::readPull(const Timed& part, const PassTraces& traces, ReadingSheet& sheet) {
  const Look look = lookOf(request_);
  readWobbleSeenFrom(look, part, sheet);
  readRetrieve(traces, look == Look::Above ? View::Top : request_.view, sheet);
  readFlash(traceFlash(part.track, part.time_s), sheet);
  readRoll(traceRoll(part.track, part.time_s, geometry_, rollViewOf(request_, clip_, geometry_.scale)),
           sheet);
  if (request_.pullLine) {
    const AgainstLine places = placesAgainst(*request_.pullLine, part, picture_, traces.unitPerPixel);
    readCourse(places.along, places.across, traces,
               length(request_.pullLine->to - request_.pullLine->from).value(), sheet);
  }
  readSurface(part.track, part.time_s, geometry_, sheet);
  if (!traces.blade.empty()) readBeat(traces.blade, traces.bladeLength, traces, sheet);
}

/// Whether it knocks when it is twitched, where the clip has sound on true time.
Result<void> PassReader::readKnocks(const Timed& part, ReadingSheet& sheet) {
  if (!clip_.info().hasSound || sheet.evidence().twitches.empty()) return {};
  const auto refuse = [&](const std::string& why) {
    for (const ReadingId id : {ReadingId::RattleShare, ReadingId::RattleDelay, ReadingId::RattlesPerTwitch})
      sheet.refuse(id, why);
  };
  PassRequest window = request_;
  window.firstFrame = part.track.firstFrame;
  window.lastFrame = part.track.firstFrame + part.track.frameCount - 1;
  const auto heard = hearPass(window, clip_, clock_, job_);
  if (!heard) {
    if (heard.error().code != ErrorCode::Unsupported) return tl::unexpected(heard.error());
    refuse(heard.error().message);
    return {};
  }
  std::vector<double> starts;
  for (const TwitchSpan& twitch : sheet.evidence().twitches) {
    if (!twitch.leftOut) starts.push_back(twitch.span.from_s);
  }
  std::vector<double> knocks = knocksOf(*heard);
  for (double& knock : knocks) knock += part.time_s.front();
  readTwitchKnocks(starts, knocks, false, sheet);
  return {};
}

}  // namespace

Result<PassResult> readPass(const PassRequest& request, const Clip& clip, Track track,
                            const JobControl& job) {
  const auto clock = ClipClock::create(clip.index(), request.captureRate);
  if (!clock) return tl::unexpected(clock.error());
  const auto picture = rectificationOf(request);
  if (!picture) return tl::unexpected(picture.error());
  return PassReader(request, clip, *clock, *picture, job).read(std::move(track));
}

Result<std::vector<PassRequest>> passesOfStretches(const PassRequest& request, const Clip& clip,
                                                   Track track) {
  PassRequest whole = request;
  whole.findStretches = true;
  const auto read = readPass(whole, clip, std::move(track));
  if (!read) return tl::unexpected(read.error());
  std::vector<PassRequest> out;
  for (const ClipStretch& stretch : read->stretches) {
    if (stretch.protocol == Protocol::Pause) continue;
    PassRequest one = request;
    one.protocol = stretch.protocol;
    one.firstFrame = stretch.frames.first;
    one.lastFrame = stretch.frames.last;
    one.twitches.reset();
    one.marks.clear();
    for (const MarkTrack& mark : read->track.marks) {
      for (std::size_t n = stretch.frames.first; n <= stretch.frames.last; ++n) {
        const MarkSample& sample = mark.samples[n - read->track.firstFrame];
        if (!sample.seen || sample.quality < kDoubtfulBelow) continue;
        one.marks.push_back({mark.name, n, sample.at});
        break;
      }
    }
    if (one.marks.size() == read->track.marks.size()) out.push_back(std::move(one));
  }
  if (out.size() < 2) out.clear();
  return out;
}

}  // namespace fin
