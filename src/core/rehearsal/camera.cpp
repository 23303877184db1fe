// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/camera.h"

#include <Eigen/Geometry>
#include <cmath>

namespace fin {

using Eigen::Vector3d;

constexpr double kGlass = 1.50;
constexpr double kWater = 1.333;
constexpr int kSteps = 30;

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

double RehearsalCamera::reach_mm(double slope, double depth_mm) const {
  const double sine = slope / std::hypot(1.0, slope);
  const auto slopeIn = [sine](double index) { return sine / std::sqrt(index * index - sine * sine); };
  const double water_mm = depth_mm - setup_.air_mm - setup_.glass_mm;
  return setup_.air_mm * slope + setup_.glass_mm * slopeIn(kGlass) + water_mm * slopeIn(kWater);
}

PixelPoint RehearsalCamera::project(const Vector3d& tank_mm) const {
  const Vector3d d = tank_mm - eye_;
  const double depth = -d.dot(back_);
  const double aside = std::hypot(d.dot(right_), d.dot(up_));
  double slope = aside / depth;
  if (throughWindow()) {
    // Reach grows with slope, nearly in proportion.
    for (int i = 0; i < kSteps && aside > 0.0; ++i) slope *= aside / reach_mm(slope, depth);
  }
  const double stretch = aside > 0.0 ? setup_.focal_px * slope / aside : setup_.focal_px / depth;
  return {0.5 * (setup_.width_px - 1) + stretch * d.dot(right_),
          0.5 * (setup_.height_px - 1) - stretch * d.dot(up_)};
}

RehearsalCamera::Sight RehearsalCamera::sight(double x_px, double y_px) const {
  const double x = (x_px - 0.5 * (setup_.width_px - 1)) / setup_.focal_px;
  const double y = (0.5 * (setup_.height_px - 1) - y_px) / setup_.focal_px;
  const Vector3d aside = right_ * x + up_ * y;
  const double slope = aside.norm();
  if (!throughWindow() || slope == 0.0) return {eye_, aside - back_};
  const double window_mm = setup_.air_mm + setup_.glass_mm;
  const double atWindow = reach_mm(slope, window_mm);
  const double inWater = reach_mm(slope, window_mm + 1.0) - atWindow;
  return {eye_ - back_ * window_mm + aside * (atWindow / slope), aside * (inWater / slope) - back_};
}

double RehearsalCamera::pixelsPerMillimetre() const {
  return length(project(right_) - project(Vector3d::Zero())).value();
}

}  // namespace fin
