// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/outline/outline.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <future>
#include <opencv2/imgproc.hpp>
#include <thread>

#include "core/tracking/frame_walk.h"
#include "core/tracking/outline/outline_journey.h"

namespace fin {
namespace {

constexpr std::size_t kBackdropFrames = 31;
constexpr std::size_t kMovingSpacing_frames = 8;  ///< of frames that show a moving background
constexpr std::size_t kMostMovingFrames = 48;
constexpr double kHidesMore = 1.15;  ///< than the outline's farthest point from the marks
constexpr int kRounds = 2;
constexpr double kLeastFit = 0.25;  ///< overlap over union with what the person drew
constexpr double kColourFavour = 0.05;
constexpr double kDrawnReach_px = 5.0;  ///< that a drawn outline may be off
constexpr std::size_t kMostLegs = 4;
constexpr double kScoutChange = 0.3;  ///< that area and length may differ from what a scout saw last
constexpr double kSame_px = 1.5;
constexpr double kSameArea = 0.1;
constexpr double kBackdropShare = 0.4;  ///< of the progress

cv::Rect boundsOf(const std::vector<PixelPoint>& polygon) {
  double left = 1e9, right = -1e9, top = 1e9, bottom = -1e9;
  for (const PixelPoint p : polygon) {
    left = std::min(left, p.x_px);
    right = std::max(right, p.x_px);
    top = std::min(top, p.y_px);
    bottom = std::max(bottom, p.y_px);
  }
  const cv::Point corner(static_cast<int>(std::floor(left)), static_cast<int>(std::floor(top)));
  return {corner, cv::Point(static_cast<int>(std::ceil(right)) + 1, static_cast<int>(std::ceil(bottom)) + 1)};
}

Expected drawn(const OutlineSeed& seed) {
  Expected out;
  out.bounds = boundsOf(seed.polygon);
  out.mask = cv::Mat::zeros(out.bounds.size(), CV_8UC1);
  fill(out.mask, seed.polygon, out.bounds.tl());
  return out;
}

PixelPoint middleOf(const cv::Rect& box) {
  return {box.x + 0.5 * (box.width - 1), box.y + 0.5 * (box.height - 1)};
}

/// Share of two masks' union that they have in common; what was drawn outside of the picture does not count.
double overlap(const Silhouette& found, const Expected& drawn, const cv::Rect& picture) {
  const cv::Rect inPicture = drawn.bounds & picture;
  const cv::Rect place = inPicture & found.box;
  if (place.empty()) return 0.0;
  cv::Mat both;
  cv::bitwise_and(drawn.mask(place - drawn.bounds.tl()), found.mask(place - found.box.tl()), both);
  const int common = cv::countNonZero(both);
  const int said = cv::countNonZero(drawn.mask(inPicture - drawn.bounds.tl()));
  return static_cast<double>(common) / std::max(said + cv::countNonZero(found.mask) - common, 1);
}

std::vector<std::size_t> sampleFrames(const Track& track) {
  std::size_t count = kBackdropFrames;
  if (!track.background.empty())
    count = std::clamp(track.frameCount / kMovingSpacing_frames, kBackdropFrames, kMostMovingFrames);
  count = std::min(count, track.frameCount);
  std::vector<std::size_t> out;
  for (std::size_t i = 0; i < count; ++i)
    out.push_back(track.firstFrame + i * (track.frameCount - 1) / std::max<std::size_t>(count - 1, 1));
  return out;
}

/// Every frame is asked for, so that a source that keeps frames has them when the outline is followed.
Result<Backdrop> gather(FrameSource& source, const Track& track, const JobControl& job) {
  const bool moves = !track.background.empty();
  Backdrop out(moves);
  const std::vector<std::size_t> wanted = sampleFrames(track);
  const auto visit = [&](std::size_t n, const Picture* picture) -> Result<void> {
    if (picture != nullptr && std::binary_search(wanted.begin(), wanted.end(), n))
      out.add({n, *picture, moves ? track.background[n - track.firstFrame].at : PixelPoint{}, {}});
    return {};
  };
  const std::size_t last = track.firstFrame + track.frameCount - 1;
  if (auto ok = walkForwards(source, track.firstFrame, last, job, visit); !ok)
    return tl::unexpected(ok.error());
  return out;
}

/// Where the lure is in the samples: by its marks.
std::optional<std::vector<cv::Rect>> hiddenByMarks(const Backdrop& backdrop, const Expected& drawn,
                                                   std::size_t seedFrame, const Track& track) {
  const double reach = kHidesMore * std::hypot(drawn.bounds.width, drawn.bounds.height);
  std::vector<cv::Rect> out;
  for (const Backdrop::Sample& s : backdrop.samples()) {
    const auto moved = marksMoved(track, seedFrame - track.firstFrame, s.frame - track.firstFrame);
    if (!moved) return std::nullopt;
    // However it lies: what it hides turns about the marks, which lie in it.
    const PixelPoint middle = middleOf(drawn.bounds) + *moved;
    out.emplace_back(static_cast<int>(middle.x_px - reach), static_cast<int>(middle.y_px - reach),
                     static_cast<int>(2.0 * reach), static_cast<int>(2.0 * reach));
  }
  return out;
}

/// A journey that has gone from sample to sample up to one frame, and what it saw there.
struct OutlinePreview {
  std::size_t frame = 0;
  OutlineJourney journey;
  OutlineSample found;
};

/// Where no mark tells, the lure is looked for in the samples themselves, from the drawn outline on; where it
/// is not found it is taken to be where it was last. How it went through those after the drawn one.
std::vector<OutlinePreview> hideByLooking(Backdrop& backdrop, const Expected& drawn, std::size_t seedFrame,
                                          const Track& track, std::span<const HiddenRegion> hidden) {
  const auto& samples = backdrop.samples();
  std::vector<cv::Rect> out(samples.size());
  Expected wanted = drawn;
  wanted.inOnePart = true;
  std::size_t start = 0;
  while (start + 1 < samples.size() && samples[start].frame < seedFrame) ++start;
  const int size = std::max(drawn.bounds.width, drawn.bounds.height);
  bool lost = true;
  std::vector<OutlinePreview> ahead;
  const auto look = [&](OutlineJourney& journey, std::size_t i) {
    const Backdrop::Sample& s = samples[i];
    OutlineSample found = journey.visit(s.frame, s.picture);
    if (!found.seen) lost = true;
    const cv::Rect b = journey.bounds();
    out[i] = {b.x - size / 4, b.y - size / 4, b.width + size / 2, b.height + size / 2};
    if (s.frame > seedFrame) ahead.push_back({s.frame, journey, std::move(found)});
  };
  // A lure that rests in most samples is taken for what lies behind it at first. It is then lost near the
  // place where it came to rest; once it is left out from there, the next round finds it.
  for (int round = 0; round < kRounds && lost; ++round) {
    lost = false;
    ahead.clear();
    OutlineJourney on(backdrop, track, hidden, wanted, seedFrame, SegmentationCue::Brightness);
    for (std::size_t i = start; i < samples.size(); ++i) look(on, i);
    OutlineJourney back(backdrop, track, hidden, wanted, seedFrame, SegmentationCue::Brightness);
    for (std::size_t i = start; i-- > 0;) look(back, i);
    backdrop.hide(out);
  }
  return ahead;
}

/// The same where the marks tell where the lure is.
std::vector<OutlinePreview> previewAhead(const Backdrop& backdrop, OutlineJourney journey,
                                         std::size_t seedFrame) {
  std::vector<OutlinePreview> out;
  journey.followOnePart();
  for (const Backdrop::Sample& s : backdrop.samples()) {
    if (s.frame <= seedFrame) continue;
    OutlineSample found = journey.visit(s.frame, s.picture);
    out.push_back({s.frame, journey, std::move(found)});
  }
  return out;
}

struct Told {
  SegmentationCue by = SegmentationCue::Colour;
  double fit = 0.0;
  Silhouette silhouette;
};

/// By what the lure is told best from what lies behind it, where a person drew it.
Told toldBest(const Picture& picture, Backdrop& backdrop, PixelPoint moved, const OutlineSeed& seed,
              const Expected& expected, std::span<const HiddenRegion> hidden) {
  const auto tryOne = [&](SegmentationCue by) {
    Told out{by, 0.0,
             cutOut(picture, backdrop, moved, seed.frame, expected, by, maskOf(hidden, seed.frame, picture))};
    if (!out.silhouette.empty())
      out.fit = overlap(out.silhouette, expected, cv::Rect(0, 0, picture.width(), picture.height()));
    return out;
  };
  Told colour = tryOne(SegmentationCue::Colour);
  Told all = tryOne(SegmentationCue::Brightness);
  return colour.fit + kColourFavour >= all.fit ? colour : all;
}

/// A stretch of the way that is gone in a thread of its own.
struct Segment {
  OutlineJourney journey;
  FrameStretch frames;
  OutlineSample arrival = {};  ///< in the first frame of the next segment
};

/// Legs from the seed to the window's end, about as many as there are cores. The next may start where a scout
/// has seen the whole lure as it was just before.
std::vector<Segment> planSegments(std::span<const OutlinePreview> previews, const OutlineJourney& journey,
                                  FrameStretch frames) {
  std::vector<Segment> out{{journey, frames}};
  const std::size_t most = std::clamp<std::size_t>(std::thread::hardware_concurrency(), 1, kMostLegs);
  for (std::size_t i = 1; i < previews.size() && out.size() < most; ++i) {
    const OutlineSample& found = previews[i].found;
    const OutlineSample& before = previews[i - 1].found;
    const bool asBefore = found.whole && before.seen &&
                          std::abs(found.area_px2 - before.area_px2) < kScoutChange * before.area_px2 &&
                          std::abs(found.length_px - before.length_px) < kScoutChange * before.length_px;
    const std::size_t due = frames.first + out.size() * (frames.last - frames.first + 1) / most;
    const std::size_t start = previews[i].frame;
    if (start < due || start == frames.last || !asBefore) continue;
    out.back().frames.last = start - 1;
    out.push_back({previews[i].journey, {start, frames.last}});
    out.back().journey.goOnAs(journey);
  }
  return out;
}

/// Two ways that see the same in one frame go on alike.
bool same(const OutlineSample& a, const OutlineSample& b) {
  return a.seen && b.seen && length(a.centre - b.centre).value() < kSame_px &&
         std::abs(a.area_px2 - b.area_px2) < kSameArea * a.area_px2;
}

/// The outline in every frame of the window, from the seed on to both ends. Where the frames are at hand the
/// segments of the way are gone side by side; where one does not see the lure as the next one did when it
/// started, it goes on through that one's frames.
class OutlineRun {
 public:
  OutlineRun(FrameSource& source, const Track& track)
      : source_(source),
        track_(track),
        last_(track.firstFrame + track.frameCount - 1),
        found_(track.frameCount) {}

