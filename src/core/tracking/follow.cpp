// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/follow.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <set>

#include "core/tracking/mark_follower.h"
#include "core/tracking/seed_offset.h"

namespace fin {
namespace {

constexpr double kLeastStructure = 1.2;  ///< grey levels per pixel: less is an empty wall
constexpr double kOneSpot_px = 2.0;
constexpr std::size_t kBackwardChunk = 48;  ///< frames held at once while going backwards

tl::unexpected<Error> badMarks(const std::string& message) {
  return failure(ErrorCode::BadRequest, "marks: " + message, "marks");
}

Result<void> checkSeeds(const FrameSource& source, const FollowRequest& request) {
  if (request.seeds.empty()) return badMarks("none is placed");
  if (request.firstFrame > request.lastFrame || request.lastFrame >= source.frameCount()) {
    return failure(ErrorCode::BadRequest, "last_frame must lie in the clip and not before first_frame",
                   "last_frame");
  }
  for (std::size_t i = 0; i < request.seeds.size(); ++i) {
    const MarkSeed& a = request.seeds[i];
    if (a.frame < request.firstFrame || a.frame > request.lastFrame) {
      return badMarks(fmt::format("{} is placed in frame {}, outside the window {}–{}", toString(a.name),
                                  a.frame, request.firstFrame, request.lastFrame));
    }
    for (std::size_t j = 0; j < i; ++j) {
      const MarkSeed& b = request.seeds[j];
      if (a.frame != b.frame) continue;
      if (a.name == b.name) {
        return badMarks(fmt::format("{} is placed twice in frame {}", toString(a.name), a.frame));
      }
      if (length(a.at - b.at).value() < kOneSpot_px) {
        return badMarks(fmt::format("{} and {} lie on one spot in frame {}", toString(b.name),
                                    toString(a.name), a.frame));
      }
    }
  }
  return {};
}

/// One journey over a window, forwards or backwards, with the marks joining at their seeds.
class Journey {
 public:
  Journey(FrameSource& source, const FollowRequest& request, std::vector<FollowedMark>& marks,
          const JobControl& job)
      : source_(source), request_(request), marks_(marks), job_(job) {}

  Result<void> forwards() {
    MarkFollower follower = makeFollower();
    for (std::size_t n = firstSeedFrame(); n <= request_.lastFrame; ++n) {
      auto picture = source_.frame(n);
      if (auto done = visit(follower, n, picture, true); !done) return done;
    }
    return {};
  }

  Result<void> backwards() {
    std::size_t end = lastFirstSeed() + 1;  // one past the frame to begin with
    MarkFollower follower = makeFollower();
    while (end > request_.firstFrame) {
      const std::size_t begin =
          std::max(request_.firstFrame, end > kBackwardChunk ? end - kBackwardChunk : 0);
      std::vector<Result<Picture>> chunk;
      for (std::size_t n = begin; n < end; ++n) chunk.push_back(source_.frame(n));
      for (std::size_t n = end; n-- > begin;) {
        if (auto done = visit(follower, n, chunk[n - begin], false); !done) return done;
      }
      end = begin;
    }
    return {};
  }

  [[nodiscard]] bool needsBackwards() const { return lastFirstSeed() > request_.firstFrame; }

 private:
  [[nodiscard]] std::size_t firstSeedOf(MarkName name) const {
    std::size_t first = request_.lastFrame;
    for (const MarkSeed& s : request_.seeds) {
      if (s.name == name) first = std::min(first, s.frame);
    }
    return first;
  }
  [[nodiscard]] std::size_t firstSeedFrame() const {
    std::size_t first = request_.lastFrame;
    for (const MarkSeed& s : request_.seeds) first = std::min(first, s.frame);
    return first;
  }
  [[nodiscard]] std::size_t lastFirstSeed() const {
    std::size_t last = request_.firstFrame;
    for (const FollowedMark& m : marks_) last = std::max(last, firstSeedOf(m.name));
    return last;
  }

  [[nodiscard]] MarkFollower makeFollower() const {
    double body_px = 0.0;
    for (const MarkSeed& a : request_.seeds) {
      for (const MarkSeed& b : request_.seeds) {
        if (a.frame == b.frame && isRigidPair(a.name, b.name)) body_px = length(a.at - b.at).value();
      }
    }
    const std::size_t frames = source_.frameCount();
    const double spacing =
        frames > 1 ? source_.timeOf(frames - 1).value() / static_cast<double>(frames - 1) : 1.0;
    return {MarkFollower::patchRadiusFor(body_px), std::max(spacing, 1e-6)};
  }

