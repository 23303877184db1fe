// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/outline.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "core/tracking/frame_walk.h"
#include "core/tracking/silhouette.h"

namespace fin {
namespace {

constexpr std::size_t kBackdropFrames = 31;
constexpr std::size_t kMovingSpacing_frames = 8;  ///< of frames that show a moving background
constexpr std::size_t kMostMovingFrames = 48;
constexpr double kHidesMore = 1.15;  ///< than the outline's farthest point from the marks
constexpr int kRounds = 2;
constexpr double kLeastFit = 0.25;  ///< overlap over union with what the person drew
constexpr double kColourFavour = 0.05;
constexpr double kReach_px = 5.0;
constexpr double kReachOfSize = 0.05;
constexpr double kReachOfMove = 0.5;
constexpr double kVelocityMemory = 0.3;
constexpr double kReachOfSizeLost = 0.5;
constexpr double kLeastArea = 0.25;  ///< of what it had lately
constexpr double kMostArea = 2.5;
constexpr double kAreaMemory = 0.05;
constexpr std::size_t kLongestCoast_frames = 12;
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

void fill(cv::Mat& mask, const std::vector<PixelPoint>& polygon, cv::Point origin) {
  std::vector<cv::Point> corners;
  for (const PixelPoint p : polygon)
    corners.push_back(
        cv::Point(static_cast<int>(std::lround(p.x_px)), static_cast<int>(std::lround(p.y_px))) - origin);
  cv::fillPoly(mask, std::vector<std::vector<cv::Point>>{corners}, cv::Scalar(255));
}

Expected drawn(const OutlineSeed& seed) {
  Expected out;
  out.bounds = boundsOf(seed.polygon);
  out.mask = cv::Mat::zeros(out.bounds.size(), CV_8UC1);
  fill(out.mask, seed.polygon, out.bounds.tl());
  return out;
}

cv::Rect movedBy(const cv::Rect& box, PixelPoint by) {
  return box + cv::Point(static_cast<int>(std::lround(by.x_px)), static_cast<int>(std::lround(by.y_px)));
}

PixelPoint middleOf(const cv::Rect& box) {
  return {box.x + 0.5 * (box.width - 1), box.y + 0.5 * (box.height - 1)};
}

/// Mean place of the marks that are seen in two frames of the window, as how far they went; none where no
/// mark is seen in both.
std::optional<PixelPoint> marksMoved(const Track& track, std::size_t from, std::size_t to) {
  PixelPoint sum;
  double n = 0.0;
  for (const MarkTrack& mark : track.marks) {
    const MarkSample& a = mark.samples[from];
    const MarkSample& b = mark.samples[to];
    if (!a.seen || !b.seen) continue;
    sum = sum + (b.at - a.at);
    n += 1.0;
  }
  return n > 0.0 ? std::optional(sum * (1.0 / n)) : std::nullopt;
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

/// 255 where nothing is to be followed; empty where there is no such place.
cv::Mat maskOf(std::span<const HiddenRegion> hidden, std::size_t frame, const Picture& picture) {
  cv::Mat out;
  for (const HiddenRegion& region : hidden) {
    if (frame < region.firstFrame || frame > region.lastFrame) continue;
    if (out.empty()) out = cv::Mat::zeros(picture.height(), picture.width(), CV_8UC1);
    fill(out, region.polygon, {});
  }
  return out;
}

/// One journey of the outline from frame to frame, in either direction of time.
class OutlineJourney {
 public:
  OutlineJourney(Backdrop& backdrop, const Track& track, std::span<const HiddenRegion> hidden, Expected start,
                 std::size_t frame, ToldBy by)
      : backdrop_(backdrop),
        track_(track),
        hidden_(hidden),
        last_(std::move(start)),
        lastFrame_(frame),
        by_(by) {}

  OutlineSample visit(std::size_t frame, const Picture& picture) {
    const std::size_t apart =
        std::max<std::size_t>(frame > lastFrame_ ? frame - lastFrame_ : lastFrame_ - frame, 1);
    if (gone_) return {};
    const double frames = static_cast<double>(std::min(apart, kLongestCoast_frames));
    const auto byMarks = marksMoved(track_, lastFrame_ - track_.firstFrame, frame - track_.firstFrame);
    const PixelPoint moved = byMarks.value_or(velocity_ * frames);
    Expected expected{movedBy(last_.bounds, moved), last_.mask, 0.0, last_.inOnePart};
    const double size = std::max(last_.bounds.width, last_.bounds.height);
    const double unsure =
        byMarks ? 0.0 : kReachOfMove * length(moved).value() + (apart > 1 ? kReachOfSizeLost * size : 0.0);
    expected.reach_px = kReach_px + kReachOfSize * size + unsure;
    const PixelPoint background = backgroundAt(frame);
    const Silhouette found =
        cutOut(picture, backdrop_, background, frame, expected, by_, maskOf(hidden_, frame, picture));
    if (found.empty()) return lost(picture, expected);
    OutlineSample out = measured(found, picture, angle_);
    if (!out.seen || (area_ > 0.0 && (out.area_px2 < kLeastArea * area_ || out.area_px2 > kMostArea * area_)))
      return lost(picture, expected);
    area_ = area_ > 0.0 ? area_ + kAreaMemory * (out.area_px2 - area_) : out.area_px2;
    if (out.whole && knownCentre_) {
      const PixelPoint now = (out.centre - *knownCentre_) * (1.0 / static_cast<double>(apart));
      velocity_ = moves_ ? velocity_ + (now - velocity_) * kVelocityMemory : now;
      moves_ = true;
    }
    knownCentre_ = out.centre;
    angle_ = out.angle_rad;
    lastFrame_ = frame;
    last_.bounds = found.bounds();
    last_.mask = found.mask(last_.bounds - found.box.tl()).clone();
    return out;
  }

  [[nodiscard]] cv::Rect bounds() const { return last_.bounds; }

 private:
  [[nodiscard]] PixelPoint backgroundAt(std::size_t frame) const {
    return track_.background.empty() ? PixelPoint{} : track_.background[frame - track_.firstFrame].at;
  }
  OutlineSample lost(const Picture& picture, const Expected& expected) {
    const cv::Rect whole(0, 0, picture.width(), picture.height());
    gone_ = (expected.bounds & whole).empty();
    return {};
  }

  Backdrop& backdrop_;
  const Track& track_;
  std::span<const HiddenRegion> hidden_;
  Expected last_;
  std::size_t lastFrame_;
  ToldBy by_;
  bool gone_ = false;
  PixelPoint velocity_;
  bool moves_ = false;  ///< its velocity is known
  std::optional<PixelPoint> knownCentre_;
  double area_ = 0.0;
  double angle_ = 0.0;
};

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

/// Where no mark tells, the lure is looked for in the samples themselves, from the drawn outline on; where it
/// is not found it is taken to be where it was last.
void hideByLooking(Backdrop& backdrop, const Expected& drawn, std::size_t seedFrame, const Track& track,
                   std::span<const HiddenRegion> hidden) {
  const auto& samples = backdrop.samples();
  std::vector<cv::Rect> out(samples.size());
  Expected wanted = drawn;
  wanted.inOnePart = true;
  std::size_t start = 0;
  while (start + 1 < samples.size() && samples[start].frame < seedFrame) ++start;
  const int size = std::max(drawn.bounds.width, drawn.bounds.height);
  bool lost = true;
  const auto look = [&](OutlineJourney& journey, std::size_t i) {
    const Backdrop::Sample& s = samples[i];
    if (!journey.visit(s.frame, s.picture).seen) lost = true;
    const cv::Rect b = journey.bounds();
    out[i] = {b.x - size / 4, b.y - size / 4, b.width + size / 2, b.height + size / 2};
  };
  // A lure that rests in most samples is taken for what lies behind it at first. It is then lost near the
  // place where it came to rest; once it is left out from there, the next round finds it.
  for (int round = 0; round < kRounds && lost; ++round) {
    lost = false;
    OutlineJourney on(backdrop, track, hidden, wanted, seedFrame, ToldBy::Brightness);
    for (std::size_t i = start; i < samples.size(); ++i) look(on, i);
    OutlineJourney back(backdrop, track, hidden, wanted, seedFrame, ToldBy::Brightness);
    for (std::size_t i = start; i-- > 0;) look(back, i);
    backdrop.hide(out);
  }
}

struct Told {
  ToldBy by = ToldBy::Colour;
  double fit = 0.0;
  Silhouette silhouette;
};

/// By what the lure is told best from what lies behind it, where a person drew it.
Told toldBest(const Picture& picture, Backdrop& backdrop, PixelPoint moved, const OutlineSeed& seed,
              const Expected& expected, std::span<const HiddenRegion> hidden) {
  const auto tryOne = [&](ToldBy by) {
    Told out{by, 0.0,
             cutOut(picture, backdrop, moved, seed.frame, expected, by, maskOf(hidden, seed.frame, picture))};
    if (!out.silhouette.empty())
      out.fit = overlap(out.silhouette, expected, cv::Rect(0, 0, picture.width(), picture.height()));
    return out;
  };
  Told colour = tryOne(ToldBy::Colour);
  Told all = tryOne(ToldBy::Brightness);
  return colour.fit + kColourFavour >= all.fit ? colour : all;
}

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
  start.reach_px = kReach_px;
  if ((start.bounds & cv::Rect(0, 0, picture->width(), picture->height())).empty())
    return badOutline("it is drawn outside the picture");
  const auto byMarks = hiddenByMarks(*backdrop, start, seed.frame, track);
  if (byMarks) {
    backdrop->hide(*byMarks);
  } else {
    hideByLooking(*backdrop, start, seed.frame, track, hidden);
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

  std::vector<OutlineSample> found(track.frameCount);
  const auto visit = [&](OutlineJourney& journey) {
    return [&](std::size_t n, const Picture* shown) -> Result<void> {
      if (shown != nullptr) found[n - track.firstFrame] = journey.visit(n, *shown);
      return {};
    };
  };
  const double middle = kBackdropShare + (1.0 - kBackdropShare) * static_cast<double>(last - seed.frame + 1) /
                                             static_cast<double>(track.frameCount);
  OutlineJourney on(*backdrop, track, hidden, start, seed.frame, told.by);
  if (auto ok = walkForwards(source, seed.frame, last, partOf(job, kBackdropShare, middle), visit(on)); !ok)
    return ok;
  if (seed.frame > track.firstFrame) {
    OutlineJourney back(*backdrop, track, hidden, start, seed.frame, told.by);
    if (auto ok =
            walkBackwards(source, track.firstFrame, seed.frame - 1, partOf(job, middle, 1.0), visit(back));
        !ok)
      return ok;
  }
  track.outline = std::move(found);
  return {};
}

}  // namespace fin
