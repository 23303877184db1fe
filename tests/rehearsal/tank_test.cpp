// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/tank.h"

#include <gtest/gtest.h>

#include <opencv2/core.hpp>

#include "support/small_scene.h"

namespace fin {
namespace {

TEST(RehearsalTank, GivesTheSameFrameInAnyOrder) {
  RehearsalTank forwards(test::smallPull(4));
  RehearsalTank backwards(test::smallPull(4));
  const auto first = forwards.frame(10);
  (void)backwards.frame(50);
  const auto again = backwards.frame(10);
  ASSERT_TRUE(first && again);
  EXPECT_EQ(cv::norm(first->grey(), again->grey(), cv::NORM_L1), 0.0);
  EXPECT_FALSE(forwards.frame(forwards.frameCount()));
}

TEST(RehearsalTank, ShowsTheLureWhereItSaysItIs) {
  RehearsalScene scene = test::smallPull();
  scene.noise_grey = 0.0;
  scene.specks = 0;
  scene.dancingLight = 0.0;
  RehearsalTank with(scene);
  scene.lure = LureBuild{.length_mm = 1e-3, .height_mm = 1e-3, .width_mm = 1e-3};
  RehearsalTank without(scene);
  const auto a = with.frame(60);
  const auto b = without.frame(60);
  cv::Mat changed;
  cv::absdiff(a->grey(), b->grey(), changed);
  double x = 0.0;
  double n = 0.0;
  for (int r = 0; r < changed.rows; ++r) {
    for (int c = 0; c < changed.cols; ++c) {
      if (changed.at<uchar>(r, c) <= 8) continue;
      x += c;
      n += 1.0;
    }
  }
  const double middle = 0.5 * (with.markAt(MarkName::Nose, 60).x_px + with.markAt(MarkName::Tail, 60).x_px);
  EXPECT_NEAR(x / n, middle, 3.0);
  // An ellipse of 1.12 · 80 mm by 16 mm at 0.8 px/mm.
  EXPECT_NEAR(n, 0.25 * std::numbers::pi * 1.12 * 80.0 * 16.0 * 0.64, 0.2 * n);
}

TEST(RehearsalTank, DrawsItsRulerToScale) {
  const RehearsalTank tank(test::smallPull());
  const auto [from, to] = tank.rulerEnds();
  EXPECT_NEAR((to.x_px - from.x_px) / 300.0, 0.8, 1e-9);
}

}  // namespace
}  // namespace fin
