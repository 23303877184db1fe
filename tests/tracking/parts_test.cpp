// SPDX-License-Identifier: GPL-3.0-or-later
// The parts of the follower on their own: patch, prediction, verification.
#include <gtest/gtest.h>

#include <cmath>
#include <opencv2/core.hpp>

#include "core/tracking/marks/patch.h"
#include "core/tracking/marks/prediction.h"
#include "core/tracking/marks/still_scene.h"
#include "core/tracking/marks/verification.h"

namespace fin {
namespace {

/// A smooth spotty picture that can be sampled anywhere, so that shifts are known exactly.
cv::Mat spots(double shiftX, double shiftY, double gain = 1.0, double offset = 0.0) {
  cv::Mat out(80, 100, CV_8UC1);
  for (int y = 0; y < out.rows; ++y) {
    for (int x = 0; x < out.cols; ++x) {
      const double u = x - shiftX;
      const double v = y - shiftY;
      const double tone = 120.0 + 50.0 * std::sin(0.31 * u + 0.11 * v) + 40.0 * std::cos(0.27 * v - 0.09 * u);
      out.at<uchar>(y, x) = static_cast<uchar>(std::lround(gain * (tone - 120.0) + 120.0 + offset));
    }
  }
  return out;
}

TEST(PatchTemplate, FindsItselfToAFewHundredthsOfAPixel) {
  const PatchTemplate patch(spots(0.0, 0.0), {{50.0, 40.0}, 0.0}, 9);
  for (const auto& [dx, dy] : {std::pair(0.37, -0.62), {1.4, 0.9}, {-1.1, 1.7}}) {
    const auto fit = patch.refine(spots(dx, dy), {{50.0, 40.0}, 0.0});
    ASSERT_TRUE(fit.converged);
    // Rounding to whole grey levels leaves about 0.3 / slope / √samples.
    EXPECT_NEAR(fit.at.x_px, 50.0 + dx, 0.03);
    EXPECT_NEAR(fit.at.y_px, 40.0 + dy, 0.03);
    EXPECT_GT(fit.score, 0.99);
  }
}

TEST(PatchTemplate, DoesNotMindOtherLight) {
  const PatchTemplate patch(spots(0.0, 0.0), {{50.0, 40.0}, 0.0}, 9);
  const auto fit = patch.refine(spots(0.8, 0.3, 0.6, 25.0), {{50.0, 40.0}, 0.0});
  ASSERT_TRUE(fit.converged);
  EXPECT_NEAR(fit.at.x_px, 50.8, 0.05);
  EXPECT_NEAR(fit.at.y_px, 40.3, 0.05);
}

TEST(PatchTemplate, CountsAFaintCopyForLess) {
  const PatchTemplate patch(spots(0.0, 0.0), {{50.0, 40.0}, 0.0}, 9);
  const auto likeness = [&](double gain) {
    return patch.correlation(cutPatch(spots(0.0, 0.0, gain), {{50.0, 40.0}, 0.0}, 9));
  };
  EXPECT_GT(likeness(0.5), 0.99);
  EXPECT_LT(likeness(0.1), 0.4) << "light on the bottom may have the shape of a mark, but not its strength";
}

TEST(StillScene, KnowsWhatWasThereBeforeTheLureCame) {
  StillScene scene(15.0);
  const Picture empty = Picture::fromMat(spots(0.0, 0.0));
  cv::Mat withLure = spots(0.0, 0.0);
  spots(31.0, 17.0)(cv::Rect(40, 30, 20, 20)).copyTo(withLure(cv::Rect(40, 30, 20, 20)));
  const Picture now = Picture::fromMat(withLure);
  scene.remember(empty, {{85.0, 65.0}});
  EXPECT_TRUE(scene.stoodThere(now, {20.0, 20.0}, 7));
  EXPECT_FALSE(scene.stoodThere(now, {50.0, 40.0}, 7)) << "that is new there";
  EXPECT_FALSE(scene.stoodThere(now, {80.0, 65.0}, 7)) << "the lure may have been there then";
}

TEST(PatchTemplate, IsFoundFromFarByWholePixels) {
  const PatchTemplate patch(spots(0.0, 0.0), {{50.0, 40.0}, 0.0}, 9);
  const auto peaks = patch.search(PatchSurroundings(spots(5.0, -4.0), {{50.0, 40.0}, 0.0}, 9, 8), 3);
  ASSERT_FALSE(peaks.empty());
  EXPECT_EQ(peaks.front().dx_px, 5);
  EXPECT_EQ(peaks.front().dy_px, -4);
}

TEST(PatchTemplate, KnowsAnEmptyWallByItsStructure) {
  const cv::Mat wall(80, 100, CV_8UC1, cv::Scalar(90));
  EXPECT_LT(PatchTemplate(wall, {{50.0, 40.0}, 0.0}, 9).structure(), 0.1);
  EXPECT_GT(PatchTemplate(spots(0.0, 0.0), {{50.0, 40.0}, 0.0}, 9).structure(), 4.0);
}

TEST(MotionModel, CarriesALostTipAlongWithTheBody) {
  MotionModel model;
  for (int i = 0; i < 3; ++i) {
    model.place(MarkName::Tail, 0.01 * i, {100.0 + 5.0 * i, 50.0});
    model.place(MarkName::Tip, 0.01 * i, {80.0 + 5.0 * i, 55.0});
  }
  // The tip is lost; the tail goes on.
  for (int i = 3; i < 20; ++i) model.place(MarkName::Tail, 0.01 * i, {100.0 + 5.0 * i, 50.0});
  const PixelPoint expected = model.predict(MarkName::Tip, 0.20);
  EXPECT_NEAR(expected.x_px, 180.0, 1e-6);
  EXPECT_NEAR(expected.y_px, 55.0, 1e-6);
}

TEST(MotionModel, TurnsTheTwoEndsOfABodyTogether) {
  MotionModel model;
  const auto place = [&](double t) {
    // A body of 60 px that turns 0.2 rad and goes 4 px a step.
    const double angle = 0.2 * t;
    const PixelPoint centre{100.0 + 4.0 * t, 50.0};
    const PixelPoint half{30.0 * std::cos(angle), 30.0 * std::sin(angle)};
    return std::pair(centre + half, centre - half);
  };
  for (double t : {0.0, 1.0}) {
    model.place(MarkName::Nose, t, place(t).first);
    model.place(MarkName::Tail, t, place(t).second);
  }
  const PixelPoint expected = place(2.0).first;
  // Going straight on would be off by 30 · 0.2² = 1.2 px; turning on from the last chord, by half of that.
  EXPECT_LT(length(model.predict(MarkName::Nose, 2.0) - expected).value(), 0.7);
  EXPECT_NEAR(*model.apart_px(MarkName::Nose, MarkName::Tail), 60.0, 1e-9);
}

MarkChoices choices(PixelPoint expected, std::vector<MarkAppearance::Candidate> candidates) {
  return {expected, 4.0, std::move(candidates)};
}

TEST(ChoosePair, DoesNotLetOneEndJumpToALookAlike) {
  // The look-alike of the nose fits a little better but would stretch the body by a third.
  const auto nose = choices({130.0, 50.0}, {{{150.0, 50.0}, 0.97, 0}, {{130.5, 50.0}, 0.93, 0}});
  const auto tail = choices({70.0, 50.0}, {{{70.2, 50.0}, 0.95, 0}});
  const PairChoice pair = choosePair(nose, tail, 60.0);
  EXPECT_EQ(pair.first, 1U);
  EXPECT_EQ(pair.second, 0U);
  EXPECT_EQ(chooseOne(choices({0.0, 0.0}, {})), std::nullopt);
}

TEST(Quality, FallsWithLikenessAndWithStretching) {
  EXPECT_NEAR(qualityOf(0.95, 0.0), 1.0, 1e-9);
  EXPECT_LT(qualityOf(0.6, 0.0), qualityOf(0.8, 0.0));
  EXPECT_LT(qualityOf(0.95, 0.2), 0.6);
  EXPECT_EQ(qualityOf(0.2, 0.0), 0.0);
}

TEST(Track, CountsFollowedAndBridgedFrames) {
  Track track{0, 10, {{MarkName::Nose, std::vector<MarkSample>(10, {true, {}, 1.0})}}};
  for (std::size_t i : {3U, 4U}) track.marks[0].samples[i] = {};
  track.marks[0].samples[9] = {};
  EXPECT_EQ(track.followed(), 7U);
  EXPECT_EQ(track.bridged(), 2U);  // the end is no gap between seen frames
}

}  // namespace
}  // namespace fin
