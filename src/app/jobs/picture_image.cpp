// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/jobs/picture_image.h"

#include <algorithm>
#include <opencv2/imgproc.hpp>

namespace fin::app {
namespace {

QImage copied(const cv::Mat& rgb) {
  return QImage(rgb.data, rgb.cols, rgb.rows, static_cast<qsizetype>(rgb.step), QImage::Format_RGB888).copy();
}

}  // namespace

QImage imageOf(const Picture& picture) {
  return copied(picture.rgb());
}

QImage imageOf(const Picture& picture, int width, QRect part) {
  const cv::Mat rgb = picture.rgb();
  const cv::Mat wanted =
      part.isEmpty() ? rgb : rgb(cv::Rect(part.x(), part.y(), part.width(), part.height()));
  const cv::Size size(width, std::max(1, width * wanted.rows / wanted.cols));
  cv::Mat out;
  cv::resize(wanted, out, size, 0.0, 0.0, width < wanted.cols ? cv::INTER_AREA : cv::INTER_LINEAR);
  return copied(out);
}

}  // namespace fin::app
