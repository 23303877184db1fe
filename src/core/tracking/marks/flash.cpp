// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/flash.h"

#include <algorithm>
#include <cmath>
#include <opencv2/core.hpp>

namespace fin {
namespace {

constexpr double kHalfWidth = 0.125;  ///< of the distance from nose to tail

}  // namespace

std::optional<double> brightnessBetween(const Picture& picture, PixelPoint nose, PixelPoint tail) {
  const double length_px = length(nose - tail).value();
  if (length_px < 1.0) return std::nullopt;
  const PixelPoint along = (nose - tail) * (1.0 / length_px);
  const PixelPoint across{-along.y_px, along.x_px};
  const int half = std::max(1, static_cast<int>(std::lround(kHalfWidth * length_px)));
  double sum = 0.0;
  int n = 0;
  for (int u = 0; u <= static_cast<int>(length_px); ++u) {
    for (int v = -half; v <= half; ++v) {
      const PixelPoint at = tail + along * static_cast<double>(u) + across * static_cast<double>(v);
      const int x = static_cast<int>(std::lround(at.x_px));
      const int y = static_cast<int>(std::lround(at.y_px));
      if (x < 0 || y < 0 || x >= picture.width() || y >= picture.height()) continue;
      sum += picture.grey().at<uchar>(y, x);
      ++n;
    }
  }
  return n > 0 ? std::optional(sum / n) : std::nullopt;
}

}  // namespace fin
