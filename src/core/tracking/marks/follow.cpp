// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/follow.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <functional>
#include <iterator>
#include <set>

#include "core/footage/cached_frame_source.h"
#include "core/tracking/frame_walk.h"
#include "core/tracking/marks/both_ways.h"
#include "core/tracking/marks/flash.h"
#include "core/tracking/marks/mark_follower.h"
#include "core/tracking/marks/seed_offset.h"

namespace fin {
namespace {

constexpr double kLeastStructure = 1.2;  ///< grey levels per pixel: less is an empty wall
constexpr double kOneSpot_px = 2.0;

/// Held for going back over them; a mark that was hard to see for longer seldom has a way back.
constexpr std::size_t kMostRecent_frames = 60;
constexpr std::size_t kRecentShare = 8;  ///< of the room for frames

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

tl::unexpected<Error> nothingToHoldOnTo(MarkName name) {
  return failure(
      ErrorCode::Lost,
      fmt::format("too little detail at the {} to follow; place it on a detail with an edge or a spot",
                  toString(name)),
      "marks");
}

bool holds(const MarkFollower& follower, const Picture& picture, const MarkSeed& seed) {
  return follower.structureAt(picture, seed.at) >= kLeastStructure;
}

/// Following over a window of frames, with the marks joining at their seeds.
class Following {
 public:
  Following(FrameSource& source, const FollowRequest& request)
      : source_(source), request_(request), brightness_(request.lastFrame - request.firstFrame + 1) {
    std::set<MarkName> names;
    for (const MarkSeed& s : request.seeds) names.insert(s.name);
    for (MarkName name : names)
      marks_.push_back({name, std::vector<MarkFollower::Followed>(brightness_.size())});
  }

  Result<void> run(const JobControl& job) {
    const std::size_t start = firstSeedFrame();
    const std::size_t joined = lastFirstSeed();
    const auto on = static_cast<double>(request_.lastFrame - start + 1);
    const auto back =
        static_cast<double>(joined > request_.firstFrame ? joined - request_.firstFrame + 1 : 0);
    const auto corrected = static_cast<double>(correctedFrames());
    const double whole = on + back + corrected;
    if (auto ok = onwards(start, partOf(job, 0.0, on / whole)); !ok) return ok;
    if (back > 0.0) {
      if (auto ok = backwards(joined, partOf(job, on / whole, (on + back) / whole)); !ok) return ok;
    }
    return betweenCorrections(partOf(job, (on + back) / whole, 1.0));
  }

  [[nodiscard]] std::vector<FollowedMark>& marks() { return marks_; }
  [[nodiscard]] std::vector<std::optional<double>>& brightness() { return brightness_; }

 private:
  using Seeds = std::vector<MarkSeed>;
  using Write = std::function<void(std::size_t, MarkName, const MarkFollower::Followed&)>;

  Result<void> onwards(std::size_t start, const JobControl& job) {
    MarkFollower follower = makeFollower(1.0);
    CachedFrameSource recent(source_, roomForFrames_bytes() / kRecentShare);
    return walkForwards(recent, start, request_.lastFrame, job, [&](std::size_t n, const Picture* picture) {
      auto ok =
          visit(follower, n, picture, request_.seeds,
                [this](std::size_t at, MarkName name, const auto& found) { sampleOf(name, at) = found; });
      if (ok && picture != nullptr) measureBrightness(n, *picture);
      for (const FollowedMark& mark : marks_) {
        if (ok) ok = watch(mark.name, n, recent, job);
      }
      std::size_t needed = n;
      for (const auto& [name, sight] : sights_) needed = std::min(needed, sight.lastSure());
      recent.forgetBefore(std::max(needed, n - std::min(n, kMostRecent_frames)));
      return ok;
    });
  }

  /// After a mark's last place. (Between two of them it is followed from both sides anyway.)
  Result<void> watch(MarkName name, std::size_t n, CachedFrameSource& recent, const JobControl& job) {
    const std::size_t placed = seedsOf(name).back().frame;
    if (n < placed) return {};
    SlipDetector& sight = sights_[name];
    if (n == placed) {
      sight.begin(n);
      return {};
    }
    MarkSample& found = sampleOf(name, n).sample;
    if (const auto weak = sight.add(n, found); weak && recent.holds(weak->first, weak->last)) {
      if (auto ok = goBack(name, *weak, recent, job); !ok) return ok;
    }
    if (sight.slipped()) found.quality = std::min(found.quality, kDisagreeQuality);
    return {};
  }

  Result<void> goBack(MarkName name, FrameStretch weak, CachedFrameSource& recent, const JobControl& job) {
    const auto on = waysOf(name, weak);
    std::vector<MarkFollower::Followed> back(on.size());
    const auto ok = followBack(recent, name, weak, back, {job.stop});
    if (!ok && ok.error().code == ErrorCode::Lost) return {};  // nothing there to hold on to
    if (!ok) return ok;
    const auto told = sights_[name].compare(on.front().sample, back.front().sample);
    if (told == SlipDetector::WayBack::Agrees) mergeDirections(on, back, EndAnchor::Found);
    if (told == SlipDetector::WayBack::Slipped) {
      for (auto& followed : on.subspan(1))
        followed.sample.quality = std::min(followed.sample.quality, kDisagreeQuality);
    }
    return {};
  }

