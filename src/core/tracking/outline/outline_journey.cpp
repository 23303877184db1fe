// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/outline/outline_journey.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace fin {
namespace {

constexpr double kReach_px = 5.0;
constexpr double kReachOfSize = 0.05;
constexpr double kReachOfOutlineMove = 0.5;
constexpr double kVelocityMemory = 0.3;
constexpr double kReachOfSizeLost = 0.5;
constexpr double kLeastArea = 0.25;  ///< of what it had lately
constexpr double kMostArea = 2.5;
constexpr double kAreaMemory = 0.05;
constexpr std::size_t kLongestOutlineCoast_frames = 12;

cv::Rect movedBy(const cv::Rect& box, PixelPoint by) {
  return box + cv::Point(static_cast<int>(std::lround(by.x_px)), static_cast<int>(std::lround(by.y_px)));
}

}  // namespace

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

void fill(cv::Mat& mask, const std::vector<PixelPoint>& polygon, cv::Point origin) {
  std::vector<cv::Point> corners;
  for (const PixelPoint p : polygon)
    corners.push_back(
        cv::Point(static_cast<int>(std::lround(p.x_px)), static_cast<int>(std::lround(p.y_px))) - origin);
  cv::fillPoly(mask, std::vector<std::vector<cv::Point>>{corners}, cv::Scalar(255));
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

OutlineSample OutlineJourney::visit(std::size_t frame, const Picture& picture) {
  if (gone_) return {};
  const std::size_t apart =
      std::max<std::size_t>(frame > lastFrame_ ? frame - lastFrame_ : lastFrame_ - frame, 1);
  const double frames = static_cast<double>(std::min(apart, kLongestOutlineCoast_frames));
  const auto byMarks = marksMoved(*track_, lastFrame_ - track_->firstFrame, frame - track_->firstFrame);
  const PixelPoint moved = byMarks.value_or(velocity_ * frames);
  Expected expected{movedBy(last_.bounds, moved), last_.mask, 0.0, last_.inOnePart};
  const double size = std::max(last_.bounds.width, last_.bounds.height);
  const double unsure =
      byMarks ? 0.0
              : kReachOfOutlineMove * length(moved).value() + (apart > 1 ? kReachOfSizeLost * size : 0.0);
  expected.reach_px = kReach_px + kReachOfSize * size + unsure;
  const PixelPoint background = backgroundAt(frame);
  const Silhouette found =
      cutOut(picture, *backdrop_, background, frame, expected, by_, maskOf(hidden_, frame, picture));
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

PixelPoint OutlineJourney::backgroundAt(std::size_t frame) const {
  return track_->background.empty() ? PixelPoint{} : track_->background[frame - track_->firstFrame].at;
}

OutlineSample OutlineJourney::lost(const Picture& picture, const Expected& expected) {
  const cv::Rect whole(0, 0, picture.width(), picture.height());
  gone_ = (expected.bounds & whole).empty();
  return {};
}

}  // namespace fin
