// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/background/background.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <deque>
#include <opencv2/imgproc.hpp>
#include <opencv2/video/tracking.hpp>
#include <optional>

#include "core/tracking/quantile.h"

namespace fin {
namespace {

constexpr int kMostDetails = 220;
constexpr int kFewestDetails = 40;      ///< below, new ones are looked for
constexpr int kFewestAgreeing = 12;     ///< below, the frame is not seen
constexpr double kLeastAgreeing = 0.3;  ///< share of the details
constexpr double kDetailQuality = 0.05;
constexpr double kDetailsApart_px = 8.0;
constexpr double kThereAndBack_px = 0.5;
constexpr int kCellColumns = 5;
constexpr int kCellRows = 4;
constexpr int kFreshEvery = 8;  ///< frames after which details are looked for anew
constexpr double kAroundLure_bodies = 0.6;
constexpr std::size_t kBridgeOver = 6;  ///< steps whose mean stands for one that was not seen
constexpr int kRounds = 8;
constexpr double kTukey = 4.685;  ///< tuning constant of the biweight, in robust standard deviations
constexpr double kLeastSpread_px = 0.05;

using Points = std::vector<cv::Point2f>;

/// u = a x − b y + c, v = b x + a y + d, about the picture's middle.
struct Similarity {
  double a = 1.0, b = 0.0, c = 0.0, d = 0.0;
  std::size_t agreeing = 0;

  [[nodiscard]] PixelPoint operator()(PixelPoint p) const {
    return {a * p.x_px - b * p.y_px + c, b * p.x_px + a * p.y_px + d};
  }
};

std::optional<Similarity> fitSimilarity(const Points& from, const Points& to) {
  const std::size_t n = from.size();
  if (n < kFewestAgreeing) return std::nullopt;
  std::vector<double> dx, dy;
  for (std::size_t i = 0; i < n; ++i) {
    dx.push_back(static_cast<double>(to[i].x - from[i].x));
    dy.push_back(static_cast<double>(to[i].y - from[i].y));
  }
  Similarity s{1.0, 0.0, quantileOf(std::span(dx), 0.5), quantileOf(std::span(dy), 0.5), 0};
  std::vector<double> off(n);
  for (int round = 0; round < kRounds; ++round) {
    for (std::size_t i = 0; i < n; ++i) {
      const PixelPoint at = s({static_cast<double>(from[i].x), static_cast<double>(from[i].y)});
      off[i] = std::hypot(at.x_px - static_cast<double>(to[i].x), at.y_px - static_cast<double>(to[i].y));
    }
    const double limit = kTukey * std::max(1.4826 * quantileOf(std::span(off), 0.5), kLeastSpread_px);
    Eigen::Matrix4d normal = Eigen::Matrix4d::Zero();
    Eigen::Vector4d right = Eigen::Vector4d::Zero();
    s.agreeing = 0;
    for (std::size_t i = 0; i < n; ++i) {
      if (off[i] >= limit) continue;
      const double share = off[i] / limit;
      const double w = std::pow(1.0 - share * share, 2);
      const auto x = static_cast<double>(from[i].x);
      const auto y = static_cast<double>(from[i].y);
      const Eigen::Vector4d u(x, -y, 1.0, 0.0);
      const Eigen::Vector4d v(y, x, 0.0, 1.0);
      normal += w * (u * u.transpose() + v * v.transpose());
      right += w * (u * static_cast<double>(to[i].x) + v * static_cast<double>(to[i].y));
      ++s.agreeing;
    }
    const Eigen::Vector4d p = normal.ldlt().solve(right);
    if (!p.allFinite()) return std::nullopt;
    s.a = p[0];
    s.b = p[1];
    s.c = p[2];
    s.d = p[3];
  }
  const bool enough = s.agreeing >= kFewestAgreeing &&
                      static_cast<double>(s.agreeing) >= kLeastAgreeing * static_cast<double>(n);
  return enough ? std::optional(s) : std::nullopt;
}

/// Where the lure is in a frame of the window, or was last; its middle and half the side of what to keep
/// clear of.
struct Lure {
  PixelPoint middle;
  double reach_px = 40.0;
};

class BackgroundFollower {
 public:
  /// The background's step from the picture before to this one, at the lure's place.
  std::optional<PixelPoint> step(const cv::Mat& grey, const Lure& lure) {
    std::optional<PixelPoint> out;
    if (!before_.empty() && static_cast<int>(details_.size()) >= kFewestAgreeing) out = stepFrom(grey, lure);
    before_ = grey.clone();
    if (!out || static_cast<int>(details_.size()) < kFewestDetails || ++sinceFresh_ >= kFreshEvery)
      refresh(lure);
    return out;
  }

