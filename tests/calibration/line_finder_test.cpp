// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/calibration/line_finder.h"

#include <gtest/gtest.h>

#include <cmath>
#include <opencv2/core.hpp>
#include <opencv2/imgproc.hpp>
#include <random>

namespace fin {
namespace {

/// Water below a slanting surface, a darker bottom, a cord hanging down, noise over all.
Picture tankPicture() {
  cv::Mat image(270, 480, CV_8UC1);
  std::mt19937 random(2);
  std::normal_distribution<double> noise(0.0, 2.0);
  const auto step = [](double distance) { return 0.5 + 0.5 * std::tanh(distance); };
  for (int y = 0; y < image.rows; ++y) {
    for (int x = 0; x < image.cols; ++x) {
      double grey = 180.0 - 50.0 * step(y - (40.0 + 0.03 * x));
      grey -= 60.0 * step(y - (230.0 - 0.01 * x));
      if (y < 220) grey -= 70.0 * (step(x - (100.0 + 0.05 * y)) - step(x - (104.0 + 0.05 * y)));
      image.at<uchar>(y, x) = cv::saturate_cast<uchar>(grey + noise(random));
    }
  }
  // Something round in the way.
  cv::circle(image, {300, 60}, 30, 40, -1);
  return Picture::fromMat(image);
}

bool isNear(const PixelLine& line, PixelPoint from, PixelPoint to, double slack_px) {
  return length(line.from - from).value() < slack_px && length(line.to - to).value() < slack_px;
}

TEST(LineFinder, ProposesWaterlineAndBottomToATenthOfAPixel) {
  const auto found = findLines(tankPicture(), LineKind::Level);
  const auto has = [&](double left, double right) {
    return std::any_of(found.begin(), found.end(), [&](const FoundLine& f) {
      return isNear(f.line, {0.0, left}, {479.0, right}, 0.25) && f.support > 0.5;
    });
  };
  EXPECT_TRUE(has(40.0, 40.0 + 0.03 * 479.0));
  EXPECT_TRUE(has(230.0, 230.0 - 0.01 * 479.0));
  EXPECT_LE(found.size(), 5U);
}

TEST(LineFinder, ProposesThePlumbCord) {
  const auto found = findLines(tankPicture(), LineKind::Upright);
  ASSERT_FALSE(found.empty());
  EXPECT_TRUE(isNear(found.front().line, {100.0, 0.0}, {100.0 + 0.05 * 269.0, 269.0}, 0.5) ||
              isNear(found.front().line, {104.0, 0.0}, {104.0 + 0.05 * 269.0, 269.0}, 0.5));
}

TEST(LineFinder, ProposesNothingInAnEmptyPicture) {
  cv::Mat plain(270, 480, CV_8UC1, cv::Scalar(120));
  cv::randn(plain, 120, 2.0);
  EXPECT_TRUE(findLines(Picture::fromMat(plain), LineKind::Level).empty());
  EXPECT_TRUE(findLines(Picture::fromMat(plain), LineKind::Upright).empty());
}

}  // namespace
}  // namespace fin