  [[nodiscard]] std::vector<MarkSeed> seedsAt(std::size_t frame, bool forwards) const {
    std::vector<MarkSeed> out;
    for (const MarkSeed& s : request_.seeds) {
      // On the way back only the first seed of each mark counts: what comes later lies ahead of it.
      if (s.frame == frame && (forwards || firstSeedOf(s.name) == frame)) out.push_back(s);
    }
    return out;
  }

  Result<void> visit(MarkFollower& follower, std::size_t n, const Result<Picture>& picture, bool forwards) {
    if (job_.cancelled()) return failure(ErrorCode::Cancelled, "following was stopped");
    if (!picture && picture.error().code != ErrorCode::Damaged) return tl::unexpected(picture.error());
    if (!picture) return {};
    const std::vector<MarkSeed> given = seedsAt(n, forwards);
    const double time = source_.timeOf(n).value();
    for (const auto& [name, found] : follower.step(*picture, time, given)) write(n, name, found, forwards);
    if (auto ok = give(follower, *picture, time, given); !ok) return ok;
    for (const MarkSeed& s : given) write(n, s.name, follower.placed(*picture, time, s), forwards);
    ++visited_;
    job_.report(static_cast<double>(visited_) /
                static_cast<double>(request_.lastFrame - request_.firstFrame + 1));
    return {};
  }

  static Result<void> give(MarkFollower& follower, const Picture& picture, double time,
                           const std::vector<MarkSeed>& given) {
    for (const MarkSeed& s : given) {
      const bool in = s.at.x_px >= -0.5 && s.at.y_px >= -0.5 && s.at.x_px <= picture.width() - 0.5 &&
                      s.at.y_px <= picture.height() - 0.5;
      if (!in) {
        return badMarks(fmt::format("{} at ({:.1f}, {:.1f}) lies outside the picture of {} × {}",
                                    toString(s.name), s.at.x_px, s.at.y_px, picture.width(),
                                    picture.height()));
      }
    }
    follower.give(picture, time, given);
    for (const MarkSeed& s : given) {
      if (follower.structureOf(s.name) < kLeastStructure) {
        return badMarks(
            fmt::format("there is nothing at {} to hold on to; place it on a detail with an edge or "
                        "a spot",
                        toString(s.name)));
      }
    }
    return {};
  }

  void write(std::size_t frame, MarkName name, const MarkFollower::Followed& found, bool forwards) {
    if (!forwards && frame >= firstSeedOf(name)) return;  // the way on has written this already
    for (FollowedMark& m : marks_) {
      if (m.name == name) m.frames[frame - request_.firstFrame] = found;
    }
  }

  FrameSource& source_;
  const FollowRequest& request_;
  std::vector<FollowedMark>& marks_;
  const JobControl& job_;
  std::size_t visited_ = 0;
};

std::vector<SeedPlace> placesOf(const FollowedMark& mark, const FollowRequest& request) {
  std::vector<SeedPlace> out;
  for (const MarkSeed& s : request.seeds) {
    if (s.name != mark.name) continue;
    const std::size_t n = s.frame - request.firstFrame;
    if (mark.frames[n].sample.seen) out.push_back({n, s.at, mark.frames[n].angle_rad});
  }
  return out;
}

}  // namespace

Result<Track> followMarks(FrameSource& source, const FollowRequest& request, const JobControl& job) {
  if (auto ok = checkSeeds(source, request); !ok) return tl::unexpected(ok.error());
  const std::size_t frames = request.lastFrame - request.firstFrame + 1;
  std::set<MarkName> names;
  for (const MarkSeed& s : request.seeds) names.insert(s.name);
  std::vector<FollowedMark> marks;
  for (MarkName name : names) marks.push_back({name, std::vector<MarkFollower::Followed>(frames)});
  Journey journey(source, request, marks, job);
  if (auto done = journey.forwards(); !done) return tl::unexpected(done.error());
  if (journey.needsBackwards()) {
    if (auto done = journey.backwards(); !done) return tl::unexpected(done.error());
  }
  Track track{request.firstFrame, frames, {}};
  for (FollowedMark& mark : marks) {
    alignToSeeds(mark, placesOf(mark, request));
    MarkTrack out{mark.name, {}};
    for (const auto& f : mark.frames) out.samples.push_back(f.sample);
    track.marks.push_back(std::move(out));
  }
  return track;
}

}  // namespace fin
