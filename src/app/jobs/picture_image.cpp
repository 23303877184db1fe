// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/jobs/picture_image.h"

#include <opencv2/core/mat.hpp>

namespace fin::app {

QImage imageOf(const Picture& picture) {
  const cv::Mat rgb = picture.rgb();
  return QImage(rgb.data, rgb.cols, rgb.rows, static_cast<qsizetype>(rgb.step), QImage::Format_RGB888).copy();
}

}  // namespace fin::app
