// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/background/pixel_median.h"

#include <opencv2/core.hpp>

namespace fin {

cv::Mat medianOf(const std::vector<cv::Mat>& pictures) {
  std::vector<cv::Mat> sorted;
  for (const cv::Mat& picture : pictures) sorted.push_back(picture.clone());
  // By odd-even transposition: whole pictures are compared at once.
  cv::Mat low;
  for (std::size_t round = 0; round < sorted.size(); ++round) {
    for (std::size_t i = round % 2; i + 1 < sorted.size(); i += 2) {
      cv::min(sorted[i], sorted[i + 1], low);
      cv::max(sorted[i], sorted[i + 1], sorted[i + 1]);
      cv::swap(sorted[i], low);
    }
  }
  return sorted[sorted.size() / 2];
}

}  // namespace fin
