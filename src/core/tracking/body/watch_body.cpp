// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/body/watch_body.h"

#include <algorithm>
#include <cmath>
#include <iterator>
#include <optional>
#include <set>

#include "core/tracking/body/riding.h"

namespace fin {
namespace {

constexpr double kEasyQuality = 0.85;
constexpr double kNearnessDiffers = 0.004;  ///< from one end to the other
constexpr double kConfirms_px = 1.0;
constexpr double kConfirmedQuality = 0.7;
constexpr double kCarriedQuality = 0.45;  ///< doubtful: a body tells a mark's place to a few pixels only

PoseHints hintsOf(const ReducedFilm& film, const std::vector<MarkSeed>& seeds, const Track& track) {
  PoseHints out;
  const MarkTrack* nose = track.find(MarkName::Nose);
  const MarkTrack* tail = track.find(MarkName::Tail);
  if (nose == nullptr || tail == nullptr) return out;
  // A given place is in the track as it was given; its partner counts where it was given too, or is sure.
  for (const MarkSeed& seed : seeds) {
    const bool end = seed.name == MarkName::Nose || seed.name == MarkName::Tail;
    if (!end || !film.frames.contains(seed.frame)) continue;
    const MarkSample& a = nose->samples[seed.frame - track.firstFrame];
    const MarkSample& b = tail->samples[seed.frame - track.firstFrame];
    if (a.seen && b.seen && std::min(a.quality, b.quality) >= kEasyQuality)
      out.given[seed.frame] = {film.toReduced(a.at), film.toReduced(b.at)};
  }
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    const MarkSample& a = nose->samples[i];
    const MarkSample& b = tail->samples[i];
    if (!a.seen || !b.seen) continue;
    out.found[track.firstFrame + i] = {film.toReduced(a.at), film.toReduced(b.at)};
    if (std::min(a.quality, b.quality) >= kEasyQuality) out.surelyFound.insert(track.firstFrame + i);
  }
  return out;
}

MarkSample carried(const MarkSample& followed, const RidingMark& riding, bool poseIsSure) {
  MarkSample out = followed;
  if (followed.seen && riding.agrees) {
    if (poseIsSure && length(followed.at - riding.at).value() <= kConfirms_px)
      out.quality = std::max(out.quality, kConfirmedQuality);
    return out;
  }
  if (!poseIsSure) return out;
  return {true, riding.at, kCarriedQuality};
}

struct Watched {
  BodyWay way;
  std::map<MarkName, Riding> rides;
};

Watched watch(const ReducedFilm& film, const std::set<std::size_t>& frames, BodyEvidence& evidence,
              const PoseHints& hints, const BodyWatch& request, const Track& track,
              const std::stop_token& stop) {
  Watched out;
  for (const auto& [n, posed] : findPosePath(frames, evidence, hints, request.turns, stop))
    out.way[n] = {{film.toFull(posed.pose.nose), film.toFull(posed.pose.tail)}, posed.sure};
  const cv::Mat& picture = film.frames.begin()->second;
  const PixelPoint middle = film.toFull({0.5 * (picture.cols - 1), 0.5 * (picture.rows - 1)});
  const auto ride = [&](MarkName name, Nearness nearness) {
    return rideOn(out.way, *track.find(name), track.firstFrame, request.seeds, middle, nearness);
  };
  out.rides[MarkName::Nose] = ride(MarkName::Nose, {});
  out.rides[MarkName::Tail] = ride(MarkName::Tail, {});
  // What the better followed end tells of how near the marks are goes for the other one too.
  const bool noseLeads = out.rides[MarkName::Nose].agreeing >= out.rides[MarkName::Tail].agreeing;
  const Nearness found = out.rides[noseLeads ? MarkName::Nose : MarkName::Tail].nearness;
  const MarkName other = noseLeads ? MarkName::Tail : MarkName::Nose;
  out.rides[other] = ride(other, {found.value, std::hypot(found.doubt, kNearnessDiffers)});
  return out;
}

bool surelyFollowed(const Track& track, std::size_t i) {
  return std::all_of(track.marks.begin(), track.marks.end(), [i](const MarkTrack& mark) {
    const bool end = mark.name == MarkName::Nose || mark.name == MarkName::Tail;
    return !end || (mark.samples[i].seen && mark.samples[i].quality >= kEasyQuality);
  });
}

/// Frames that are held against the body: all where a mark is not surely followed, else those in the film.
std::set<std::size_t> firstLook(const ReducedFilm& film, const Track& track) {
  std::set<std::size_t> out;
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    if (film.frames.contains(track.firstFrame + i) || !surelyFollowed(track, i))
      out.insert(track.firstFrame + i);
  }
  return out;
}

