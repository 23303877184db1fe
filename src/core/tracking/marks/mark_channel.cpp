// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/mark_channel.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <opencv2/core.hpp>
#include <optional>

namespace fin {
namespace {

constexpr double kNoise_grey = 3.0;  ///< of camera and compression, in each channel
constexpr double kStandsOut = 2.2;   ///< scatters between disc and ring that make a channel worth having
constexpr int kSmallestDisc_px = 2;
constexpr int kLargestDisc_px = 5;

using Eigen::Matrix3d;
using Eigen::Vector3d;

cv::Rect boxAround(const Picture& picture, PixelPoint at, int reach_px) {
  const int x = static_cast<int>(std::lround(at.x_px));
  const int y = static_cast<int>(std::lround(at.y_px));
  return cv::Rect(x - reach_px, y - reach_px, 2 * reach_px + 1, 2 * reach_px + 1) &
         cv::Rect(0, 0, picture.width(), picture.height());
}

/// Mean and scatter of some pixels.
struct Heap {
  double n = 0.0;
  Vector3d sum = Vector3d::Zero();
  Matrix3d squares = Matrix3d::Zero();

  void add(const cv::Vec3b& pixel) {
    const Vector3d v(pixel[0], pixel[1], pixel[2]);
    n += 1.0;
    sum += v;
    squares += v * v.transpose();
  }
  [[nodiscard]] Vector3d mean() const { return sum / n; }
  [[nodiscard]] Matrix3d scatter() const { return squares / n - mean() * mean().transpose(); }
};

struct Discriminant {
  Vector3d weights;
  double middle = 0.0;  ///< weighted value half way between disc and ring
  double span = 0.0;
  double standsOut = 0.0;
};

Discriminant between(const Heap& disc, const Heap& ring) {
  const Matrix3d within =
      0.5 * (disc.scatter() + ring.scatter()) + kNoise_grey * kNoise_grey * Matrix3d::Identity();
  const Vector3d apart = disc.mean() - ring.mean();
  const Vector3d weights = within.ldlt().solve(apart);
  const double span = weights.dot(apart);
  return {weights, 0.5 * weights.dot(disc.mean() + ring.mean()), span, std::sqrt(std::max(span, 0.0))};
}

}  // namespace

MarkChannel MarkChannel::learn(const Picture& picture, PixelPoint at, int radius_px) {
  const cv::Rect box = boxAround(picture, at, radius_px + 1);
  if (box.empty()) return {};
  const cv::Mat colours = picture.colours(box);
  std::optional<Discriminant> best;
  int bestDisc = 0;
  for (int disc_px = kSmallestDisc_px; disc_px <= std::min(kLargestDisc_px, radius_px - 3); ++disc_px) {
    Heap disc;
    Heap ring;
    for (int y = 0; y < colours.rows; ++y) {
      for (int x = 0; x < colours.cols; ++x) {
        const double away = std::hypot(x + box.x - at.x_px, y + box.y - at.y_px);
        if (away <= disc_px - 0.4) disc.add(colours.at<cv::Vec3b>(y, x));
        // A pixel or two between them belong to both.
        if (away >= disc_px + 1.6 && away <= radius_px) ring.add(colours.at<cv::Vec3b>(y, x));
      }
    }
    if (disc.n < 4.0 || ring.n < 12.0) continue;
    const Discriminant d = between(disc, ring);
    if (!best || d.standsOut > best->standsOut) {
      best = d;
      bestDisc = disc_px;
    }
  }
  if (!best || best->standsOut < kStandsOut) return {};
  MarkChannel out;
  const double gain = kSpan_grey / best->span;
  for (std::size_t i = 0; i < 3; ++i)
    out.weights_[i] = static_cast<float>(gain * best->weights[static_cast<Eigen::Index>(i)]);
  out.offset_ = static_cast<float>(128.0 - gain * best->middle);
  out.disc_px_ = bestDisc;
  return out;
}

MarkView MarkChannel::view(const Picture& picture, PixelPoint around, int reach_px) const {
  if (isLuma()) return {picture.grey(), {0, 0}};
  const cv::Rect box = boxAround(picture, around, reach_px);
  if (box.empty()) return {picture.grey(), {0, 0}};
  const cv::Mat colours = picture.colours(box);
  MarkView out{cv::Mat(box.size(), CV_8UC1), box.tl()};
  for (int y = 0; y < colours.rows; ++y) {
    const auto* from = colours.ptr<cv::Vec3b>(y);
    auto* to = out.image.ptr<uchar>(y);
    for (int x = 0; x < colours.cols; ++x) {
      const float value = weights_[0] * static_cast<float>(from[x][0]) +
                          weights_[1] * static_cast<float>(from[x][1]) +
                          weights_[2] * static_cast<float>(from[x][2]) + offset_;
      to[x] = static_cast<uchar>(std::clamp(value + 0.5F, 0.0F, 255.0F));
    }
  }
  return out;
}

}  // namespace fin
