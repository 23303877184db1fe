// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/background/pixel_median.h"

#include <algorithm>
#include <opencv2/core.hpp>

namespace fin {

namespace {

constexpr int kRowsAtATime = 8;  ///< of all pictures, so that they stay near the processor

void inOrder(cv::Mat& lower, cv::Mat& higher, cv::Mat& room) {
  cv::min(lower, higher, room);
  cv::max(lower, higher, higher);
  room.copyTo(lower);
}

}  // namespace

void sortPixels(std::vector<cv::Mat>& pictures) {
  const std::size_t n = pictures.size();
  std::vector<cv::Mat> rows(n);
  cv::Mat room;
  for (int top = 0; n > 0 && top < pictures.front().rows; top += kRowsAtATime) {
    const cv::Range strip(top, std::min(top + kRowsAtATime, pictures.front().rows));
    for (std::size_t i = 0; i < n; ++i) rows[i] = pictures[i].rowRange(strip);
    // K. E. Batcher's merge exchange (Knuth, The Art of Computer Programming, volume 3, algorithm 5.2.2M):
    // what is compared does not hang on the values, so that whole rows go at once.
    for (std::size_t p = 1; p < n; p *= 2) {
      for (std::size_t k = p; k >= 1; k /= 2) {
        for (std::size_t j = k % p; j + k < n; j += 2 * k) {
          for (std::size_t i = j; i < std::min(j + k, n - k); ++i) {
            if (i / (2 * p) == (i + k) / (2 * p)) inOrder(rows[i], rows[i + k], room);
          }
        }
      }
    }
  }
}

cv::Mat medianOf(const std::vector<cv::Mat>& pictures) {
  std::vector<cv::Mat> sorted;
  for (const cv::Mat& picture : pictures) sorted.push_back(picture.clone());
  sortPixels(sorted);
  return sorted[sorted.size() / 2];
}

}  // namespace fin
