// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>
#include <algorithm>
#include <cmath>

#include "core/calibration/clip_clock.h"
#include "core/measuring/hear_pass.h"
#include "core/measuring/measure.h"
#include "core/measuring/pass_view.h"
#include "core/measuring/pass_warnings.h"
#include "core/readings/beat.h"
#include "core/readings/course.h"
#include "core/readings/drag.h"
#include "core/readings/fall.h"
#include "core/readings/flashes.h"
#include "core/readings/head_on_wobble.h"
#include "core/readings/hop.h"
#include "core/readings/own_ruler.h"
#include "core/readings/rest.h"
#include "core/readings/retrieve.h"
#include "core/readings/roll.h"
#include "core/readings/side_wobble.h"
#include "core/readings/skirt.h"
#include "core/readings/still.h"
#include "core/readings/stretches.h"
#include "core/readings/surface.h"
#include "core/readings/twitch.h"
#include "core/readings/twitch_knocks.h"
#include "core/tracking/background/sway.h"
#include "core/tracking/row_times.h"

namespace fin {
namespace {

constexpr double kLeastSureShare = 0.2;  ///< of the frames

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

constexpr double kAtBottom_mm = 10.0;
constexpr double kAtBottom_bodies = 0.1;  ///< where no size is known

/// Reads one pass: all that its readings share is made once.
class PassReader {
 public:
  PassReader(const PassRequest& request, const Clip& clip, const ClipClock& clock, Rectification picture,
             const JobControl& job)
      : request_(request), clip_(clip), clock_(clock), picture_(std::move(picture)), job_(job) {}

  Result<PassResult> read(Track track);
  /// What it does one after the other, without reading any of it.
  Result<std::vector<ClipStretch>> stretches(Track track) {
    const auto whole = prepare(std::move(track));
    if (!whole) return tl::unexpected(whole.error());
    return stretchesOf(*whole);
  }

