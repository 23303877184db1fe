// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>
#include <random>

#include "core/tracking/background/pixel_median.h"
#include "core/tracking/background/scenery.h"
#include "core/tracking/body/body_evidence.h"
#include "core/tracking/body/colour_odds.h"

namespace fin {
namespace {

TEST(ColourOdds, TellTheBodysColoursFromTheRest) {
  std::mt19937 random(3);
  std::normal_distribution<float> scatter(0.0F, 0.02F);
  const auto some = [&](ColourOdds::Colour middle) {
    std::vector<ColourOdds::Colour> out(800);
    for (ColourOdds::Colour& c : out) {
      for (std::size_t k = 0; k < 3; ++k) c[k] = middle[k] + scatter(random);
    }
    return out;
  };
  const ColourOdds::Colour red{-0.1F, -0.2F, 0.4F};
  const ColourOdds::Colour water{0.1F, 0.2F, -0.1F};
  const auto body = some(red);
  const auto rest = some(water);
  auto all = body;
  all.insert(all.end(), rest.begin(), rest.end());
  ColourOdds odds;
  EXPECT_FALSE(odds.learnt());
  odds.setRange(all, body);
  odds.learn(body, {});
  EXPECT_FALSE(odds.learnt()) << "nothing to tell it from";
  odds.learn(body, rest);
  ASSERT_TRUE(odds.learnt());
  EXPECT_GT(odds.of(red), 0.6F);
  EXPECT_LT(odds.of(water), -0.6F);
  EXPECT_LT(std::abs(odds.of({0.0F, 0.0F, 0.15F})), 0.5F) << "met on neither";
}

/// A red bar that crosses a tiled floor from left to right, in luma and two colour differences.
constexpr std::size_t kBarFrames = 40;
AxisPose barAt(std::size_t n) {
  const PixelPoint middle{40.0 + 4.0 * static_cast<double>(n), 60.0};
  return {middle + PixelPoint{20.0, 0.0}, middle - PixelPoint{20.0, 0.0}};
}
ReducedFilm barUnder(const std::function<double(std::size_t)>& light) {
  ReducedFilm out;
  for (std::size_t n = 0; n < kBarFrames; ++n) {
    cv::Mat picture(120, 240, CV_8UC3);
    const auto shade = [&](double luma, double blue, double red) {
      const double k = light(n);
      return cv::Vec3b(cv::saturate_cast<uchar>(luma * k), cv::saturate_cast<uchar>(128.0 + blue * k),
                       cv::saturate_cast<uchar>(128.0 + red * k));
    };
    for (int y = 0; y < picture.rows; ++y) {
      for (int x = 0; x < picture.cols; ++x)
        picture.at<cv::Vec3b>(y, x) = shade((x / 12 + y / 12) % 2 == 0 ? 110.0 : 128.0, 9.0, -8.0);
    }
    const PixelPoint m = barAt(n).middle();
    const cv::Rect bar(static_cast<int>(m.x_px) - 20, static_cast<int>(m.y_px) - 5, 41, 11);
    picture(bar).setTo(shade(84.0, -12.0, 30.0));
    out.frames[n] = picture;
  }
  return out;
}

class EvidenceUnder : public testing::TestWithParam<double> {};

TEST_P(EvidenceUnder, IsForTheBodyAndAgainstTheRestWhateverTheLight) {
  const double swing = GetParam();
  const ReducedFilm film =
      barUnder([swing](std::size_t n) { return 1.0 + swing * std::sin(1.3 * static_cast<double>(n)); });
  BodyEvidence evidence(film, 0, barAt(0), [](std::size_t n) { return std::optional(barAt(n)); }, false, {});
  for (const std::size_t n : {5U, 17U, 33U}) {
    const BodyView view = evidence.at(n, {0, 0, 240, 120});
    const PixelPoint m = barAt(n).middle();
    const cv::Rect bar(static_cast<int>(m.x_px) - 16, static_cast<int>(m.y_px) - 3, 33, 7);
    EXPECT_GT(cv::mean(view.evidence(bar))[0], 0.7) << n;
    cv::Mat rest = cv::Mat(view.evidence.size(), CV_8UC1, cv::Scalar(255));
    rest(cv::Rect(bar.x - 12, bar.y - 12, bar.width + 24, bar.height + 24)).setTo(0);
    EXPECT_LT(cv::mean(view.evidence, rest)[0], -0.5) << n;
  }
}

INSTANTIATE_TEST_SUITE_P(Light, EvidenceUnder, testing::Values(0.0, 0.15, 0.35));

TEST(PixelMedian, IsTheMiddleOfEveryPixel) {
  std::vector<cv::Mat> pictures;
  for (const int value : {9, 200, 30, 31, 7}) {
    pictures.push_back(cv::Mat(2, 3, CV_8UC1, cv::Scalar(value)));
    pictures.back().at<uchar>(1, 2) = static_cast<uchar>(255 - value);
  }
  const cv::Mat median = medianOf(pictures);
  EXPECT_EQ(median.at<uchar>(0, 0), 30);
  EXPECT_EQ(median.at<uchar>(1, 2), 225);
  EXPECT_EQ(pictures[1].at<uchar>(0, 0), 200) << "the pictures stay as they are";
}

TEST(PixelMedian, SortsAnyNumberOfPictures) {
  std::mt19937 random(5);
  std::uniform_int_distribution<int> level(0, 40);  // few enough for equal ones
  for (std::size_t n = 0; n <= 26; ++n) {
    std::vector<cv::Mat> pictures(n);
    std::vector<std::vector<float>> expected(11);  // more rows than are sorted at a time
    for (cv::Mat& picture : pictures) {
      picture.create(11, 1, CV_32FC1);
      for (int y = 0; y < picture.rows; ++y)
        expected[static_cast<std::size_t>(y)].push_back(picture.at<float>(y, 0) =
                                                            static_cast<float>(level(random)));
    }
    sortPixels(pictures);
    for (std::size_t y = 0; y < expected.size(); ++y) {
      std::sort(expected[y].begin(), expected[y].end());
      for (std::size_t i = 0; i < n; ++i)
        EXPECT_EQ(pictures[i].at<float>(static_cast<int>(y), 0), expected[y][i]) << n;
    }
  }
}

TEST(Scenery, ItsMotionIsFoundThoughAThirdOfTheDetailsGoAnotherWay) {
  const double turn = 0.01;
  const double grown = 1.005;
  const PixelPoint shift{2.5, -1.25};
  const auto moved = [&](double x, double y) {
    return PixelPoint{grown * (std::cos(turn) * x - std::sin(turn) * y) + shift.x_px,
                      grown * (std::sin(turn) * x + std::cos(turn) * y) + shift.y_px};
  };
  SceneryPoints from, to;
  std::mt19937 random(5);
  std::uniform_real_distribution<float> place(0.0F, 400.0F);
  for (int i = 0; i < 90; ++i) {
    from.emplace_back(place(random), place(random));
    const PixelPoint p = moved(from.back().x, from.back().y);
    const float away = i % 3 == 0 ? 9.0F : 0.0F;
    to.emplace_back(static_cast<float>(p.x_px) + away, static_cast<float>(p.y_px) - away);
  }
  const auto fit = fitSimilarity(from, to);
  ASSERT_TRUE(fit);
  const PixelPoint there = (*fit)({200.0, 150.0});
  EXPECT_NEAR(there.x_px, moved(200.0, 150.0).x_px, 0.02);
  EXPECT_NEAR(there.y_px, moved(200.0, 150.0).y_px, 0.02);
  EXPECT_EQ(fit->agreeing, 60U);
  from.resize(8);
  to.resize(8);
  EXPECT_FALSE(fitSimilarity(from, to)) << "eight details are too few to be sure";
}

}  // namespace
}  // namespace fin
