// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/outline_mask.h"

#include <opencv2/imgproc.hpp>

namespace fin {

cv::Rect boundsOf(const OutlineSample& sample) {
  cv::Rect out;
  for (const auto& rim : sample.contours) {
    for (const PixelPoint p : rim) out |= cv::Rect(static_cast<int>(p.x_px), static_cast<int>(p.y_px), 1, 1);
  }
  return out;
}

cv::Mat maskOf(const OutlineSample& sample, const cv::Rect& box) {
  cv::Mat out = cv::Mat::zeros(box.size(), CV_8UC1);
  std::vector<std::vector<cv::Point>> rims;
  for (const auto& rim : sample.contours) {
    auto& points = rims.emplace_back();
    for (const PixelPoint p : rim)
      points.push_back(cv::Point(static_cast<int>(p.x_px), static_cast<int>(p.y_px)) - box.tl());
  }
  if (!rims.empty()) cv::fillPoly(out, rims, cv::Scalar(255));
  return out;
}

}  // namespace fin
