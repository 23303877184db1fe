// SPDX-License-Identifier: GPL-3.0-or-later
// Lures with all that their kind has: whatever they look like, marks lie where the motion puts them.
#include "core/rehearsal/shaped_lure.h"

#include <gtest/gtest.h>

#include <map>
#include <opencv2/core.hpp>

#include "core/rehearsal/rehearse.h"
#include "core/rehearsal/tank.h"

namespace fin {
namespace {

constexpr double kDegree = 1.0 / kDegreesPerRadian;

RehearsalScene sceneOf(LureShape shape, View view) {
  RehearsalScene scene;
  scene.lure.shape = shape;
  scene.lure.tail_mm = shape == LureShape::PaddleTail || shape == LureShape::CurlTail ? 40.0 : 0.0;
  if (shape == LureShape::Spoon) scene.lure.height_mm = 8.0;
  scene.motion = StraightPull{.speed_mm_s = 200.0, .start_mm = -100.0, .wobble_deg = 24.0, .kick_deg = 30.0};
  scene.camera = {.view = view, .width_px = 640, .height_px = 360, .focal_px = 2400.0};
  scene.length = Seconds(1.0);
  scene.noise_grey = 0.0;
  scene.specks = 0;
  return scene;
}

class EveryShape : public testing::TestWithParam<LureShape> {};

/// Share covered at a place of the picture.
double coveredAt(const RehearsalTank::Painted& painted, PixelPoint at) {
  const cv::Point p(static_cast<int>(std::lround(at.x_px)), static_cast<int>(std::lround(at.y_px)));
  return painted.box.contains(p) ? painted.paint.at<cv::Vec4f>(p - painted.box.tl())[3] : 0.0;
}

TEST_P(EveryShape, IsPaintedWhereItsMarksAre) {
  for (const View view : {View::Top, View::Side}) {
    const RehearsalTank tank(sceneOf(GetParam(), view));
    for (const std::size_t frame : {10U, 40U, 80U}) {
      const auto painted = tank.paintedLure(tank.instantOf(frame));
      for (const MarkName mark : {MarkName::Nose, MarkName::Tail, MarkName::Tip}) {
        if (mark == MarkName::Tip && tank.scene().lure.tail_mm == 0.0) continue;
        // A spoon from the side is a plate on edge: it is less than two pixels high.
        const double least = GetParam() == LureShape::Spoon && view == View::Side ? 0.3 : 0.95;
        // The end of a tail is two pixels thick where it is seen from above.
        EXPECT_GT(coveredAt(painted, tank.markAt(mark, frame)), mark == MarkName::Tip ? 0.7 : least)
            << toString(mark) << " in frame " << frame << " from " << toString(view);
      }
    }
  }
}

/// A ring round the axis has the same middle from every side: the white one's is the nose.
TEST_P(EveryShape, CarriesTheNoseInItsWhiteRing) {
  const RehearsalTank tank(sceneOf(GetParam(), View::Top));
  const auto painted = tank.paintedLure(tank.instantOf(40));
  const PixelPoint nose = tank.markAt(MarkName::Nose, 40);
  double weight = 0.0;
  PixelPoint sum;
  for (int y = 0; y < painted.paint.rows; ++y) {
    for (int x = 0; x < painted.paint.cols; ++x) {
      const auto& p = painted.paint.at<cv::Vec4f>(y, x);
      const PixelPoint at{static_cast<double>(painted.box.x + x), static_cast<double>(painted.box.y + y)};
      // White: blue as strong as red, and bright; within the reach of the ring alone.
      if (p[3] < 0.9F || std::min({p[0], p[1], p[2]}) < 185.0F || length(at - nose).value() > 8.0) continue;
      weight += 1.0;
      sum = sum + at;
    }
  }
  ASSERT_GT(weight, 4.0);
  // The ring is 5 mm wide, 8 px; the body tapers under it, so that its halves are not alike: under a fifth of
  // it.
  EXPECT_LT(length(sum * (1.0 / weight) - nose).value(), 1.5);
}

INSTANTIATE_TEST_SUITE_P(Rehearsal, EveryShape,
                         testing::Values(LureShape::PaddleTail, LureShape::CurlTail, LureShape::Jerkbait,
                                         LureShape::Spoon, LureShape::BladedBait));

TEST(ShapedLure, HasClosedMeshes) {
  LureBuild build{.tail_mm = 30.0, .skirt_mm = 40.0, .lip_mm = 8.0, .shape = LureShape::BladedBait};
  const ShapedLure lure(build);
  for (const ShapedLure::Part& part : lure.parts()) {
    // In a closed surface every edge is walked once each way.
    std::map<std::pair<int, int>, int> edges;
    for (const auto& [a, b, c] : part.mesh.triangles) {
      for (const auto& [from, to] : {std::pair(a, b), {b, c}, {c, a}}) ++edges[{from, to}];
    }
    for (const auto& [edge, times] : edges) {
      ASSERT_EQ(times, 1);
      ASSERT_EQ(edges.count({edge.second, edge.first}), 1U);
    }
  }
}

TEST(Basin, ShowsTheLureOnceMoreInTheSurface) {
  RehearsalScene scene = sceneOf(LureShape::Jerkbait, View::Side);
  scene.motion = StraightPull{.speed_mm_s = 200.0, .start_mm = -100.0, .height_mm = 50.0, .wobble_deg = 0.0};
  scene.basin = BasinLook{.surface_mm = 70.0};
  RehearsalTank with(scene);
  scene.motion = StraightPull{.speed_mm_s = 200.0, .start_mm = -5000.0};  // out of sight
  RehearsalTank without(scene);
  cv::Mat difference;
  cv::absdiff(with.frame(50)->grey(), without.frame(50)->grey(), difference);
  const PixelPoint nose = with.markAt(MarkName::Nose, 50);
  const PixelPoint tail = with.markAt(MarkName::Tail, 50);
  const RehearsalCamera camera(scene.camera);
  const double mirrored = camera.project({0.0, 90.0, 0.0}).y_px;
  const cv::Rect there(static_cast<int>(tail.x_px), static_cast<int>(mirrored) - 8,
                       static_cast<int>(nose.x_px - tail.x_px), 16);
  EXPECT_GT(cv::mean(difference(there))[0], 8.0) << "as far over the surface as the lure is under it";
}

TEST(Basin, GoesByACameraThatSwimsAlong) {
  RehearsalScene scene = sceneOf(LureShape::Jerkbait, View::Chase);
  scene.motion = StraightPull{.speed_mm_s = 0.0, .start_mm = 0.0};
  scene.basin = BasinLook{.caustics = 0.0};
  scene.chase_mm_s = 240.0;
  RehearsalTank tank(scene);
  // A tile of 100 mm at the wall goes by in 100/240 s.
  const double tile_px = 100.0 * 2400.0 / (1500.0 + scene.basin->wallBehind_mm);
  const auto before = tank.frame(0);
  const auto after = tank.frame(50);
  const int gone = static_cast<int>(std::lround(tile_px));
  cv::Mat difference;
  cv::absdiff(before->grey()(cv::Rect(gone, 0, 400, 60)), after->grey()(cv::Rect(0, 0, 400, 60)), difference);
  EXPECT_LT(cv::mean(difference)[0], 2.0) << "the wall, moved by one tile";
}

TEST(PlayedMotion, WalksToEitherSideByTurns) {
  const Jerks walk{.count = 2,
                   .first_s = 0.2,
                   .every_s = 1.0,
                   .start_mm = 0.0,
                   .advance_mm = 100.0,
                   .back_mm = 0.0,
                   .swing_deg = 60.0};
  const PlayedMotion motion(walk);
  const BodyPose one = motion.at(Seconds(1.0));
  EXPECT_NEAR(one.centre_mm.x(), 100.0 * std::cos(30.0 * kDegree), 1e-9);
  EXPECT_NEAR(one.centre_mm.z(), 50.0, 1e-9) << "to the right";
  EXPECT_NEAR(one.yaw_rad, -30.0 * kDegree, 1e-9);
  const BodyPose two = motion.at(Seconds(2.0));
  EXPECT_NEAR(two.centre_mm.z(), 0.0, 1e-9) << "and back";
  EXPECT_NEAR(two.yaw_rad, 30.0 * kDegree, 1e-9);
  EXPECT_EQ(protocolOf(walk), Protocol::Walk);
}

TEST(PlayedMotion, LandsStandsOnItsNoseAndLiesDown) {
  const Stand stand{.lands_s = 0.5,
                    .speed_mm_s = 100.0,
                    .bottom_mm = -50.0,
                    .body_mm = 80.0,
                    .angle_deg = 60.0,
                    .sway_deg = 0.0,
                    .tips_s = 2.0};
  const PlayedMotion motion(stand);
  const LureBuild build{.length_mm = 80.0};
  const auto noseAt = [&](double t) { return markPlace(build, motion.at(Seconds(t)), MarkName::Nose).y(); };
  EXPECT_NEAR(noseAt(0.0), 0.0, 1e-9) << "50 mm over the bottom";
  EXPECT_NEAR(noseAt(1.0), -50.0, 1e-9);
  EXPECT_NEAR(motion.at(Seconds(1.0)).pitch_rad, 60.0 * kDegree, 1e-9);
  EXPECT_NEAR(motion.at(Seconds(3.0)).pitch_rad, stand.lying_deg * kDegree, 1e-9);
  EXPECT_EQ(protocolOf(stand), Protocol::Rest);
}

}  // namespace
}  // namespace fin
