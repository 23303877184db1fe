// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/background/scenery.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>
#include <opencv2/video/tracking.hpp>

#include "core/tracking/quantile.h"

namespace fin {
namespace {

constexpr int kMostDetails = 220;
constexpr std::size_t kFewestAgreeing = 12;
constexpr double kLeastAgreeing = 0.3;  ///< share of the details
constexpr double kDetailQuality = 0.05;
constexpr double kDetailsApart_px = 8.0;
constexpr double kThereAndBack_px = 0.5;
constexpr int kCellColumns = 5;
constexpr int kCellRows = 4;
constexpr double kAroundLure_bodies = 0.6;
constexpr int kRounds = 10;
constexpr int kConcentrating = 4;  ///< rounds of them with the nearer half of the details alone
constexpr double kTukey = 4.685;   ///< tuning constant of the biweight, in robust standard deviations
constexpr double kLeastSpread_px = 0.05;

}  // namespace

std::optional<Similarity> fitSimilarity(const SceneryPoints& from, const SceneryPoints& to) {
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
    std::vector<double> sorted = off;
    const double middle = quantileOf(std::span(sorted), 0.5);
    const bool nearerHalf = round < kConcentrating;
    const double limit = nearerHalf ? middle : kTukey * std::max(1.4826 * middle, kLeastSpread_px);
    Eigen::Matrix4d normal = Eigen::Matrix4d::Zero();
    Eigen::Vector4d right = Eigen::Vector4d::Zero();
    s.agreeing = 0;
    for (std::size_t i = 0; i < n; ++i) {
      if (off[i] > limit) continue;
      const double share = nearerHalf ? 0.0 : off[i] / limit;
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

bool LureSurroundings::holds(const cv::Point2f& p) const {
  return std::abs(static_cast<double>(p.x) - middle.x_px) < reach_px &&
         std::abs(static_cast<double>(p.y) - middle.y_px) < reach_px;
}

LureSurroundings surroundingsIn(const Track& track, std::size_t i, const LureSurroundings& last) {
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

SceneryPoints sceneryOf(const cv::Mat& grey, const LureSurroundings& lure) {
  cv::Mat mask(grey.size(), CV_8UC1, cv::Scalar(255));
  const int reach = static_cast<int>(lure.reach_px);
  const cv::Rect around(static_cast<int>(lure.middle.x_px) - reach,
                        static_cast<int>(lure.middle.y_px) - reach, 2 * reach, 2 * reach);
  const cv::Rect inside = around & cv::Rect(0, 0, mask.cols, mask.rows);
  if (!inside.empty()) mask(inside).setTo(0);
  SceneryPoints out;
  for (int cy = 0; cy < kCellRows; ++cy) {
    for (int cx = 0; cx < kCellColumns; ++cx) {
      const cv::Rect cell(cx * grey.cols / kCellColumns, cy * grey.rows / kCellRows, grey.cols / kCellColumns,
                          grey.rows / kCellRows);
      SceneryPoints here;
      cv::goodFeaturesToTrack(grey(cell), here, kMostDetails / (kCellRows * kCellColumns), kDetailQuality,
                              kDetailsApart_px, mask(cell));
      for (const cv::Point2f& p : here)
        out.emplace_back(p.x + static_cast<float>(cell.x), p.y + static_cast<float>(cell.y));
    }
  }
  return out;
}

SceneryFlow flowOf(const cv::Mat& before, const cv::Mat& now, const SceneryPoints& details,
                   const SceneryPoints& guess) {
  SceneryFlow out;
  if (details.empty()) return out;
  SceneryPoints there = guess;
  SceneryPoints back;
  std::vector<uchar> found, foundBack;
  std::vector<float> ignored;
  const cv::Size window(15, 15);
  const cv::TermCriteria enough(cv::TermCriteria::COUNT + cv::TermCriteria::EPS, 30, 0.01);
  cv::calcOpticalFlowPyrLK(before, now, details, there, found, ignored, window, 3, enough,
                           guess.empty() ? 0 : cv::OPTFLOW_USE_INITIAL_FLOW);
  cv::calcOpticalFlowPyrLK(now, before, there, back, foundBack, ignored, window, 3);
  for (std::size_t i = 0; i < details.size(); ++i) {
    if (found[i] == 0 || foundBack[i] == 0 || cv::norm(back[i] - details[i]) >= kThereAndBack_px) continue;
    out.from.push_back(details[i]);
    out.to.push_back(there[i]);
  }
  return out;
}

}  // namespace fin
