// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/still_scene.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace fin {
namespace {

constexpr std::size_t kMostKept = 8;
constexpr double kSameLook = 0.92;  ///< correlation

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
    cv::Mat score;
    cv::matchTemplate(now.grey()(box), before.picture.grey()(box), score, cv::TM_CCOEFF_NORMED);
    return score.at<float>(0, 0) > kSameLook;
  });
}

}  // namespace fin
