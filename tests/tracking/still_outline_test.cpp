// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/outline/still_outline.h"

#include <gtest/gtest.h>

#include <opencv2/imgproc.hpp>

namespace fin {
namespace {

/// A lure of 300 × 50 px before a plain ground with some grain.
Picture heldUp(const cv::Scalar& lure) {
  cv::Mat image(400, 600, CV_8UC3, cv::Scalar(170, 180, 185));
  cv::ellipse(image, {300, 200}, {150, 25}, 0.0, 0.0, 360.0, lure, cv::FILLED);
  cv::Mat grain(image.size(), CV_8UC3);
  cv::theRNG().state = 7;
  cv::randn(grain, cv::Scalar::all(4), cv::Scalar::all(4));
  return Picture::fromMat(image + grain);
}

const std::vector<PixelPoint> kDrawn{{130.0, 200.0}, {300.0, 160.0}, {470.0, 205.0}, {300.0, 240.0}};

TEST(StillOutline, CutsTheLureOutOfOnePicture) {
  const auto found = outlineInStill(heldUp({60, 80, 50}), kDrawn);
  ASSERT_TRUE(found) << found.error().message;
  EXPECT_TRUE(found->whole);
  EXPECT_NEAR(found->area_px2, 3.14159 * 150.0 * 25.0, 0.03 * 3.14159 * 150.0 * 25.0);
  EXPECT_NEAR(found->length_px, 300.0, 4.0);
  EXPECT_NEAR(found->centre.x_px, 300.0, 1.0);
}

TEST(StillOutline, RefusesALureOfTheGroundsOwnColour) {
  const auto found = outlineInStill(heldUp({170, 180, 185}), kDrawn);
  EXPECT_FALSE(found);
}

}  // namespace
}  // namespace fin
