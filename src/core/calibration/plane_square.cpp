// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/calibration/plane_square.h"

#include <Eigen/Core>
#include <Eigen/Geometry>
#include <Eigen/LU>
#include <algorithm>
#include <cmath>
#include <opencv2/calib3d.hpp>

#include "core/calibration/scale.h"

namespace fin {
namespace {

using Corners = std::array<PixelPoint, 4>;

constexpr double kLeastBreadth_px = 4.0;  ///< a corner this near to the line of its neighbours is on it

double cross(PixelPoint a, PixelPoint b) {
  return a.x_px * b.y_px - a.y_px * b.x_px;
}

tl::unexpected<Error> wrong(const char* why) {
  return failure(ErrorCode::BadRequest, std::string("square: ") + why, "square");
}

Result<void> checkCorners(const Corners& c) {
  int turnsRight = 0;
  for (std::size_t i = 0; i < 4; ++i) {
    const PixelPoint before = c[i] - c[(i + 3) % 4];
    const PixelPoint after = c[(i + 1) % 4] - c[i];
    const PixelPoint chord = c[(i + 1) % 4] - c[(i + 3) % 4];
    const double turn = cross(before, after);
    if (!(std::abs(turn) > kLeastBreadth_px * length(chord).value())) {
      return wrong("three of its corners lie in a line; press on the four corners of a tile");
    }
    turnsRight += turn > 0.0 ? 1 : 0;
  }
  if (turnsRight % 4 != 0) return wrong("its corners do not go round; press on them one after the other");
  return {};
}

/// The homography that takes four points to the corners of a rectangle.
Eigen::Matrix3d homography(const Corners& from, double width, double height) {
  const std::array<Eigen::Vector2d, 4> to{
      Eigen::Vector2d{0.0, 0.0}, {width, 0.0}, {width, height}, {0.0, height}};
  Eigen::Matrix<double, 8, 8> a;
  Eigen::Matrix<double, 8, 1> b;
  for (int i = 0; i < 4; ++i) {
    const auto& p = from[static_cast<std::size_t>(i)];
    const auto& q = to[static_cast<std::size_t>(i)];
    a.row(2 * i) << p.x_px, p.y_px, 1.0, 0.0, 0.0, 0.0, -q.x() * p.x_px, -q.x() * p.y_px;
    a.row(2 * i + 1) << 0.0, 0.0, 0.0, p.x_px, p.y_px, 1.0, -q.y() * p.x_px, -q.y() * p.y_px;
    b.segment<2>(2 * i) = q;
  }
  const Eigen::Matrix<double, 8, 1> h = a.fullPivLu().solve(b);
  Eigen::Matrix3d out;
  out << h(0), h(1), h(2), h(3), h(4), h(5), h(6), h(7), 1.0;
  return out;
}

Eigen::Vector2d mapped(const Eigen::Matrix3d& h, PixelPoint p) {
  return (h * Eigen::Vector3d(p.x_px, p.y_px, 1.0)).hnormalized();
}

/// Where the diagonals cross: the rectangle's middle, whatever the perspective.
PixelPoint middleOf(const Corners& c) {
  const PixelPoint d = c[2] - c[0];
  const PixelPoint e = c[3] - c[1];
  return c[0] + d * (cross(c[1] - c[0], e) / cross(d, e));
}

/// Square root of the area of the plane that a pixel at a place covers.
double pixelSize(const Eigen::Matrix3d& h, PixelPoint at) {
  constexpr double kStep_px = 0.5;
  const Eigen::Vector2d dx =
      mapped(h, at + PixelPoint{kStep_px, 0.0}) - mapped(h, at - PixelPoint{kStep_px, 0.0});
  const Eigen::Vector2d dy =
      mapped(h, at + PixelPoint{0.0, kStep_px}) - mapped(h, at - PixelPoint{0.0, kStep_px});
  return std::sqrt(std::abs(dx.x() * dy.y() - dx.y() * dy.x()));
}

}  // namespace

Result<PlaneSquare> PlaneSquare::create(const SquareMark& mark) {
  const double width = mark.width.value();
  const double height = mark.height.value();
  if (!(std::isfinite(width) && std::isfinite(height) && width > 0.0 && height > 0.0)) {
    return wrong("its sides must be more than zero");
  }
  if (!(mark.sideU95.value() >= 0.0)) return wrong("side_u95_mm must not be negative");
  if (auto ok = checkCorners(mark.corners); !ok) return tl::unexpected(ok.error());
  PlaneSquare out;
  const Eigen::Matrix3d toPlane = homography(mark.corners, width, height);
  std::copy_n(toPlane.data(), out.toPlane_.size(), out.toPlane_.begin());
  out.centre_ = middleOf(mark.corners);
  out.mm_per_px_ = pixelSize(toPlane, out.centre_);
  double ends = 0.0;
  for (std::size_t i = 0; i < 4; ++i) {
    for (const PixelPoint off : {PixelPoint{kEndPlacingU95.value(), 0.0}, {0.0, kEndPlacingU95.value()}}) {
      Corners moved = mark.corners;
      moved[i] = moved[i] + off;
      const double other = pixelSize(homography(moved, width, height), out.centre_);
      ends += std::pow(other / out.mm_per_px_ - 1.0, 2);
    }
  }
  const double sides = 0.5 * std::hypot(mark.sideU95.value() / width, mark.sideU95.value() / height);
  out.relative_u95_ = std::hypot(std::sqrt(ends), sides);
  return out;
}

PixelPoint PlaneSquare::flattened(PixelPoint straight) const {
  const Eigen::Matrix3d toPlane = Eigen::Map<const Eigen::Matrix3d>(toPlane_.data());
  const Eigen::Vector2d off = (mapped(toPlane, straight) - mapped(toPlane, centre_)) / mm_per_px_;
  return centre_ + PixelPoint{off.x(), off.y()};
}

Result<SquareCheck> checkSquare(const SquareMark& mark, const std::optional<Lens>& lens, int width_px,
                                int height_px) {
  std::vector<std::vector<cv::Point3f>> plane(1);
  std::vector<std::vector<cv::Point2f>> seen(1);
  const auto w = static_cast<float>(mark.width.value());
  const auto h = static_cast<float>(mark.height.value());
  for (const cv::Point3f& p : {cv::Point3f(0, 0, 0), {w, 0, 0}, {w, h, 0}, {0, h, 0}})
    plane.front().push_back(p);
  for (const PixelPoint c : mark.corners) {
    const PixelPoint p = lens ? lens->straightened(c) : c;
    seen.front().emplace_back(static_cast<float>(p.x_px), static_cast<float>(p.y_px));
  }
  const double usualFocal = 1.2 * width_px;
  cv::Mat camera =
      (cv::Mat_<double>(3, 3) << (lens ? lens->fx : usualFocal), 0, (lens ? lens->cx : 0.5 * (width_px - 1)),
       0, (lens ? lens->fy : usualFocal), (lens ? lens->cy : 0.5 * (height_px - 1)), 0, 0, 1);
  cv::Mat none = cv::Mat::zeros(5, 1, CV_64F);
  std::vector<cv::Mat> turns;
  std::vector<cv::Mat> shifts;
  int fixed = cv::CALIB_USE_INTRINSIC_GUESS | cv::CALIB_FIX_PRINCIPAL_POINT | cv::CALIB_FIX_ASPECT_RATIO |
              cv::CALIB_ZERO_TANGENT_DIST | cv::CALIB_FIX_K1 | cv::CALIB_FIX_K2 | cv::CALIB_FIX_K3;
  if (lens) fixed |= cv::CALIB_FIX_FOCAL_LENGTH;
  try {
    const double rms =
        cv::calibrateCamera(plane, seen, cv::Size(width_px, height_px), camera, none, turns, shifts, fixed);
    cv::Mat turn;
    cv::Rodrigues(turns.front(), turn);
    const double facing = std::min(1.0, std::abs(turn.at<double>(2, 2)));
    return SquareCheck{std::acos(facing) * kDegreesPerRadian, Pixels(rms)};
  } catch (const cv::Exception&) {
    return wrong("no camera sees a rectangle like this; press on its corners again");
  }
}

}  // namespace fin
