// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <Eigen/Core>

#include "core/readings/reading.h"
#include "core/units/points.h"

namespace fin {

/// A pinhole camera that looks square at the middle of the lure's plane. Side: from the lure's right (or its
/// left), top: from above, head-on: from ahead. Behind a flat window every ray is bent by Snell's law (glass
/// 1.50, fresh water 1.333), at any angle.
class RehearsalCamera {
 public:
  struct Setup {
    View view = View::Side;
    bool fromLeft = false;  ///< side view only: the pull then runs to the left of the picture
    int width_px = 1280;
    int height_px = 720;
    double focal_px = 1200.0;
    double distance_mm = 1500.0;  ///< eye to the lure's plane, all in all
    double air_mm = 0.0;          ///< of it before the window; 0 for a camera in the water
    double glass_mm = 0.0;
  };
  explicit RehearsalCamera(const Setup& setup);

  [[nodiscard]] PixelPoint project(const Eigen::Vector3d& tank_mm) const;
  /// What a place in the picture sees in the water: from `from` onwards, `along` not of unit length.
  struct Sight {
    Eigen::Vector3d from;
    Eigen::Vector3d along;
  };
  [[nodiscard]] Sight sight(double x_px, double y_px) const;
  [[nodiscard]] const Eigen::Vector3d& right() const { return right_; }
  [[nodiscard]] const Eigen::Vector3d& up() const { return up_; }
  /// Towards the camera.
  [[nodiscard]] const Eigen::Vector3d& back() const { return back_; }
  [[nodiscard]] const Eigen::Vector3d& eye() const { return eye_; }
  /// At the middle of the lure's plane.
  [[nodiscard]] double pixelsPerMillimetre() const;
  [[nodiscard]] const Setup& setup() const { return setup_; }

 private:
  /// How far from the axis a ray of this slope in air comes, at a depth before the eye.
  [[nodiscard]] double reach_mm(double slope, double depth_mm) const;
  [[nodiscard]] bool throughWindow() const { return setup_.air_mm > 0.0; }

  Setup setup_;
  Eigen::Vector3d right_;
  Eigen::Vector3d up_;
  Eigen::Vector3d back_;  ///< towards the camera
  Eigen::Vector3d eye_;
};

}  // namespace fin