 private:
  Result<Timed> prepare(Track track);
  void takeScale(const Timed& whole);
  void takeOwnScale(const Timed& whole);
  Result<void> readAll(const Timed& whole);
  Result<void> readOne(Protocol protocol, const Timed& part, std::optional<std::size_t> stretch);
  void readPull(const Timed& part, const PassTraces& traces, ReadingSheet& sheet);
  void readWobbleSeenFrom(Look look, const Timed& part, ReadingSheet& sheet);
  Result<void> readKnocks(const Timed& part, ReadingSheet& sheet);
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
  std::optional<ReadingSheet> sideWobble_;  ///< of the whole pass, where the ruler wanted it already
  PassResult result_;
};

Result<Timed> PassReader::prepare(Track track) {
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
  return whole;
}

Result<PassResult> PassReader::read(Track track) {
  const auto whole = prepare(std::move(track));
  if (!whole) return tl::unexpected(whole.error());
  if (auto ok = readAll(*whole); !ok) return tl::unexpected(ok.error());
  for (std::string& warning : warningsFor(request_, clip_, result_))
    result_.warnings.push_back(std::move(warning));
  return std::move(result_);
}

/// A ruler's scale, or the lure's own length, whichever is surer. What is followed behind the lure lies where
/// the ruler does.
void PassReader::takeScale(const Timed& whole) {
  if (request_.ownLength) takeOwnScale(whole);
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

void PassReader::takeOwnScale(const Timed& whole) {
  const OwnLength& own = *request_.ownLength;
  const Look look = lookOf(request_);
  if (look == Look::Ahead) return;  // its length is not seen
  const SightTrace sight =
      traceSight(whole.track, whole.time_s, geometry_, sightViewOf(request_, clip_.info(), ruler_));
  OwnRulerInput input{{sight.t_s, sight.length_px}, {}, 0.0, own.length.value(), own.u95.value()};
  if (look == Look::Above) input.swing_deg = 90.0;  // a level body shows its whole length from above
  if (look == Look::Side && !hasStretches(request_) && request_.protocol == Protocol::Retrieve) {
    sideWobble_.emplace();
    readSideWobble(sight, *sideWobble_);
    if (const Estimate* angle = sideWobble_->estimate(ReadingId::WobbleAngle))
      input.swing_deg = 0.5 * angle->value;
    for (const TimeSpan& cycle : sideWobble_->evidence().cycles)
      input.cycles.push_back({cycle.from_s, cycle.to_s});
  }
  const auto scale = ownRuler(input);
  if (!scale) {
    noOwnScale_ = scale.error().message;
    return;
  }
  ownScale_ = scale->scale;
  const Scale told = Scale::known(1.0 / scale->scale.value, scale->relativeU95());
  if (!ruler_ || told.relativeU95() < ruler_->relativeU95()) geometry_.scale = told;
  if (!ruler_) return;
  const double differ = told.mmPerPixel() / ruler_->mmPerPixel();
  if (std::abs(differ - 1.0) <= std::hypot(told.relativeU95(), ruler_->relativeU95())) return;
  std::string implied;
  if (request_.scalePlane)
    implied = fmt::format("; the lure would have been {:.0f} mm from the camera",
                          request_.scalePlane->cameraToLure.value() * differ);
  result_.warnings.push_back(fmt::format(
      "the ruler and the lure's own length disagree by {:.1f} %{}: check both, and where the ruler hung",
      100.0 * std::abs(differ - 1.0), implied));
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
  if (protocol == Protocol::Fall) {
    readFall(traces, request_.view, sheet, request_.thresholds);
    readFallFlashes(traceFlash(part.track, part.time_s), sheet);
  }
  if (protocol == Protocol::Twitch || protocol == Protocol::Walk || protocol == Protocol::Pause) {
    readTwitch(traces, protocol, request_.view, sheet, request_.twitches, request_.thresholds);
    readTwitchFlashes(traceFlash(part.track, part.time_s), sheet.evidence().twitches, sheet);
    if (auto ok = readKnocks(part, sheet); !ok) return ok;
  }
  if (protocol == Protocol::Hop) readHop(traces, sheet, request_.twitches);
  if (protocol == Protocol::Drag) readDrag(traces, sheet);
  if (protocol == Protocol::Rest) readRest(traces, bottomSlope_deg(request_, picture_), sheet);
  if (protocol == Protocol::Rest || protocol == Protocol::Skirt) {
    result_.outline = traceOutline(part.track, part.time_s, geometry_);
    readSkirt(result_.outline, sheet);
  }
  if (protocol == Protocol::Still) readStill(part.track, picture_, sheet);
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
  if (sideWobble_) {
    sheet = std::move(*sideWobble_);
    return;
  }
  if (look == Look::Side)
    return readSideWobble(
        traceSight(part.track, part.time_s, geometry_, sightViewOf(request_, clip_.info(), ruler_)), sheet);
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

void PassReader::readPull(const Timed& part, const PassTraces& traces, ReadingSheet& sheet) {
  const Look look = lookOf(request_);
  readWobbleSeenFrom(look, part, sheet);
  readRetrieve(traces, look == Look::Above ? View::Top : request_.view, sheet);
  readFlash(traceFlash(part.track, part.time_s), sheet);
  readRoll(traceRoll(part.track, part.time_s, geometry_, rollViewOf(request_, clip_.info(), geometry_.scale)),
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
  readTwitchKnocks(starts, knocks, sheet);
  return {};
}

/// What a request is read by besides its track; errors as readPass.
struct ReadBy {
  ClipClock clock;
  Rectification picture;
};

Result<ReadBy> readByOf(const PassRequest& request, const Clip& clip) {
  auto clock = ClipClock::create(clip.index(), request.captureRate);
  if (!clock) return tl::unexpected(clock.error());
  auto picture = rectificationOf(request);
  if (!picture) return tl::unexpected(picture.error());
  return ReadBy{std::move(*clock), std::move(*picture)};
}

}  // namespace

Result<PassResult> readPass(const PassRequest& request, const Clip& clip, Track track,
                            const JobControl& job) {
  const auto by = readByOf(request, clip);
  if (!by) return tl::unexpected(by.error());
  return PassReader(request, clip, by->clock, by->picture, job).read(std::move(track));
}

Result<std::vector<StretchPass>> passesOfStretches(const PassRequest& request, const Clip& clip,
                                                   const Track& track) {
  PassRequest whole = request;
  whole.findStretches = true;
  const auto by = readByOf(whole, clip);
  if (!by) return tl::unexpected(by.error());
  const JobControl unwatched;
  const auto stretches = PassReader(whole, clip, by->clock, by->picture, unwatched).stretches(track);
  if (!stretches) return tl::unexpected(stretches.error());
  std::vector<StretchPass> out;
  for (const ClipStretch& stretch : *stretches) {
    if (stretch.protocol == Protocol::Pause) continue;
    PassRequest one = request;
    one.protocol = stretch.protocol;
    one.firstFrame = stretch.frames.first;
    one.lastFrame = stretch.frames.last;
    one.twitches.reset();
    one.marks = seedsIn(track, stretch.frames);
    if (one.marks.size() == track.marks.size())
      out.push_back({std::move(one), framesOf(track, stretch.frames)});
  }
  if (out.size() < 2) out.clear();
  return out;
}

}  // namespace fin