  /// From the first seeds to the beginning of the window: what comes later lies ahead of them.
  Result<void> backwards(std::size_t joined, const JobControl& job) {
    Seeds first;
    double scale = 1.0;
    for (const FollowedMark& m : marks_) {
      first.push_back(seedsOf(m.name).front());
      if (first.back().frame == joined) scale = sampleOf(m.name, joined).scale;
    }
    MarkFollower follower = makeFollower(scale);
    return walkBackwards(
        source_, request_.firstFrame, joined, job, [&](std::size_t n, const Picture* picture) {
          auto ok =
              visit(follower, n, picture, first, [this](std::size_t at, MarkName name, const auto& found) {
                if (at < seedsOf(name).front().frame) sampleOf(name, at) = found;
              });
          if (ok && picture != nullptr) measureBrightness(n, *picture);
          return ok;
        });
  }

  /// Between two places of one mark that a person gave, it is followed from either side.
  Result<void> betweenCorrections(const JobControl& job) {
    const std::size_t whole = correctedFrames();
    std::size_t done = 0;
    for (FollowedMark& mark : marks_) {
      const Seeds seeds = seedsOf(mark.name);
      for (std::size_t i = 0; i + 1 < seeds.size(); ++i) {
        const FrameStretch stretch{seeds[i].frame, seeds[i + 1].frame};
        const std::size_t frames = stretch.last - stretch.first;
        const auto share = [whole](std::size_t n) {
          return static_cast<double>(n) / static_cast<double>(whole);
        };
        std::vector<MarkFollower::Followed> back(frames + 1);
        const JobControl here = partOf(job, share(done), share(done + frames));
        if (auto ok = followBack(source_, mark.name, stretch, back, here); !ok) return ok;
        done += frames;
        mergeDirections(waysOf(mark.name, stretch), back, EndAnchor::Given);
      }
    }
    return {};
  }

  /// One mark from a stretch's last frame back to its first, from where a person placed it there or where it
  /// was found; the others go along from where they were found.
  Result<void> followBack(FrameSource& source, MarkName name, FrameStretch stretch,
                          std::vector<MarkFollower::Followed>& back, const JobControl& job) {
    Seeds start;
    for (const FollowedMark& m : marks_) {
      const MarkSample& at = m.frames[stretch.last - request_.firstFrame].sample;
      if (at.seen && at.quality >= kDoubtfulBelow) start.push_back({m.name, stretch.last, at.at});
    }
    for (const MarkSeed& s : request_.seeds) {
      if (s.name == name && s.frame == stretch.last) {
        std::erase_if(start, [name](const MarkSeed& other) { return other.name == name; });
        start.push_back(s);
      }
    }
    MarkFollower follower = makeFollower(sampleOf(name, stretch.last).scale);
    return walkBackwards(
        source, stretch.first, stretch.last, job, [&](std::size_t n, const Picture* picture) {
          return visit(follower, n, picture, start, [&](std::size_t at, MarkName which, const auto& found) {
            if (which == name) back[at - stretch.first] = found;
          });
        });
  }

  [[nodiscard]] Seeds seedsOf(MarkName name) const {
    Seeds out;
    for (const MarkSeed& s : request_.seeds) {
      if (s.name == name) out.push_back(s);
    }
    std::sort(out.begin(), out.end(), [](const MarkSeed& a, const MarkSeed& b) { return a.frame < b.frame; });
    return out;
  }
  [[nodiscard]] MarkFollower::Followed& sampleOf(MarkName name, std::size_t frame) {
    const auto mark =
        std::find_if(marks_.begin(), marks_.end(), [name](const FollowedMark& m) { return m.name == name; });
    return mark->frames[frame - request_.firstFrame];
  }
  [[nodiscard]] std::span<MarkFollower::Followed> waysOf(MarkName name, FrameStretch frames) {
    return {&sampleOf(name, frames.first), frames.last - frames.first + 1};
  }
  [[nodiscard]] std::size_t firstSeedFrame() const {
    std::size_t first = request_.lastFrame;
    for (const MarkSeed& s : request_.seeds) first = std::min(first, s.frame);
    return first;
  }
  [[nodiscard]] std::size_t lastFirstSeed() const {
    std::size_t last = request_.firstFrame;
    for (const FollowedMark& m : marks_) last = std::max(last, seedsOf(m.name).front().frame);
    return last;
  }
  [[nodiscard]] std::size_t correctedFrames() const {
    std::size_t out = 0;
    for (const FollowedMark& m : marks_) {
      const Seeds seeds = seedsOf(m.name);
      out += seeds.back().frame - seeds.front().frame;
    }
    return out;
  }

