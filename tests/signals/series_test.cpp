// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/series.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numeric>
#include <random>

#include "core/signals/line_fit.h"
#include "core/signals/local_fit.h"
#include "core/signals/serial_correlation.h"
#include "core/units/estimate.h"

namespace fin {
namespace {

/// Noise in which each value keeps a share of the one before.
std::vector<double> hangingTogether(double share, std::size_t n, std::mt19937& random) {
  std::normal_distribution<double> fresh(0.0, std::sqrt(1.0 - share * share));
  std::vector<double> out{std::normal_distribution<double>()(random)};
  while (out.size() < n) out.push_back(share * out.back() + fresh(random));
  return out;
}

TEST(Median, IsTheMiddleOneOrTheMeanOfTwo) {
  EXPECT_EQ(median({}), 0.0);
  EXPECT_EQ(median({3.0}), 3.0);
  EXPECT_EQ(median({9.0, 1.0, 4.0}), 4.0);
  EXPECT_EQ(median({9.0, 1.0, 4.0, 6.0}), 5.0);
}

TEST(RobustSpread, IsTheStandardDeviationOfANormalSpreadAndForgivesOutliers) {
  std::mt19937 random(3);
  std::normal_distribution<double> normal(50.0, 4.0);
  std::vector<double> values(20000);
  for (double& v : values) v = normal(random);
  EXPECT_NEAR(robustSpread(values), 4.0, 0.1);
  for (std::size_t i = 0; i < values.size() / 10; ++i) values[i] = 1e6;
  EXPECT_NEAR(robustSpread(values), 4.6, 0.2) << "a tenth of outliers widens it by a seventh at most";
  EXPECT_EQ(robustSpread({2.0, 2.0, 2.0}), 0.0);
}

TEST(MedianU95, HoldsTheTruthNineteenTimesOfTwenty) {
  std::mt19937 random(5);
  std::normal_distribution<double> normal(10.0, 2.0);
  int inside = 0;
  constexpr int kTrials = 1000;
  for (int trial = 0; trial < kTrials; ++trial) {
    std::vector<double> values(41);
    for (double& v : values) v = normal(random);
    if (std::abs(median(values) - 10.0) <= medianU95(values)) ++inside;
  }
  // The robust spread of 41 is itself unsure, which takes a little off 95 of 100.
  EXPECT_GT(inside, 910);
  EXPECT_LT(inside, 975);
}

TEST(Series, IsCutAtTimesAndKnowsItsStepAmongGaps) {
  Series s;
  for (const double t : {0.0, 0.1, 0.2, 0.3, 1.3, 1.4}) s.add(t, 10.0 * t);
  EXPECT_NEAR(s.spacing_s(), 0.1, 1e-12);
  EXPECT_NEAR(s.span_s(), 1.4, 1e-12);
  const Series part = s.between(0.1, 1.3);
  EXPECT_EQ(part.t_s, (std::vector<double>{0.1, 0.2, 0.3, 1.3}));
  EXPECT_EQ(part.y.back(), 13.0);
  EXPECT_TRUE(s.between(0.4, 1.2).empty());
}

TEST(LocalFit, GivesBackAParabolaAtUnevenTimes) {
  Series s;
  for (const double t : {0.0, 0.013, 0.021, 0.04, 0.052, 0.07}) s.add(t, 3.0 - 2.0 * t + 40.0 * t * t);
  for (const double at : {0.01, 0.035, 0.06}) {
    const auto fit = localFit(s, at, 0.1);
    ASSERT_TRUE(fit) << at;
    EXPECT_NEAR(fit->value, 3.0 - 2.0 * at + 40.0 * at * at, 1e-9) << at;
    EXPECT_NEAR(fit->slope, -2.0 + 80.0 * at, 1e-7) << at;
  }
  EXPECT_FALSE(localFit(s, 0.5, 0.1)) << "nothing lies near";
  EXPECT_FALSE(localFit(s, 0.0, 0.015)) << "two are no line with anything left over";
}

TEST(LocalFit, TakesAStraightLineThroughThree) {
  Series s;
  for (const double t : {0.0, 0.01, 0.02}) s.add(t, 5.0 + 7.0 * t);
  const auto fit = localFit(s, 0.015, 0.05);
  ASSERT_TRUE(fit);
  EXPECT_NEAR(fit->slope, 7.0, 1e-9);
  EXPECT_EQ(smoothed(s, 0.05).size(), 3U);
  EXPECT_TRUE(smoothed(s, 0.005).empty());
}

TEST(SerialCorrelation, IsThatOfTheNoiseAndNeverBelowNought) {
  std::mt19937 random(7);
  for (const double share : {0.0, 0.5, 0.9}) {
    const auto noise = hangingTogether(share, 20000, random);
    EXPECT_NEAR(lagOneCorrelation(noise), share, 0.02) << share;
    EXPECT_NEAR(correlationInflation(noise), (1.0 + share) / (1.0 - share),
                0.1 * (1.0 + share) / (1.0 - share));
  }
  EXPECT_EQ(lagOneCorrelation(std::vector<double>{1.0, -1.0, 1.0, -1.0}), 0.0);
  EXPECT_EQ(correlationInflation(std::vector<double>{}), 1.0);
  EXPECT_EQ(lagOneCorrelation(std::vector<double>(50, 1.0)), 0.98) << "as far as fifty can tell";
}

TEST(LineFit, HoldsTheSlopeNineteenTimesOfTwentyAlsoInNoiseThatHangsTogether) {
  std::mt19937 random(11);
  for (const double share : {0.0, 0.7}) {
    int inside = 0;
    constexpr int kTrials = 600;
    for (int trial = 0; trial < kTrials; ++trial) {
      const auto noise = hangingTogether(share, 240, random);
      Series s;
      for (std::size_t i = 0; i < noise.size(); ++i) {
        const double t = static_cast<double>(i) / 120.0;
        s.add(t, 250.0 * t + noise[i]);
      }
      const auto line = fitLine(s);
      ASSERT_TRUE(line);
      if (std::abs(line->slope - 250.0) <= line->slopeU95) ++inside;
    }
    // Of 600, 95 of 100 within three standard deviations of the count; correlation is itself estimated.
    EXPECT_GE(inside, 0.91 * kTrials) << share;
    EXPECT_LE(inside, 0.98 * kTrials) << share;
  }
}

}  // namespace
}  // namespace fin
