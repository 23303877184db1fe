// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/still_scene.h"

#include <algorithm>
#include <cmath>
#include <opencv2/core.hpp>

namespace fin {
namespace {

constexpr std::size_t kMostKept = 8;
constexpr double kSameLook = 0.92;  ///< correlation
constexpr double kOtherLight_grey = 20.0;

bool sameLook(const cv::Mat& now, const cv::Mat& before) {
  if (cv::norm(now, before, cv::NORM_L1) > kOtherLight_grey * static_cast<double>(now.total())) return false;
  cv::Mat a, b;
  now.convertTo(a, CV_32F, 1.0, -cv::mean(now)[0]);
  before.convertTo(b, CV_32F, 1.0, -cv::mean(before)[0]);
  return a.dot(b) > kSameLook * std::sqrt(a.dot(a) * b.dot(b));
}

}  // namespace

void StillScene::remember(const Picture& picture, std::vector<PixelPoint> marks) {
  if (met_++ % every_ != 0) return;
  if (kept_.size() == kMostKept) {
    std::size_t i = 0;
    std::erase_if(kept_, [&i](const Kept&) { return i++ % 2 == 1; });
    every_ *= 2;
  }
  kept_.push_back({picture, std::move(marks)});
}

bool StillScene::stoodThere(const Picture& now, PixelPoint at, int radius_px) const {
  const int side = 2 * radius_px + 1;
  const cv::Rect box(static_cast<int>(std::lround(at.x_px)) - radius_px,
                     static_cast<int>(std::lround(at.y_px)) - radius_px, side, side);
  const cv::Rect whole(0, 0, now.width(), now.height());
  if ((box & whole) != box) return false;
  return std::any_of(kept_.begin(), kept_.end(), [&](const Kept& before) {
    const bool elsewhere = std::all_of(before.marks.begin(), before.marks.end(), [&](PixelPoint mark) {
      return length(mark - at).value() > reach_px_ + radius_px;
    });
    if (!elsewhere) return false;
    return sameLook(now.grey()(box), before.picture.grey()(box));
  });
}

}  // namespace fin
