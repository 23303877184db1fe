// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/field_frames.h"

#include <algorithm>
#include <opencv2/core.hpp>

namespace fin {
namespace {

/// The lines of one field kept, those of the other filled in from above and below.
cv::Mat fieldOf(const cv::Mat& frame, int firstLine) {
  cv::Mat out = frame.clone();
  for (int y = 1 - firstLine; y < frame.rows; y += 2) {
    const cv::Mat above = frame.row(y > 0 ? y - 1 : y + 1);
    const cv::Mat below = frame.row(y + 1 < frame.rows ? y + 1 : y - 1);
    cv::addWeighted(above, 0.5, below, 0.5, 0.0, out.row(y));
  }
  return out;
}

class FieldSource : public Picture::Source {
 public:
  FieldSource(Picture frame, int firstLine)
      : frame_(std::move(frame)), firstLine_(firstLine), grey_(fieldOf(frame_.grey(), firstLine)) {}

  [[nodiscard]] const cv::Mat& grey() const override { return grey_; }
  [[nodiscard]] cv::Mat rgb() const override { return fieldOf(frame_.rgb(), firstLine_); }

 private:
  Picture frame_;
  int firstLine_;
  cv::Mat grey_;
};

}  // namespace

Result<Picture> FieldFrames::frame(std::size_t field) {
  auto whole = frames_->frame(field / 2);
  if (!whole || whole->height() < 2) return whole;
  const bool top = (field % 2 == 0) == clip_->info().topFieldFirst;
  return Picture(std::make_shared<FieldSource>(std::move(*whole), top ? 0 : 1));
}

}  // namespace fin
