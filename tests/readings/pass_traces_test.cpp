// SPDX-License-Identifier: GPL-3.0-or-later
// Where a track of known places comes to lie in the lure's plane.
#include "core/readings/pass_traces.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

namespace fin {
namespace {

constexpr double kFrames_Hz = 100.0;

/// A body of 80 px whose middle goes along `path`, its nose ahead at an angle (degrees, clockwise on the
/// screen); the tip hangs 20 px behind the tail at `bend` against the body.
struct Body {
  PixelPoint from;
  PixelPoint perFrame;
  double angle_deg = 0.0;
  std::optional<double> bend_deg;
};

struct Made {
  Track track;
  std::vector<double> time_s;
};

Made made(const Body& body, std::size_t frames = 41) {
  Made out;
  out.track.frameCount = frames;
  out.track.marks = {{MarkName::Nose, {}}, {MarkName::Tail, {}}};
  if (body.bend_deg) out.track.marks.push_back({MarkName::Tip, {}});
  const auto direction = [](double deg) {
    const double rad = deg / kDegreesPerRadian;
    return PixelPoint{std::cos(rad), std::sin(rad)};
  };
  for (std::size_t i = 0; i < frames; ++i) {
    const PixelPoint middle = body.from + body.perFrame * static_cast<double>(i);
    const PixelPoint axis = direction(body.angle_deg);
    out.track.marks[0].samples.push_back({true, middle + axis * 40.0, 1.0});
    out.track.marks[1].samples.push_back({true, middle - axis * 40.0, 1.0});
    if (body.bend_deg)
      out.track.marks[2].samples.push_back(
          {true, middle - axis * 40.0 - direction(body.angle_deg + *body.bend_deg) * 20.0, 1.0});
    out.time_s.push_back(static_cast<double>(i) / kFrames_Hz);
  }
  return out;
}

Geometry geometry(View view, std::optional<double> mmPerPixel = 0.5) {
  Geometry out;
  out.view = view;
  if (mmPerPixel)
    out.scale = *Scale::create({{0, 0}, {200, 0}, Millimetres(200.0 * *mmPerPixel), Millimetres(0.2)}, {});
  return out;
}

double speedOf(const Series& s) {
  return (s.y.back() - s.y.front()) / s.span_s();
}

TEST(PassTraces, GoForwardsWhicheverWayTheLureIsPulled) {
  for (const PixelPoint step : {PixelPoint{4, 0}, {-4, 0}}) {
    const Made m = made({{400, 300}, step, step.x_px > 0.0 ? 0.0 : 180.0});
    const PassTraces t = traceBody(m.track, m.time_s, geometry(View::Side));
    EXPECT_NEAR(speedOf(t.alongCentre), 4.0 * kFrames_Hz * 0.5, 1e-9) << "mm/s along its own pull";
    EXPECT_NEAR(speedOf(t.upCentre), 0.0, 1e-9);
    EXPECT_NEAR(t.bodyAlong.y.front(), 40.0, 1e-9) << "the nose leads";
    EXPECT_NEAR(t.axis.y.front(), 0.0, 1e-9);
    EXPECT_NEAR(t.bodyLength, 40.0, 1e-9);
    EXPECT_NEAR(t.frameRate_Hz, kFrames_Hz, 1e-6);
  }
}

TEST(PassTraces, AreWhatTheTesterSaysWhereTheLureBacksAway) {
  const Made m = made({{400, 300}, {4, 0}, 180.0});
  Geometry g = geometry(View::Side);
  g.pull = Pull::Left;
  EXPECT_NEAR(speedOf(traceBody(m.track, m.time_s, g).alongCentre), -200.0, 1e-9);
}

TEST(PassTraces, HaveUpAgainstGravityAlsoWhereTheCameraLeans) {
  // The camera leans by 5°: what falls goes along the plumb line.
  const double lean = 5.0 / kDegreesPerRadian;
  const PixelPoint down{-std::sin(lean), std::cos(lean)};
  const Made m = made({{600, 100}, down * 3.0, 0.0});
  Geometry g = geometry(View::Side);
  EXPECT_GT(std::abs(speedOf(traceBody(m.track, m.time_s, g).alongCentre)), 10.0) << "without a plumb line";
  g.plumb = PixelLine{{640, 20}, PixelPoint{640, 20} + down * 600.0};
  const PassTraces t = traceBody(m.track, m.time_s, g);
  EXPECT_NEAR(speedOf(t.upCentre), -150.0, 1e-9);
  EXPECT_NEAR(speedOf(t.alongCentre), 0.0, 1e-9);
  EXPECT_NEAR(std::abs(t.axis.y.front()), 5.0, 1e-9) << "the body lies askew to the level";
}

TEST(PassTraces, LieAlongThePathItselfSeenFromAbove) {
  const double turn = 12.0 / kDegreesPerRadian;
  const Made m = made({{200, 300}, PixelPoint{std::cos(turn), std::sin(turn)} * 5.0, 12.0 + 7.0});
  const PassTraces t = traceBody(m.track, m.time_s, geometry(View::Top));
  EXPECT_NEAR(speedOf(t.alongCentre), 250.0, 1e-9);
  EXPECT_NEAR(speedOf(t.upCentre), 0.0, 1e-9);
  EXPECT_NEAR(std::abs(t.axis.y.front()), 7.0, 1e-9) << "yaw is against the path";
}

TEST(PassTraces, TellTheKickAgainstTheBodyAndNotAgainstThePicture) {
  for (const double angle : {0.0, 25.0, -40.0}) {
    const Made m = made({{300, 300}, {4, 0}, angle, 15.0});
    const PassTraces t = traceBody(m.track, m.time_s, geometry(View::Side));
    ASSERT_EQ(t.kick.size(), m.track.frameCount);
    EXPECT_NEAR(std::abs(t.kick.y.front()), 15.0, 1e-9) << angle;
    EXPECT_NEAR(t.tipLength, 10.0, 1e-9);
  }
}

TEST(PassTraces, MeasureTheDepthStraightUnderTheWaterline) {
  const Made m = made({{300, 300}, {4, 0}, 0.0});
  Geometry g = geometry(View::Side);
  g.waterline = PixelLine{{0, 100}, {1000, 120}};
  const PassTraces t = traceBody(m.track, m.time_s, g);
  ASSERT_EQ(t.depth.size(), m.track.frameCount);
  EXPECT_NEAR(t.depth.y.front(), 0.5 * (300.0 - 106.0), 1e-9) << "at 300 px the line has come down by 6";
  EXPECT_NEAR(t.depth.y.back(), 0.5 * (300.0 - 109.2), 1e-9);
}

TEST(PassTraces, TakeTheCamerasOwnWayOutOfTheChase) {
  Made m = made({{400, 300}, {0.5, 0}, 0.0});
  for (std::size_t i = 0; i < m.track.frameCount; ++i)
    m.track.background.push_back({true, {-3.5 * static_cast<double>(i), 0.0}, 1.0});
  Geometry g = geometry(View::Chase);
  const PassTraces t = traceBody(m.track, m.time_s, g);
  EXPECT_TRUE(t.movingCamera);
  EXPECT_TRUE(t.againstTank);
  EXPECT_NEAR(speedOf(t.alongCentre), 200.0, 1e-9) << "its own half pixel and the camera's three and a half";
  for (std::size_t i = 0; i < m.track.frameCount; ++i) m.track.background[i].seen = i < 5;
  EXPECT_FALSE(traceBody(m.track, m.time_s, g).againstTank) << "seen too seldom";
  m.track.background.clear();
  EXPECT_FALSE(traceBody(m.track, m.time_s, g).againstTank);
}

TEST(PassTraces, AreInPixelsWithoutAScaleAndEmptyWithoutBothEnds) {
  Made m = made({{300, 300}, {4, 0}, 0.0});
  const PassTraces t = traceBody(m.track, m.time_s, geometry(View::Side, std::nullopt));
  EXPECT_FALSE(t.inMillimetres);
  EXPECT_NEAR(speedOf(t.alongCentre), 400.0, 1e-9);
  EXPECT_NEAR(t.bodyLength, 80.0, 1e-9);
  for (std::size_t i = 0; i < 10; ++i) m.track.marks[0].samples[i].seen = false;
  EXPECT_EQ(traceBody(m.track, m.time_s, geometry(View::Side)).frames(), 31U);
  m.track.marks.pop_back();
  EXPECT_EQ(traceBody(m.track, m.time_s, geometry(View::Side)).frames(), 0U);
}

TEST(MarkPlaceU95, GrowsWithTheBodyAndIsHalfAPixelForASmallOne) {
  EXPECT_NEAR(markPlaceU95(Pixels(50.0)).value(), 0.57, 0.01);
  EXPECT_NEAR(markPlaceU95(Pixels(300.0)).value(), 0.98, 0.01);
  const Made m = made({{300, 300}, {4, 0}, 0.0});
  const PassTraces t = traceBody(m.track, m.time_s, geometry(View::Side));
  EXPECT_NEAR(placeDifferenceU95(t), std::numbers::sqrt2 * 0.5 * markPlaceU95(Pixels(80.0)).value(), 1e-12);
}

}  // namespace
}  // namespace fin