/// Films what is asked for, and leaves out what could not be.
void filmThese(FilmingFrameSource& filming, std::set<std::size_t>& frames, const JobControl& job) {
  filming.filmAlso(frames, job);
  std::erase_if(frames, [&](std::size_t n) { return !filming.film().frames.contains(n); });
}

/// Where mark and body do not agree, every frame up to the next in which they do, or to the end.
void addAroundDisagreements(const Watched& watched, const Track& track, std::set<std::size_t>& frames) {
  const std::set<std::size_t> looked = frames;
  for (auto at = looked.begin(); at != looked.end(); ++at) {
    const std::size_t n = *at;
    const auto agrees = [&](MarkName name) {
      const auto found = watched.rides.at(name).marks.find(n);
      return found == watched.rides.at(name).marks.end() || found->second.agrees;
    };
    if (agrees(MarkName::Nose) && agrees(MarkName::Tail) && surelyFollowed(track, n - track.firstFrame))
      continue;
    const std::size_t from = at == looked.begin() ? track.firstFrame : *std::prev(at);
    const std::size_t to =
        std::next(at) == looked.end() ? track.firstFrame + track.frameCount - 1 : *std::next(at);
    for (std::size_t between = from; between <= to; ++between) frames.insert(between);
  }
}

}  // namespace

Result<void> watchBody(FilmingFrameSource& filming, const BodyWatch& request, Track& track,
                       const JobControl& job) {
  const ReducedFilm& film = filming.film();
  std::set<std::size_t> seeded;
  for (const MarkSeed& seed : request.seeds) seeded.insert(seed.frame);
  filming.filmAlso(seeded);
  const PoseHints hints = hintsOf(film, request.seeds, track);
  if (hints.given.empty()) return {};
  const auto& [frame, seed] = *hints.given.begin();
  const auto known = [&](std::size_t n) -> std::optional<AxisPose> {
    const auto found = hints.found.find(n);
    return found == hints.found.end() ? std::nullopt : std::optional(found->second);
  };
  BodyEvidence evidence(film, frame, seed, known, request.moving, job.stop);
  const auto stopped = [] { return failure(ErrorCode::Cancelled, "following was stopped"); };
  if (job.cancelled()) return stopped();
  job.report(0.1);
  std::set<std::size_t> frames = firstLook(film, track);
  const auto look = [&](double from, double to) {
    filmThese(filming, frames, partOf(job, from, to));
    return watch(film, frames, evidence, hints, request, track, job.stop);
  };
  Watched watched = look(0.1, 0.4);
  if (job.cancelled()) return stopped();
  job.report(0.6);
  const std::size_t before = frames.size();
  addAroundDisagreements(watched, track, frames);
  if (frames.size() > before) watched = look(0.6, 0.8);
  if (job.cancelled()) return stopped();
  for (MarkTrack& mark : track.marks) {
    for (const auto& [n, riding] : watched.rides[mark.name].marks) {
      const bool hidden =
          std::any_of(request.hidden.begin(), request.hidden.end(),
                      [n = n, &riding = riding](const HiddenRegion& h) { return h.hides(n, riding.at); });
      MarkSample& sample = mark.samples[n - track.firstFrame];
      if (!hidden) sample = carried(sample, riding, watched.way.at(n).sure);
    }
  }
  job.report(1.0);
  return {};
}

}  // namespace fin
