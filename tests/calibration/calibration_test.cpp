// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include <cmath>

#include "core/calibration/clip_clock.h"
#include "core/calibration/lens.h"
#include "core/calibration/refraction.h"
#include "core/calibration/scale.h"
#include "core/calibration/tank_frame.h"

namespace fin {
namespace {

ClipIndex evenIndex(double rate_Hz, std::int64_t frames) {
  std::vector<ClipIndex::Packet> packets;
  for (std::int64_t i = 0; i < frames; ++i) packets.push_back({i, i, i == 0, false});
  return {std::move(packets), 1.0 / rate_Hz};
}

TEST(Scale, IsLengthOverDistance) {
  const auto scale =
      Scale::create({{100.0, 200.0}, {400.0, 600.0}, Millimetres(250.0), Millimetres(1.0)}, {});
  ASSERT_TRUE(scale);
  EXPECT_DOUBLE_EQ(scale->mmPerPixel(), 0.5);
  EXPECT_NEAR(scale->relativeU95(), std::hypot(std::sqrt(2.0) / 500.0, 1.0 / 250.0, 0.005), 1e-12);
}

TEST(Scale, GrowsWithTheDistanceOfTheLuresPlane) {
  const auto scale = Scale::create({{0.0, 0.0}, {100.0, 0.0}, Millimetres(100.0)},
                                   ScalePlane{Millimetres(1500.0), Millimetres(1620.0)});
  ASSERT_TRUE(scale);
  EXPECT_DOUBLE_EQ(scale->mmPerPixel(), 1.08);
  EXPECT_NEAR(scale->relativeU95(), std::hypot(std::sqrt(2.0) / 100.0, 5.0 / 1500.0, 5.0 / 1620.0), 1e-12);
}

TEST(Scale, RefusesWhatCannotBeMeant) {
  const PixelPoint at{10.0, 10.0};
  EXPECT_EQ(Scale::create({at, at, Millimetres(100.0)}, {}).error().where, "scale");
  EXPECT_EQ(Scale::create({at, {90.0, 10.0}, Millimetres(0.0)}, {}).error().where, "scale.length_mm");
  EXPECT_FALSE(Scale::create({at, {90.0, 10.0}, Millimetres(std::nan(""))}, {}));
  EXPECT_FALSE(
      Scale::create({at, {90.0, 10.0}, Millimetres(5.0)}, ScalePlane{Millimetres(0.0), Millimetres(9.0)}));
}

TEST(Refraction, BringsThingsInWaterNearer) {
  const SightPath lure{Millimetres(300.0), Millimetres(12.0), Millimetres(800.0)};
  EXPECT_NEAR(apparentDistance(lure, GramsPerKilogram(0.0))->value(), 300.0 + 8.0 + 800.0 / 1.333, 1e-9);
  EXPECT_NEAR(apparentDistance(lure, GramsPerKilogram(35.0))->value(), 308.0 + 800.0 / 1.340, 1e-9);
  EXPECT_FALSE(apparentDistance({}, GramsPerKilogram(0.0)));
  EXPECT_FALSE(
      apparentDistance({Millimetres(-1.0), Millimetres(0.0), Millimetres(9.0)}, GramsPerKilogram(0.0)));
  // A ruler dry on the window, the lure 800 mm behind it: taken for one plane, lengths are wrong by two
  // thirds.
  const SightPath dry{Millimetres(300.0), Millimetres(0.0), Millimetres(0.0)};
  const ScalePlane plane{*apparentDistance(dry, GramsPerKilogram(0.0)),
                         *apparentDistance(lure, GramsPerKilogram(0.0))};
  const ScaleMark ruler{{0.0, 0.0}, {100.0, 0.0}, Millimetres(100.0)};
  EXPECT_NEAR(Scale::create(ruler, plane)->mmPerPixel(), (308.0 + 800.0 / 1.333) / 300.0, 1e-9);
}

/// How far off the axis a ray comes out that leaves the camera at an angle and is bent at each surface by
/// Snell's law, over the tangent of that angle: the exact distance that the small-angle formula stands for.
double exactDistance(const SightPath& path, double indexOfWater, double angle_rad) {
  const double sine = std::sin(angle_rad);
  const auto aside = [&](Millimetres thick, double index) {
    return thick.value() * std::tan(std::asin(sine / index));
  };
  return (aside(path.air, 1.0) + aside(path.glass, 1.50) + aside(path.water, indexOfWater)) /
         std::tan(angle_rad);
}

TEST(Refraction, IsSnellsLawForSmallAnglesAndALittleLessForWideOnes) {
  for (const SightPath& path : {SightPath{Millimetres(300.0), Millimetres(12.0), Millimetres(800.0)},
                                {Millimetres(50.0), Millimetres(6.0), Millimetres(2500.0)},
                                {Millimetres(0.0), Millimetres(0.0), Millimetres(1500.0)}}) {
    const double formula = apparentDistance(path, GramsPerKilogram(0.0))->value();
    EXPECT_NEAR(exactDistance(path, 1.333, 0.001), formula, 1e-3 * formula);
    // At 20 degrees off the axis the true ray reaches less far: that is what a lens fit in the water is for.
    const double wide = exactDistance(path, 1.333, 20.0 / kDegreesPerRadian);
    EXPECT_LT(wide, formula);
    EXPECT_GT(wide, 0.96 * formula);
  }
}

TEST(ClipClock, FindsTheRateFromTwoFramesAndTheTimeBetween) {
  const ClipIndex index = evenIndex(30.0, 301);
  // 240 frames played in 8 s took one true second.
  EXPECT_NEAR(rateFromInterval(index, 30, 270, Seconds(1.0))->value(), 240.0, 1e-9);
  EXPECT_FALSE(rateFromInterval(index, 30, 30, Seconds(1.0)));
  EXPECT_FALSE(rateFromInterval(index, 30, 90, Seconds(0.0)));
  EXPECT_FALSE(rateFromInterval(index, 30, 9000, Seconds(1.0)));
}

TEST(Lens, StraightensWhatItBent) {
  const Lens lens{900.0, 905.0, 640.0, 360.0, {-0.2, 0.05, 0.001, -0.0008, 0.01}};
  for (const PixelPoint p : {PixelPoint{20.0, 30.0}, {640.0, 360.0}, {1200.0, 90.0}}) {
    const PixelPoint back = lens.straightened(lens.distorted(p));
    EXPECT_NEAR(back.x_px, p.x_px, 0.01);
    EXPECT_NEAR(back.y_px, p.y_px, 0.01);
  }
  // One radius worked out by hand: r = 0.5, k1 = −0.2 → 0.5 · (1 − 0.2 · 0.25) = 0.475.
  const Lens barrel{1000.0, 1000.0, 0.0, 0.0, {-0.2}};
  EXPECT_NEAR(barrel.distorted({500.0, 0.0}).x_px, 475.0, 1e-9);
}

TEST(TankFrame, PutsUpAgainstGravityWhicheverWayThePlumbIsDrawn) {
  for (const PixelLine line : {PixelLine{{640.0, 20.0}, {655.0, 700.0}}, {{655.0, 700.0}, {640.0, 20.0}}}) {
    const PixelPoint up = upFromPlumb(line);
    EXPECT_LT(up.y_px, 0.0);
    EXPECT_NEAR(up.x_px / up.y_px, 15.0 / 680.0, 1e-12);
  }
}

TEST(ClipClock, BringsSlowMotionBackToTrueTime) {
  const ClipIndex index = evenIndex(30.0, 301);
  const auto clock = ClipClock::create(index, Hertz(240.0));
  ASSERT_TRUE(clock);
  EXPECT_NEAR(clock->timeOf(240).value(), 1.0, 1e-9);
  EXPECT_NEAR(clock->rate().value(), 240.0, 1e-6);
  EXPECT_EQ(clock->basis(), "capture_rate");
  EXPECT_NEAR(ClipClock::create(index, {})->timeOf(300).value(), 10.0, 1e-9);
  EXPECT_FALSE(ClipClock::create(index, Hertz(-1.0)));
}

}  // namespace
}  // namespace fin
