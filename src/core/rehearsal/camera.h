// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <Eigen/Core>

#include "core/readings/reading.h"
#include "core/units/points.h"

namespace fin {

/// A pinhole camera that looks square at the middle of the lure's plane. Side: from the lure's right (or its
/// left), top: from above, head-on: from ahead.
class RehearsalCamera {
 public:
  struct Setup {
    View view = View::Side;
    bool fromLeft = false;  ///< side view only: the pull then runs to the left of the picture
    int width_px = 1280;
    int height_px = 720;
    double focal_px = 1200.0;
    double distance_mm = 1500.0;
  };
  explicit RehearsalCamera(const Setup& setup);

  [[nodiscard]] PixelPoint project(const Eigen::Vector3d& tank_mm) const;
  [[nodiscard]] const Eigen::Vector3d& eye() const { return eye_; }
  [[nodiscard]] const Eigen::Vector3d& right() const { return right_; }
  [[nodiscard]] const Eigen::Vector3d& up() const { return up_; }
  /// Direction of the ray through a place in the picture; not of unit length.
  [[nodiscard]] Eigen::Vector3d ray(double x_px, double y_px) const;
  [[nodiscard]] double pixelsPerMillimetre() const { return setup_.focal_px / setup_.distance_mm; }
  [[nodiscard]] const Setup& setup() const { return setup_; }

 private:
  Setup setup_;
  Eigen::Vector3d right_;
  Eigen::Vector3d up_;
  Eigen::Vector3d back_;  ///< towards the camera
  Eigen::Vector3d eye_;
};

}  // namespace fin