  Result<std::vector<OutlineSample>> go(std::span<const OutlinePreview> previews,
                                        const OutlineJourney& journey, std::size_t seedFrame,
                                        const JobControl& job) {
    const JobControl unwatched{job.stop};
    std::vector<Segment> segments{{journey, {seedFrame, last_}}};
    Result<void> done;
    if (source_.holds(track_.firstFrame, last_)) {
      segments = planSegments(previews, journey, {seedFrame, last_});
      std::vector<std::future<Result<void>>> beside;
      for (std::size_t i = 1; i < segments.size(); ++i)
        beside.push_back(std::async(std::launch::async, [&, i] { return onwards(segments[i], unwatched); }));
      beside.push_back(
          std::async(std::launch::async, [&] { return backwards(journey, seedFrame, unwatched); }));
      done = onwards(segments.front(), job);
      for (auto& one : beside) {
        if (auto ok = one.get(); !ok) done = ok;
      }
    } else {
      const double middle =
          static_cast<double>(last_ - seedFrame + 1) / static_cast<double>(track_.frameCount);
      done = onwards(segments.front(), partOf(job, 0.0, middle));
      if (done) done = backwards(journey, seedFrame, partOf(job, middle, 1.0));
    }
    for (std::size_t i = 1; done && i < segments.size(); ++i) {
      if (same(segments[i - 1].arrival, found_[segments[i].frames.first - track_.firstFrame])) continue;
      segments[i].journey = segments[i - 1].journey;
      done = onwards(segments[i], job);
    }
    if (!done) return tl::unexpected(done.error());
    return std::move(found_);
  }

