// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/calibration/plane_square.h"

#include <gtest/gtest.h>
#include <Eigen/Geometry>

#include <cmath>
#include <random>

namespace fin {
namespace {

constexpr double kFocal_px = 1100.0;

/// A camera before a plane that is tilted about an upright and a level axis.
struct TiltedPlane {
  double about_deg = 20.0;
  double over_deg = -12.0;
  double distance_mm = 1600.0;

  [[nodiscard]] PixelPoint see(double u_mm, double v_mm) const {
    const Eigen::Matrix3d turn = (Eigen::AngleAxisd(about_deg / kDegreesPerRadian, Eigen::Vector3d::UnitY()) *
                                  Eigen::AngleAxisd(over_deg / kDegreesPerRadian, Eigen::Vector3d::UnitX()))
                                     .toRotationMatrix();
    const Eigen::Vector3d p =
        turn * Eigen::Vector3d(u_mm, v_mm, 0.0) + Eigen::Vector3d(0.0, 0.0, distance_mm);
    return {639.5 + kFocal_px * p.x() / p.z(), 359.5 + kFocal_px * p.y() / p.z()};
  }
  [[nodiscard]] SquareMark square() const {
    return {{see(-150, -100), see(150, -100), see(150, 100), see(-150, 100)},
            Millimetres(300.0),
            Millimetres(200.0)};
  }
};

TEST(PlaneSquare, MeasuresInATiltedPlaneAsIfSeenSquare) {
  const TiltedPlane plane;
  const auto square = PlaneSquare::create(plane.square());
  ASSERT_TRUE(square) << square.error().message;
  const auto distance = [&](double u1, double v1, double u2, double v2) {
    const PixelPoint a = square->flattened(plane.see(u1, v1));
    const PixelPoint b = square->flattened(plane.see(u2, v2));
    return length(b - a).value() * square->mmPerPixel();
  };
  EXPECT_NEAR(distance(0, 0, 120, 0), 120.0, 1e-6);
  EXPECT_NEAR(distance(0, 0, 0, 90), 90.0, 1e-6);
  EXPECT_NEAR(distance(-400, 150, 350, -180), std::hypot(750, 330), 1e-5);  // far outside the tile
  // One scale for the whole picture would be wrong by several percent.
  const double plain = length(plane.see(300, 0) - plane.see(400, 0)).value() * square->mmPerPixel();
  EXPECT_GT(std::abs(plain / 100.0 - 1.0), 0.04);
}

TEST(PlaneSquare, TellsTheTiltAndThatTheCornersFit) {
  const TiltedPlane plane;
  const double facing = std::cos(20.0 / kDegreesPerRadian) * std::cos(12.0 / kDegreesPerRadian);
  const auto check = checkSquare(plane.square(), std::nullopt, 1280, 720);
  ASSERT_TRUE(check) << check.error().message;
  EXPECT_NEAR(check->tilt_deg, std::acos(facing) * kDegreesPerRadian, 0.2);
  EXPECT_LT(check->residual.value(), 0.05);
  const auto withLens = checkSquare(plane.square(), Lens{kFocal_px, kFocal_px, 639.5, 359.5, {}}, 1280, 720);
  ASSERT_TRUE(withLens);
  EXPECT_NEAR(withLens->tilt_deg, check->tilt_deg, 0.1);
  // A corner set down wrongly shows in the residual once the lens is known.
  SquareMark slipped = plane.square();
  slipped.corners[2].x_px += 15.0;
  const auto bad = checkSquare(slipped, Lens{kFocal_px, kFocal_px, 639.5, 359.5, {}}, 1280, 720);
  ASSERT_TRUE(bad);
  EXPECT_GT(bad->residual.value(), 1.5);
}

TEST(PlaneSquare, CoversTheTrueScaleWhenCornersAreOff) {
  const TiltedPlane plane;
  const auto truth = PlaneSquare::create(plane.square());
  std::mt19937 random(3);
  std::normal_distribution<double> off(0.0, 0.5);  // kEndPlacingU95 is 1 px
  int inside = 0;
  constexpr int kTries = 200;
  for (int i = 0; i < kTries; ++i) {
    SquareMark mark = plane.square();
    for (PixelPoint& c : mark.corners) c = c + PixelPoint{off(random), off(random)};
    const auto square = PlaneSquare::create(mark);
    ASSERT_TRUE(square);
    if (std::abs(square->mmPerPixel() / truth->mmPerPixel() - 1.0) < square->relativeU95()) ++inside;
  }
  // 95 % of 200 within four standard deviations.
  EXPECT_GT(inside, 177);
  EXPECT_LT(inside, 200);
}

TEST(PlaneSquare, RefusesCornersThatMakeNone) {
  SquareMark line{{PixelPoint{0, 0}, {100, 0}, {200, 1}, {100, 80}}, Millimetres(100.0), Millimetres(100.0)};
  ASSERT_FALSE(PlaneSquare::create(line));
  EXPECT_NE(PlaneSquare::create(line).error().message.find("in a line"), std::string::npos);
  SquareMark crossed{
      {PixelPoint{0, 0}, {100, 100}, {100, 0}, {0, 100}}, Millimetres(100.0), Millimetres(100.0)};
  ASSERT_FALSE(PlaneSquare::create(crossed));
  EXPECT_NE(PlaneSquare::create(crossed).error().message.find("go round"), std::string::npos);
  SquareMark flat{{PixelPoint{0, 0}, {100, 0}, {100, 80}, {0, 80}}, Millimetres(0.0), Millimetres(100.0)};
  EXPECT_FALSE(PlaneSquare::create(flat));
}

}  // namespace
}  // namespace fin
