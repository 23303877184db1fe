// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <memory>
#include <opencv2/core/mat.hpp>

namespace fin {

/// One frame as it is shown (rotation applied). Immutable and cheap to copy; safe to share between threads.
class Picture {
 public:
  /// What a decoder or a renderer gives: the grey picture at once, the colours when asked.
  class Source {
   public:
    virtual ~Source() = default;
    [[nodiscard]] virtual const cv::Mat& grey() const = 0;  ///< CV_8UC1
    [[nodiscard]] virtual cv::Mat rgb() const = 0;          ///< CV_8UC3, red first
    /// As Picture::colours, of a box that lies within the picture; here from rgb().
    [[nodiscard]] virtual cv::Mat colours(const cv::Rect& box) const;
    /// As Picture::reduced; here from colours().
    [[nodiscard]] virtual cv::Mat reduced(cv::Size size) const;
  };

  explicit Picture(std::shared_ptr<const Source> source) : source_(std::move(source)) {}
  /// A picture out of memory: CV_8UC1, or CV_8UC3 with red first.
  static Picture fromMat(const cv::Mat& image);

  [[nodiscard]] int width() const { return grey().cols; }
  [[nodiscard]] int height() const { return grey().rows; }
  /// Lives as long as this picture or a copy of it.
  [[nodiscard]] const cv::Mat& grey() const { return source_->grey(); }
  [[nodiscard]] cv::Mat rgb() const { return source_->rgb(); }
  /// Luma and the two colour differences (blue, red; 128 is no colour) of a part of the picture: CV_8UC3.
  /// Cheap for small boxes of a decoded frame. `box` has to lie within the picture.
  [[nodiscard]] cv::Mat colours(const cv::Rect& box) const { return source_->colours(box); }
  /// The whole picture as colours() gives it, made smaller: each pixel is the mean of those it stands for.
  [[nodiscard]] cv::Mat reduced(cv::Size size) const { return source_->reduced(size); }

 private:
  std::shared_ptr<const Source> source_;
};

}  // namespace fin
