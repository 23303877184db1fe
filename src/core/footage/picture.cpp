// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/picture.h"

#include <opencv2/core.hpp>
#include <opencv2/imgproc.hpp>

namespace fin {
namespace {

/// Luma as most cameras write it (ITU-R BT.601), in whole-number arithmetic.
cv::Mat lumaOf(const cv::Mat& rgb) {
  cv::Mat grey(rgb.size(), CV_8UC1);
  for (int y = 0; y < rgb.rows; ++y) {
    const auto* from = rgb.ptr<cv::Vec3b>(y);
    auto* to = grey.ptr<uchar>(y);
    for (int x = 0; x < rgb.cols; ++x) {
      to[x] = static_cast<uchar>((77 * from[x][0] + 150 * from[x][1] + 29 * from[x][2] + 128) >> 8);
    }
  }
  return grey;
}

class MatSource : public Picture::Source {
 public:
  explicit MatSource(const cv::Mat& image)
      : grey_(image.channels() == 1 ? image.clone() : lumaOf(image)),
        rgb_(image.channels() == 3 ? image.clone() : cv::Mat()) {}

  [[nodiscard]] const cv::Mat& grey() const override { return grey_; }
  [[nodiscard]] cv::Mat rgb() const override {
    if (!rgb_.empty()) return rgb_;
    cv::Mat out(grey_.size(), CV_8UC3);
    const int fromTo[] = {0, 0, 0, 1, 0, 2};
    cv::mixChannels(&grey_, 1, &out, 1, fromTo, 3);
    return out;
  }

 private:
  cv::Mat grey_;
  cv::Mat rgb_;
};

}  // namespace

cv::Mat Picture::Source::colours(const cv::Rect& box) const {
  const cv::Mat part = rgb()(box);
  cv::Mat out(part.size(), CV_8UC3);
  for (int y = 0; y < part.rows; ++y) {
    const auto* from = part.ptr<cv::Vec3b>(y);
    auto* to = out.ptr<cv::Vec3b>(y);
    for (int x = 0; x < part.cols; ++x) {
      const int r = from[x][0];
      const int g = from[x][1];
      const int b = from[x][2];
      to[x] = {static_cast<uchar>((77 * r + 150 * g + 29 * b + 128) >> 8),
               static_cast<uchar>((-43 * r - 85 * g + 128 * b + 32896) >> 8),
               static_cast<uchar>((128 * r - 107 * g - 21 * b + 32896) >> 8)};
    }
  }
  return out;
}

cv::Mat Picture::Source::reduced(cv::Size size) const {
  cv::Mat out;
  cv::resize(colours({0, 0, grey().cols, grey().rows}), out, size, 0.0, 0.0, cv::INTER_AREA);
  return out;
}

Picture Picture::fromMat(const cv::Mat& image) {
  CV_Assert(image.type() == CV_8UC1 || image.type() == CV_8UC3);
  return Picture(std::make_shared<MatSource>(image));
}

}  // namespace fin
