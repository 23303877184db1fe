// SPDX-License-Identifier: GPL-3.0-or-later
#include <fmt/format.h>
#include <algorithm>

#include "core/footage/cached_frame_source.h"
#include "core/footage/prefetching_frame_source.h"
#include "core/measuring/measure.h"
#include "core/measuring/measurement.h"
#include "core/tracking/background/background.h"
#include "core/tracking/background/sway.h"
#include "core/tracking/body/watch_body.h"
#include "core/tracking/marks/crossings.h"
#include "core/tracking/marks/flank.h"
#include "core/tracking/marks/follow.h"
#include "core/tracking/outline/outline.h"
#include "core/tracking/outline/still_outline.h"

namespace fin {

std::size_t lastFrameOf(const PassRequest& request, const Clip& clip) {
  const std::size_t last = clip.index().frameCount() - 1;
  return request.lastFrame ? std::min(*request.lastFrame, last) : last;
}

namespace {

constexpr std::size_t kFilmShare = 2;  ///< of the room for frames

/// Holds the marks against the body. One with nothing of its own to hold on to must have been carried by it.
Result<void> heldByBody(FilmingFrameSource& filming, const PassRequest& request, Track& track,
                        const JobControl& job) {
  // Seen from ahead there is no body between nose and tail to be laid over.
  const auto isPlaced = [&](MarkName name) {
    return std::any_of(request.marks.begin(), request.marks.end(),
                       [name](const MarkSeed& s) { return s.name == name; });
  };
  if (isPlaced(MarkName::Back) && isPlaced(MarkName::Belly)) return {};
  const BodyWatch watch{request.marks, request.hidden, followsBackground(request), turnsOf(request)};
  if (auto ok = watchBody(filming, watch, track, job); !ok) return ok;
  for (const MarkSeed& seed : request.marks) {
    const auto& samples = track.find(seed.name)->samples;
    const auto seen =
        std::count_if(samples.begin(), samples.end(), [](const MarkSample& s) { return s.seen; });
    const auto placed = std::count_if(request.marks.begin(), request.marks.end(),
                                      [&](const MarkSeed& s) { return s.name == seed.name; });
    if (seen > placed) continue;
    if (const auto picture = filming.frame(seed.frame)) {
      if (auto ok = holdsOnTo(*picture, seed, bodyLength_px(request).value_or(0.0)); !ok) return ok;
    }
  }
  return {};
}

/// Of a lure that is held still: its marks where they were placed, its outline in the frame it was drawn in.
Result<Track> stillTrack(const PassRequest& request, std::size_t last, FrameSource& source) {
  Track out{request.firstFrame, last - request.firstFrame + 1, {}};
  const std::size_t asked = request.outline         ? request.outline->frame
                            : request.marks.empty() ? request.firstFrame
                                                    : request.marks.front().frame;
  const std::size_t frame = std::clamp(asked, request.firstFrame, last);
  for (const MarkSeed& seed : request.marks) {
    auto mark = std::find_if(out.marks.begin(), out.marks.end(),
                             [&](const MarkTrack& m) { return m.name == seed.name; });
    if (mark == out.marks.end())
      mark =
          out.marks.insert(mark, {seed.name, std::vector<MarkSample>(out.frameCount, {true, seed.at, 1.0})});
    if (seed.frame == frame) mark->samples.assign(out.frameCount, {true, seed.at, 1.0});
  }
  if (!request.outline) return out;
  const auto picture = source.frame(frame);
  if (!picture) return tl::unexpected(picture.error());
  auto outline = outlineInStill(*picture, request.outline->polygon);
  if (!outline && outline.error().code != ErrorCode::Lost) return tl::unexpected(outline.error());
  if (!outline) {
    out.outlineLost = outline.error().message;
    return out;
  }
  out.outline.resize(out.frameCount);
  out.outline[frame - request.firstFrame] = std::move(*outline);
  return out;
}

}  // namespace

Result<Track> followPass(const PassRequest& request, const Clip& clip, FrameSource& source,
                         const JobControl& job, std::size_t keptBytes) {
  const std::size_t last = lastFrameOf(request, clip);
  if (request.firstFrame > last) {
    return failure(ErrorCode::BadRequest, fmt::format("first_frame: the clip has only {} frames", last + 1),
                   "first_frame");
  }
  if (request.protocol == Protocol::Still) return stillTrack(request, last, source);
  Track track{request.firstFrame, last - request.firstFrame + 1, {}};
  const bool moving = followsBackground(request);
  PrefetchingFrameSource ahead(source);
  CachedFrameSource kept(ahead, keptBytes);
  const bool again = moving || request.outline;  // its frames are gone over more than once
  FrameSource& first = again ? static_cast<FrameSource&>(kept) : ahead;
  // By how many readings of the clip each part is worth.
  const double whole =
      (request.marks.empty() ? 0.0 : 1.8) + (moving ? 1.0 : 0.0) + (request.outline ? 3.0 : 0.0);
  std::vector<MarkSample> swayed;
  double done = 0.0;
  const auto part = [&](double worth) {
    const double from = done / whole;
    done += worth;
    return partOf(job, from, done / whole);
  };
  if (!request.marks.empty()) {
    FilmingFrameSource filming(first, bodyLength_px(request).value_or(0.0),
                               roomForFrames_bytes() / kFilmShare);
    auto marks = followMarks(filming, {request.marks, request.firstFrame, last, request.hidden}, part(1.0));
    if (!marks) return marks;
    track = std::move(*marks);
    if (auto ok = heldByBody(filming, request, track, part(0.5)); !ok) return tl::unexpected(ok.error());
    if (request.view != View::Chase) {
      auto sway = findSway(filming, track, part(0.3));
      if (!sway) return tl::unexpected(sway.error());
      swayed = std::move(*sway);
    }
  }
  if (moving) {
    if (auto ok = followBackground(kept, track, part(1.0)); !ok) return tl::unexpected(ok.error());
  }
  if (request.outline) {
    const auto outlined = followOutline(kept, *request.outline, request.hidden, track, part(2.0));
    // What the marks alone can tell still stands.
    if (!outlined && outlined.error().code != ErrorCode::Lost) return tl::unexpected(outlined.error());
    if (!outlined) track.outlineLost = outlined.error().message;
    if (auto ok = findFlank(kept, request.marks, track, part(1.0)); !ok) return tl::unexpected(ok.error());
  }
  // Of a camera that was said to move the background is there already.
  if (!moving) track.background = std::move(swayed);
  return track;
}

Result<Track> followPassAgain(const PassRequest& request, const Track& earlier, const PassRequest& before,
                              const Clip& clip, FrameSource& source, const JobControl& job,
                              std::size_t keptBytes) {
  if (!onlySeedsDiffer(before, request) || before.marks.empty() || request.marks.empty() ||
      request.protocol == Protocol::Still)
    return followPass(request, clip, source, job, keptBytes);
  FilmingFrameSource filming(source, bodyLength_px(request).value_or(0.0),
                             roomForFrames_bytes() / kFilmShare);
  auto track =
      followChanged(filming, {request.marks, request.firstFrame, lastFrameOf(request, clip), request.hidden},
                    earlier, before.marks, partOf(job, 0.0, 0.4));
  if (!track) return track;
  if (auto ok = heldByBody(filming, request, *track, partOf(job, 0.4, 0.5)); !ok)
    return tl::unexpected(ok.error());
  if (!request.outline) return track;
  // A flank spot is looked for on the outline, whichever of its places was changed.
  if (auto ok = findFlank(source, request.marks, *track, partOf(job, 0.5, 1.0)); !ok)
    return tl::unexpected(ok.error());
  return track;
}

Result<std::vector<PassRequest>> furtherPasses(const PassRequest& request, const Track& track,
                                               FrameSource& source, const JobControl& job) {
  const FollowRequest followed{request.marks, track.firstFrame, track.firstFrame + track.frameCount - 1,
                               request.hidden};
  auto crossings = findCrossings(source, followed, track, job);
  if (!crossings) return tl::unexpected(crossings.error());
  std::vector<PassRequest> out;
  for (Crossing& crossing : *crossings) {
    PassRequest& further = out.emplace_back(request);
    further.firstFrame = crossing.frames.first;
    further.lastFrame = crossing.frames.last;
    further.marks = std::move(crossing.seeds);
    further.outline.reset();
    further.fouled.clear();
    further.pull.reset();  // it may come back the other way
  }
  return out;
}

}  // namespace fin
