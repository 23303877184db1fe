// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>

#include "core/footage/picture.h"
#include "core/tracking/marks/patch.h"

namespace fin {

/// A part of a picture as one grey image, with where its first pixel lies in the picture.
struct MarkView {
  cv::Mat image;  ///< CV_8UC1
  cv::Point origin;

  [[nodiscard]] PatchPose inside(const PatchPose& pose) const {
    return pose.movedTo(pose.centre -
                        PixelPoint{static_cast<double>(origin.x), static_cast<double>(origin.y)});
  }
  [[nodiscard]] PixelPoint outside(PixelPoint at) const {
    return at + PixelPoint{static_cast<double>(origin.x), static_cast<double>(origin.y)};
  }
};

/// The mixture of brightness and colour in which a small mark stands out from all that lies around it: body,
/// water and the edge between them then hardly pull at its place.
///
/// Model: Fisher's linear discriminant (R. A. Fisher, The use of multiple measurements in taxonomic problems,
/// 1936) between a disc about the mark and a ring around it, in luma and the two colour differences, with the
/// camera's noise added to the scatter. Where no disc stands out well it is plain luma.
class MarkChannel {
 public:
  static constexpr double kSpan_grey = 110.0;  ///< between disc and ring in the view

  MarkChannel() = default;  ///< luma
  static MarkChannel learn(const Picture& picture, PixelPoint at, int radius_px);

  /// At least `reach` pixels around a place, as far as the picture goes.
  [[nodiscard]] MarkView view(const Picture& picture, PixelPoint around, int reach_px) const;
  [[nodiscard]] bool isLuma() const { return disc_px_ == 0; }
  /// Radius of the disc that stands out; 0 for luma.
  [[nodiscard]] int disc() const { return disc_px_; }

 private:
  std::array<float, 3> weights_{1.0F, 0.0F, 0.0F};
  float offset_ = 0.0F;
  int disc_px_ = 0;
};

}  // namespace fin
