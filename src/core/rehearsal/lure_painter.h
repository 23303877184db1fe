// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <opencv2/core/mat.hpp>
#include <optional>

#include "core/rehearsal/camera.h"
#include "core/rehearsal/shaped_lure.h"

namespace fin {

/// Draws a shaped lure as a camera sees it. Model: light from above that ripples gather, a little from all
/// sides and from the camera; glints by Blinn and Phong; the water takes some of the colour. No shadows.
/// Places are exact: every corner goes through the camera, 2 × 2 samples a pixel decide what covers it.
class LurePainter {
 public:
  LurePainter(const LureBuild& build, const RehearsalCamera& camera) : lure_(build), camera_(camera) {}

  struct Light {
    double time_s = 0.0;
    double caustics = 0.0;  ///< share of the light in bright lines
  };
  /// A lure as it is seen: its corners in the picture, its outline's box.
  struct Seen {
    struct Corner {
      PixelPoint at;
      double depth_mm;
      Eigen::Vector3d place_mm;
    };
    std::vector<std::vector<Corner>> parts;
    std::vector<Eigen::Matrix3d> turns;  ///< body directions → tank, of each part
    cv::Rect box;                        ///< within the picture
  };
  /// `mirror_mm`: as a level surface at this height shows it, turned over.
  [[nodiscard]] Seen seen(const BodyPose& pose, std::optional<double> mirror_mm = {}) const;
  /// Adds red, green, blue and the share covered (CV_32FC4), each times `share`; `sum` begins at `corner` of
  /// the picture and holds the whole box.
  void add(cv::Mat& sum, const cv::Point& corner, const Seen& seen, const Light& light, double share) const;

 private:
  ShapedLure lure_;
  RehearsalCamera camera_;
};

}  // namespace fin
