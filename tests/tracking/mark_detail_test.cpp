// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/mark_detail.h"

#include <gtest/gtest.h>

#include <cmath>
#include <opencv2/core.hpp>
#include <random>

#include "core/tracking/marks/seed_offset.h"

namespace fin {
namespace {

/// An orange spot of 3 px on a dark body whose edge to teal water passes close by; soft edges, some noise.
Picture spotOnBody(PixelPoint spot, double edge_y, unsigned seed = 1, bool withSpot = true) {
  cv::Mat rgb(80, 120, CV_8UC3);
  std::mt19937 random(seed);
  std::normal_distribution<double> noise(0.0, 2.0);
  const cv::Vec3d water(90, 160, 170);
  const cv::Vec3d body(45, 45, 50);
  const cv::Vec3d orange(235, 120, 35);
  const auto soft = [](double distance) { return 0.5 + 0.5 * std::tanh(1.5 * distance); };
  for (int y = 0; y < rgb.rows; ++y) {
    for (int x = 0; x < rgb.cols; ++x) {
      const double inBody = soft(y - edge_y);
      const double inSpot = withSpot ? soft(3.0 - std::hypot(x - spot.x_px, y - spot.y_px)) : 0.0;
      const cv::Vec3d colour = (1.0 - inSpot) * ((1.0 - inBody) * water + inBody * body) + inSpot * orange;
      for (int c = 0; c < 3; ++c)
        rgb.at<cv::Vec3b>(y, x)[c] = cv::saturate_cast<uchar>(colour[c] + noise(random));
    }
  }
  return Picture::fromMat(rgb);
}

TEST(MarkChannel, ShowsTheSpotAndNeitherBodyNorWater) {
  const Picture picture = spotOnBody({60.3, 40.6}, 34.0);
  const MarkChannel channel = MarkChannel::learn(picture, {60.3, 40.6}, 12);
  ASSERT_FALSE(channel.isLuma());
  const MarkView view = channel.view(picture, {60.0, 40.0}, 20);
  const auto at = [&](int x, int y) {
    return static_cast<int>(view.image.at<uchar>(y - view.origin.y, x - view.origin.x));
  };
  EXPECT_GT(std::abs(at(60, 41) - at(60, 52)), 70);  // spot and body
  EXPECT_LT(std::abs(at(60, 52) - at(60, 26)), 45);  // body and water
  // In plain luma the edge between them is far stronger than that.
  EXPECT_GT(std::abs(picture.grey().at<uchar>(52, 60) - picture.grey().at<uchar>(26, 60)), 80);
}

TEST(MarkChannel, IsLumaWhereNothingStandsOut) {
  EXPECT_TRUE(MarkChannel::learn(spotOnBody({60, 40}, 10.0, 1, false), {60.0, 45.0}, 12).isLuma());
}

TEST(MarkDetail, SettlesOnTheSpotWhateverTheBodysEdgeDoes) {
  MarkDetail detail;
  detail.addGiven(spotOnBody({60.0, 40.0}, 34.5), {{60.0, 40.0}, 0.0}, 12);
  ASSERT_TRUE(detail.standsOut());
  for (const double edge : {33.0, 34.5, 36.5}) {
    const PixelPoint truth{64.37, 40.71};
    const auto found = detail.settle(spotOnBody(truth, edge, 7), {truth + PixelPoint{0.9, -0.7}, 0.0});
    ASSERT_TRUE(found) << edge;
    EXPECT_LT(length(*found - truth).value(), 0.15) << edge;
  }
}

TEST(MarkDetail, FindsNothingWhereTheSpotIsHidden) {
  MarkDetail detail;
  detail.addGiven(spotOnBody({60.0, 40.0}, 34.5), {{60.0, 40.0}, 0.0}, 12);
  const Picture hidden = spotOnBody({60.0, 40.0}, 34.5, 3, false);
  EXPECT_FALSE(detail.settle(hidden, {{60.0, 40.0}, 0.0}));
  EXPECT_LT(detail.likenessAt(hidden, {{60.0, 40.0}, 0.0}),
            detail.likenessAt(spotOnBody({60, 40}, 34.5, 4), {{60.0, 40.0}, 0.0}) - 0.3);
}

TEST(SeedOffset, TakesOutHalfOfWhatADetailLiesBesideTheMarkTurnedWithTheBody) {
  std::mt19937 random(5);
  std::normal_distribution<double> noise(0.0, 0.05);
  FollowedMark mark{MarkName::Tail, {}};
  const PixelPoint beside{0.4, 0.0};
  const auto truth = [](double n) { return PixelPoint{100.0 + 3.0 * n, 50.0 + 0.02 * n * n}; };
  for (int n = 0; n < 60; ++n) {
    const double angle = 0.02 * n;
    const PixelPoint off{beside.x_px * std::cos(angle), beside.x_px * std::sin(angle)};
    mark.frames.push_back(
        {{true, truth(n) + off + PixelPoint{noise(random), noise(random)}, 0.9}, true, angle});
  }
  const SeedPlace seed{20, truth(20), 0.4};
  alignToSeeds(mark, std::span(&seed, 1));
  EXPECT_EQ(mark.frames[20].sample.at, truth(20));  // obeyed exactly
  double sum = 0.0;
  for (int n = 0; n < 60; ++n)
    sum += length(mark.frames[static_cast<std::size_t>(n)].sample.at - truth(n)).value() / 60.0;
  EXPECT_LT(sum, 0.26);
  EXPECT_GT(sum, 0.10);
}

TEST(SeedOffset, LeavesAPathAloneThatIsNotSmoothAroundTheSeed) {
  FollowedMark mark{MarkName::Tail, {}};
  for (int n = 0; n < 20; ++n)
    mark.frames.push_back({{true, {10.0 + (n % 2 == 0 ? 3.0 : -3.0), 20.0}, 0.9}, true, 0.0});
  const SeedPlace seed{10, {12.0, 20.0}, 0.0};
  const PixelPoint before = mark.frames[5].sample.at;
  alignToSeeds(mark, std::span(&seed, 1));
  EXPECT_EQ(mark.frames[5].sample.at, before);
}

}  // namespace
}  // namespace fin
