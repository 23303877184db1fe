// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/camera.h"

#include <Eigen/Geometry>

namespace fin {

using Eigen::Vector3d;

RehearsalCamera::RehearsalCamera(const Setup& setup) : setup_(setup) {
  switch (setup.view) {
    case View::Top:
      right_ = Vector3d::UnitX();
      up_ = -Vector3d::UnitZ();
      break;
    case View::HeadOn:
      right_ = -Vector3d::UnitZ();
      up_ = Vector3d::UnitY();
      break;
    case View::Side:
    case View::Chase:
      right_ = setup.fromLeft ? Vector3d(-Vector3d::UnitX()) : Vector3d(Vector3d::UnitX());
      up_ = Vector3d::UnitY();
      break;
  }
  back_ = right_.cross(up_);
  eye_ = back_ * setup.distance_mm;
}

PixelPoint RehearsalCamera::project(const Vector3d& tank_mm) const {
  const Vector3d d = tank_mm - eye_;
  const double depth = -d.dot(back_);
  return {0.5 * (setup_.width_px - 1) + setup_.focal_px * d.dot(right_) / depth,
          0.5 * (setup_.height_px - 1) - setup_.focal_px * d.dot(up_) / depth};
}

Vector3d RehearsalCamera::ray(double x_px, double y_px) const {
  const double x = (x_px - 0.5 * (setup_.width_px - 1)) / setup_.focal_px;
  const double y = (0.5 * (setup_.height_px - 1) - y_px) / setup_.focal_px;
  return right_ * x + up_ * y - back_;
}

}  // namespace fin