 private:
  std::optional<PixelPoint> stepFrom(const cv::Mat& grey, const Lure& lure) {
    Points there, back;
    std::vector<uchar> found, foundBack;
    std::vector<float> ignored;
    const cv::Size window(15, 15);
    cv::calcOpticalFlowPyrLK(before_, grey, details_, there, found, ignored, window, 3);
    cv::calcOpticalFlowPyrLK(grey, before_, there, back, foundBack, ignored, window, 3);
    Points from, to;
    for (std::size_t i = 0; i < details_.size(); ++i) {
      const bool held =
          found[i] != 0 && foundBack[i] != 0 && cv::norm(back[i] - details_[i]) < kThereAndBack_px;
      if (!held || near(there[i], lure)) continue;
      from.push_back(details_[i]);
      to.push_back(there[i]);
    }
    const auto fit = fitSimilarity(from, to);
    details_ = std::move(to);
    if (!fit) return std::nullopt;
    return (*fit)(lure.middle) - lure.middle;
  }

  static bool near(const cv::Point2f& p, const Lure& lure) {
    return std::abs(static_cast<double>(p.x) - lure.middle.x_px) < lure.reach_px &&
           std::abs(static_cast<double>(p.y) - lure.middle.y_px) < lure.reach_px;
  }

  void refresh(const Lure& lure) {
    cv::Mat mask(before_.size(), CV_8UC1, cv::Scalar(255));
    const int reach = static_cast<int>(lure.reach_px);
    const cv::Rect around(static_cast<int>(lure.middle.x_px) - reach,
                          static_cast<int>(lure.middle.y_px) - reach, 2 * reach, 2 * reach);
    const cv::Rect inside = around & cv::Rect(0, 0, mask.cols, mask.rows);
    if (!inside.empty()) mask(inside).setTo(0);
    details_.clear();
    // Cell by cell, so that one strong thing (a ruler) does not outshine all the rest.
    for (int cy = 0; cy < kCellRows; ++cy) {
      for (int cx = 0; cx < kCellColumns; ++cx) {
        const cv::Rect cell(cx * before_.cols / kCellColumns, cy * before_.rows / kCellRows,
                            before_.cols / kCellColumns, before_.rows / kCellRows);
        Points here;
        cv::goodFeaturesToTrack(before_(cell), here, kMostDetails / (kCellRows * kCellColumns),
                                kDetailQuality, kDetailsApart_px, mask(cell));
        for (const cv::Point2f& p : here) {
          details_.emplace_back(p.x + static_cast<float>(cell.x), p.y + static_cast<float>(cell.y));
        }
      }
    }
    sinceFresh_ = 0;
  }

  cv::Mat before_;
  Points details_;
  int sinceFresh_ = 0;
};

Lure lureIn(const Track& track, std::size_t i, const Lure& last) {
  double left = 1e9, right = -1e9, top = 1e9, bottom = -1e9;
  for (const MarkTrack& mark : track.marks) {
    const MarkSample& s = mark.samples[i];
    if (!s.seen) continue;
    left = std::min(left, s.at.x_px);
    right = std::max(right, s.at.x_px);
    top = std::min(top, s.at.y_px);
    bottom = std::max(bottom, s.at.y_px);
  }
  if (right < left) return last;
  const double side = std::max({right - left, bottom - top, 20.0});
  return {{0.5 * (left + right), 0.5 * (top + bottom)}, (0.5 + kAroundLure_bodies) * side};
}

PixelPoint meanOf(const std::deque<PixelPoint>& steps) {
  PixelPoint sum;
  for (PixelPoint s : steps) sum = sum + s;
  return sum * (1.0 / static_cast<double>(steps.size()));
}

}  // namespace

Result<void> followBackground(FrameSource& source, Track& track, const JobControl& job) {
  BackgroundFollower follower;
  Lure lure;
  PixelPoint moved;
  std::deque<PixelPoint> lately;
  track.background.assign(track.frameCount, {});
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    if (job.cancelled()) return failure(ErrorCode::Cancelled, "following was stopped");
    const auto picture = source.frame(track.firstFrame + i);
    if (!picture && picture.error().code != ErrorCode::Damaged) return tl::unexpected(picture.error());
    lure = lureIn(track, i, lure);
    const auto step = picture ? follower.step(picture->grey(), lure) : std::nullopt;
    if (step) lately.push_back(*step);
    if (lately.size() > kBridgeOver) lately.pop_front();
    if (step || (i > 0 && !lately.empty())) moved = moved + step.value_or(meanOf(lately));
    track.background[i] = {step.has_value() || i == 0, moved, step || i == 0 ? 1.0 : 0.0};
    job.report(static_cast<double>(i + 1) / static_cast<double>(track.frameCount));
  }
  return {};
}

}  // namespace fin