  [[nodiscard]] MarkFollower makeFollower(double scale) const {
    double body_px = 0.0;
    for (const MarkSeed& a : request_.seeds) {
      for (const MarkSeed& b : request_.seeds) {
        if (a.frame == b.frame && isRigidPair(a.name, b.name)) body_px = length(a.at - b.at).value();
      }
    }
    const std::size_t frames = source_.frameCount();
    const double spacing =
        frames > 1 ? source_.timeOf(frames - 1).value() / static_cast<double>(frames - 1) : 1.0;
    return {body_px, std::max(spacing, 1e-6), scale};
  }

  Result<void> visit(MarkFollower& follower, std::size_t n, const Picture* picture, const Seeds& seeds,
                     const Write& write) {
    if (picture == nullptr) return {};
    Seeds given;
    for (const MarkSeed& s : seeds) {
      if (s.frame == n) given.push_back(s);
    }
    const double time = source_.timeOf(n).value();
    const auto hidden = [&](PixelPoint at) {
      return std::any_of(request_.hidden.begin(), request_.hidden.end(),
                         [&](const HiddenRegion& region) { return region.hides(n, at); });
    };
    for (const auto& [name, found] : follower.step(*picture, time, given, hidden)) write(n, name, found);
    auto held = give(follower, *picture, time, given);
    if (!held) return tl::unexpected(held.error());
    for (const MarkSeed& s : given) write(n, s.name, {{true, s.at, 1.0}});
    for (const MarkSeed& s : *held) write(n, s.name, follower.placed(*picture, time, s));
    return {};
  }

  /// Gives the follower what there is something to hold on to; that is what it returns.
  static Result<Seeds> give(MarkFollower& follower, const Picture& picture, double time, const Seeds& given) {
    Seeds held;
    for (const MarkSeed& s : given) {
      const bool in = s.at.x_px >= -0.5 && s.at.y_px >= -0.5 && s.at.x_px <= picture.width() - 0.5 &&
                      s.at.y_px <= picture.height() - 0.5;
      if (!in) {
        return badMarks(fmt::format("{} at ({:.1f}, {:.1f}) lies outside the picture of {} × {}",
                                    toString(s.name), s.at.x_px, s.at.y_px, picture.width(),
                                    picture.height()));
      }
    }
    std::copy_if(given.begin(), given.end(), std::back_inserter(held),
                 [&](const MarkSeed& s) { return holds(follower, picture, s); });
    for (const MarkSeed& s : given) {
      const auto isHeld = [&](MarkName name) {
        return follower.knows(name) || std::any_of(held.begin(), held.end(), [name](const MarkSeed& other) {
                 return other.name == name;
               });
      };
      const auto partner = partnerOf(s.name);
      const bool carried = partner && isRigidPair(s.name, *partner) && isHeld(*partner);
      if (!isHeld(s.name) && !carried) return nothingToHoldOnTo(s.name);
    }
    follower.give(picture, time, held);
    return held;
  }

  void measureBrightness(std::size_t frame, const Picture& picture) {
    const std::size_t i = frame - request_.firstFrame;
    const MarkSample* ends[2] = {nullptr, nullptr};
    for (const FollowedMark& m : marks_) {
      if (m.name == MarkName::Nose) ends[0] = &m.frames[i].sample;
      if (m.name == MarkName::Tail) ends[1] = &m.frames[i].sample;
    }
    if (ends[0] != nullptr && ends[1] != nullptr && ends[0]->seen && ends[1]->seen)
      brightness_[i] = brightnessBetween(picture, ends[0]->at, ends[1]->at);
  }

  FrameSource& source_;
  const FollowRequest& request_;
  std::vector<FollowedMark> marks_;
  std::map<MarkName, SlipDetector> sights_;
  std::vector<std::optional<double>> brightness_;
};

std::vector<SeedPlace> placesOf(const FollowedMark& mark, const FollowRequest& request) {
  std::vector<SeedPlace> out;
  for (const MarkSeed& s : request.seeds) {
    if (s.name != mark.name) continue;
    const std::size_t n = s.frame - request.firstFrame;
    if (mark.frames[n].sample.seen) out.push_back({n, s.at, mark.frames[n].angle_rad, mark.frames[n].scale});
  }
  return out;
}

}  // namespace

Result<void> holdsOnTo(const Picture& picture, const MarkSeed& seed, double body_px) {
  return holds(MarkFollower(body_px, 1.0, 1.0), picture, seed) ? Result<void>{}
                                                               : nothingToHoldOnTo(seed.name);
}

Result<Track> followMarks(FrameSource& source, const FollowRequest& request, const JobControl& job) {
  if (auto ok = checkSeeds(source, request); !ok) return tl::unexpected(ok.error());
  Following following(source, request);
  if (auto ok = following.run(job); !ok) return tl::unexpected(ok.error());
  Track track{request.firstFrame, request.lastFrame - request.firstFrame + 1, {}};
  for (FollowedMark& mark : following.marks()) {
    alignToSeeds(mark, placesOf(mark, request));
    MarkTrack out{mark.name, {}};
    for (const auto& f : mark.frames) out.samples.push_back(f.sample);
    track.marks.push_back(std::move(out));
  }
  track.brightness = std::move(following.brightness());
  return track;
}

}  // namespace fin