 private:
  Result<void> onwards(Segment& segment, const JobControl& job) {
    auto ok = walkForwards(source_, segment.frames.first, segment.frames.last, job, visitor(segment.journey));
    if (!ok || segment.frames.last == last_) return ok;
    const auto next = source_.frame(segment.frames.last + 1);
    OutlineJourney ahead = segment.journey;
    if (next) segment.arrival = ahead.visit(segment.frames.last + 1, *next);
    return ok;
  }
  Result<void> backwards(OutlineJourney journey, std::size_t seedFrame, const JobControl& job) {
    if (seedFrame == track_.firstFrame) return {};
    return walkBackwards(source_, track_.firstFrame, seedFrame - 1, job, visitor(journey));
  }
  FrameVisit visitor(OutlineJourney& by) {
    return [&](std::size_t n, const Picture* shown) -> Result<void> {
      if (shown != nullptr) found_[n - track_.firstFrame] = by.visit(n, *shown);
      return {};
    };
  }

  FrameSource& source_;
  const Track& track_;
  std::size_t last_;
  std::vector<OutlineSample> found_;
};

tl::unexpected<Error> badOutline(const std::string& message) {
  return failure(ErrorCode::BadRequest, "outline: " + message, "outline");
}

}  // namespace

Result<void> followOutline(FrameSource& source, const OutlineSeed& seed, std::span<const HiddenRegion> hidden,
                           Track& track, const JobControl& job) {
  const std::size_t last = track.firstFrame + track.frameCount - 1;
  if (seed.frame < track.firstFrame || seed.frame > last)
    return badOutline(
        fmt::format("it is drawn in frame {}, outside the window {}–{}", seed.frame, track.firstFrame, last));
  auto backdrop = gather(source, track, partOf(job, 0.0, kBackdropShare));
  if (!backdrop) return tl::unexpected(backdrop.error());
  const auto picture = source.frame(seed.frame);
  if (!picture) return tl::unexpected(picture.error());
  Expected start = drawn(seed);
  start.reach_px = kDrawnReach_px;
  if ((start.bounds & cv::Rect(0, 0, picture->width(), picture->height())).empty())
    return badOutline("it is drawn outside the picture");
  const auto byMarks = hiddenByMarks(*backdrop, start, seed.frame, track);
  std::vector<OutlinePreview> previews;
  if (byMarks) {
    backdrop->hide(*byMarks);
  } else {
    previews = hideByLooking(*backdrop, start, seed.frame, track, hidden);
  }

  const PixelPoint moved =
      track.background.empty() ? PixelPoint{} : track.background[seed.frame - track.firstFrame].at;
  const Told told = toldBest(*picture, *backdrop, moved, seed, start, hidden);
  if (told.fit < kLeastFit) {
    return failure(
        ErrorCode::Lost,
        "outline: what it encloses cannot be told from what lies behind it; draw it around the lure in "
        "a frame in which the lure stands out, in a clip in which it moves on",
        "outline");
  }

  const OutlineJourney journey(*backdrop, track, hidden, start, seed.frame, told.by);
  if (byMarks) previews = previewAhead(*backdrop, journey, seed.frame);
  auto found = OutlineRun(source, track).go(previews, journey, seed.frame, partOf(job, kBackdropShare, 1.0));
  if (!found) return tl::unexpected(found.error());
  track.outline = std::move(*found);
  return {};
}

}  // namespace fin
