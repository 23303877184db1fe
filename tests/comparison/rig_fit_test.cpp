// SPDX-License-Identifier: GPL-3.0-or-later
// Two worked days of fall rates, and what they must give.
#include "core/comparison/apart/rig_fit.h"

#include <gtest/gtest.h>

#include <cmath>

#include "core/comparison/apart/drawn_in.h"
#include "core/comparison/apart/studentised_range.h"

namespace fin {
namespace {

constexpr std::size_t A = 0, B = 1, C = 2, D = 3;

FitValue value(std::size_t rig, int block, double rate, double u95 = 0.0) {
  return {.rig = rig, .y = std::log(rate), .ownSd = u95 / 1.959964 / rate, .block = block};
}
std::vector<FitValue> day(double u95 = 0.0) {
  std::vector<FitValue> out;
  const double rates[4][3] = {{402, 411, 395}, {428, 440, 419}, {405, 417, 399}, {470, 478, 455}};
  for (std::size_t rig = 0; rig < 4; ++rig) {
    for (int block = 0; block < 3; ++block) out.push_back(value(rig, block + 1, rates[rig][block], u95));
  }
  return out;
}
/// Two passes are missing, and C was tied on again in the first block.
std::vector<FitValue> patchyDay() {
  std::vector<FitValue> out = day();
  out.erase(out.begin() + 11);
  out.erase(out.begin() + 4);
  out.push_back(value(C, 1, 409));
  return out;
}
double p(const FittedPair& pair, std::size_t rigs) {
  return std::min(1.0,
                  2.0 * StudentisedRange(rigs).chance(std::sqrt(2.0) * std::abs(pair.t()), pair.degrees));
}

TEST(StudentisedRange, IsThatOfTheTable) {
  EXPECT_NEAR(StudentisedRange(8).chance(4.5, 14), 0.091301, 5e-7);
  EXPECT_NEAR(StudentisedRange(4).chance(3, 6), 0.247264, 5e-7);
  EXPECT_NEAR(StudentisedRange(3).chance(5, 8.5), 0.017149, 5e-7);
  EXPECT_NEAR(StudentisedRange(8).exceededWith(0.025, 14), 5.539592, 5e-6);
  EXPECT_NEAR(StudentisedRange(4).exceededWith(0.025, 6), 5.771726, 5e-6);
  EXPECT_NEAR(StudentisedRange(10).exceededWith(0.025, 18), 5.565017, 5e-6);
  EXPECT_EQ(StudentisedRange(3).chance(0.0, 5), 1.0);
}

TEST(StudentisedRange, HasTheSameBoundForManyRigsAskedOftenAsAskedOnce) {
  for (const std::size_t rigs : {5U, 20U, 60U}) {
    const StudentisedRange range(rigs);
    RangeBound bound(range, 0.025);
    for (const double degrees : {3.0, 8.0, 11.3, 57.0, 412.0})
      EXPECT_NEAR(bound(degrees), range.exceededWith(0.025, degrees), 5e-6 * bound(degrees))
          << rigs << " " << degrees;
  }
}

TEST(RigFit, SteadiesVariancesAcrossRigs) {
  const auto fit = RigFit::of(day(), 4);
  ASSERT_TRUE(fit) << fit.error().message;
  EXPECT_TRUE(fit->adjusted().blocks);
  EXPECT_EQ(fit->degrees(), 6.0);
  EXPECT_NEAR(fit->variance(), 1.857996e-5, 5e-12);
  const double expected[] = {1.671641e-5, 1.503755e-5, 1.794361e-5, 2.462228e-5};
  for (std::size_t i = 0; i < 4; ++i) EXPECT_NEAR(fit->varianceOf(i), expected[i], 5e-12);
  const FittedPair ac = fit->pair(A, C);
  EXPECT_NEAR(ac.difference, -0.010668, 5e-7);
  EXPECT_NEAR(std::sqrt(ac.variance), 0.003399021, 5e-10);
  EXPECT_NEAR(ac.t(), -3.138516, 5e-7);
  EXPECT_NEAR(p(ac, 4), 0.145938, 5e-7);
  EXPECT_NEAR(p(fit->pair(A, B), 4), 1.013932e-5, 1e-9);
}

TEST(RigFit, OfTyingsJudgesABaitByHowTyingsDiffer) {
  // Three baits, each tied on twice, two passes of each tying; their means replace the passes.
  std::vector<FitValue> values;
  const double means[3][2] = {{10.3, 11.15}, {12.25, 13.35}, {10.65, 10.4}};
  for (std::size_t bait = 0; bait < 3; ++bait) {
    for (const double mean : means[bait]) values.push_back({.rig = bait, .y = mean});
  }
  const auto fit = RigFit::of(values, 3);
  ASSERT_TRUE(fit) << fit.error().message;
  EXPECT_NEAR(fit->variance() / 2.0, 0.166250, 1e-9);
}

TEST(RigFit, TakesWhatIsMissingAndWhatWasTiedOnAgain) {
  const auto fit = RigFit::of(patchyDay(), 4);
  ASSERT_TRUE(fit) << fit.error().message;
  EXPECT_EQ(fit->degrees(), 5.0);
  EXPECT_NEAR(fit->variance(), 1.366785e-5, 5e-12);
  const double expected[] = {1.35, 0.7125, 2.225, 0.7125};
  for (std::size_t i = 0; i < 4; ++i) EXPECT_NEAR(fit->ownDegrees(i), expected[i], 1e-9);
  const FittedPair ac = fit->pair(A, C);
  EXPECT_NEAR(ac.difference, -0.012033, 5e-7);
  EXPECT_NEAR(std::sqrt(ac.variance), 0.002856295, 5e-10);
  EXPECT_NEAR(p(ac, 4), 0.060635, 1e-6);
}

TEST(RigFit, TrustsPassesNoMoreThanTheirOwnUncertaintyUnlessItIsRefuted) {
  const auto fit = RigFit::of(day(8.0), 4);
  ASSERT_TRUE(fit);
  for (std::size_t i = 0; i < 4; ++i) EXPECT_NEAR(fit->varianceOf(i), 6.816738e-5, 5e-11);
  std::vector<FitValue> counts;
  for (std::size_t rig = 0; rig < 3; ++rig) {
    for (int k = 0; k < 3; ++k) counts.push_back({.rig = rig, .y = 4.0 + static_cast<double>(rig)});
  }
  EXPECT_FALSE(RigFit::of(counts, 3)) << "equal, and nothing says how unsure they are";
  EXPECT_NEAR(RigFit::of(counts, 3, 1.0)->varianceOf(0), 1.0 / 12.0, 1e-12) << "whole counts";
  for (FitValue& v : counts) v.ownSd = 0.3;
  EXPECT_NEAR(RigFit::of(counts, 3)->varianceOf(0), 0.09, 1e-12);
}

TEST(RigFit, DrawsMeansInForChances) {
  const auto fit = RigFit::of(day(), 4);
  std::vector<DrawnMean> means;
  for (std::size_t i = 0; i < 4; ++i) means.push_back({fit->mean(i), fit->covariance(i, i)});
  EXPECT_NEAR(varianceBetween(means), 4.660227e-3, 5e-10);
  EXPECT_NEAR(drawnIn(means)[A].mean, 5.998044, 5e-7);
  EXPECT_LT(drawnIn(means)[A].variance, means[A].variance);
  means.pop_back();
  EXPECT_EQ(drawnIn(means)[A].mean, means[A].mean) << "three are too few";
}

TEST(RigFit, LeavesBlocksOutWhereThreeRigsShowNone) {
  std::vector<FitValue> values;
  const double y[3][3] = {{1.0, 1.3, 0.9}, {2.0, 1.6, 2.3}, {3.1, 3.1, 2.8}};
  for (std::size_t rig = 0; rig < 3; ++rig) {
    for (int block = 0; block < 3; ++block)
      values.push_back({.rig = rig, .y = y[rig][block], .block = block});
  }
  EXPECT_FALSE(RigFit::of(values, 3)->adjusted().blocks);
  EXPECT_EQ(RigFit::of(values, 3)->degrees(), 6.0);
  for (FitValue& v : values) v.y += 2.0 * *v.block;
  EXPECT_TRUE(RigFit::of(values, 3)->adjusted().blocks);
}

TEST(RigFit, TakesThePullSpeedAndTheHourOutOfTheRigs) {
  std::vector<FitValue> values;
  for (int k = 0; k < 12; ++k) {
    const std::size_t rig = static_cast<std::size_t>(k) % 3;
    const double noise = 0.001 * ((k * 7) % 5 - 2);
    values.push_back({.rig = rig,
                      .y = 1.0 + 0.1 * static_cast<double>(rig) + 0.9 * 0.02 * (k % 4) + 0.03 * k + noise,
                      .logSpeed = 0.02 * (k % 4),
                      .hour = 1.0 * k});
  }
  const auto fit = RigFit::of(values, 3);
  ASSERT_TRUE(fit);
  EXPECT_TRUE(fit->adjusted().speed && fit->adjusted().hours);
  EXPECT_NEAR(fit->pair(1, 0).difference, 0.1, 0.004);
  EXPECT_NEAR(fit->pair(2, 0).difference, 0.2, 0.004);
}

TEST(RigFit, ComparesNoRigsThatNoBlockJoins) {
  std::vector<FitValue> values;
  for (std::size_t rig = 0; rig < 4; ++rig) {
    for (int k = 0; k < 3; ++k)
      values.push_back({.rig = rig,
                        .y = 0.1 * k * k + 0.01 * static_cast<double>(rig * k),
                        .block = rig < 2 ? k : 10 + k});
  }
  const auto fit = RigFit::of(values, 4);
  ASSERT_TRUE(fit) << fit.error().message;
  EXPECT_TRUE(fit->joined(0, 1));
  EXPECT_FALSE(fit->joined(1, 2));
  EXPECT_TRUE(fit->joined(2, 3));
}

TEST(RigFit, LearnsNothingFromABlockWithOneRigAlone) {
  std::vector<FitValue> values = day();
  const double before = RigFit::of(values, 4)->pair(A, C).difference;
  values.push_back(value(C, 9, 300.0));
  const auto fit = RigFit::of(values, 4);
  ASSERT_TRUE(fit) << fit.error().message;
  EXPECT_EQ(fit->degrees(), 6.0) << "it is taken up by its block";
  EXPECT_NEAR(fit->pair(A, C).difference, before, 1e-9);
}

TEST(RigFit, ComparesTwoAsWelchDid) {
  const double first[] = {0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0.0, 2.0};
  const double second[] = {1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4};
  std::vector<FitValue> values;
  for (int k = 0; k < 10; ++k) {
    values.push_back({.rig = 0, .y = first[k], .block = k});
    values.push_back({.rig = 1, .y = second[k], .block = k});
  }
  const FittedPair pair = RigFit::of(values, 2)->pair(0, 1);
  EXPECT_NEAR(pair.t(), -1.8608, 5e-5);
  EXPECT_NEAR(pair.degrees, 17.776, 5e-4);
}

TEST(RigFit, SaysWhatIsMissing) {
  EXPECT_FALSE(RigFit::of({}, 0));
  EXPECT_FALSE(RigFit::of({value(A, 1, 400), value(A, 2, 410), value(B, 1, 420)}, 2));
  EXPECT_FALSE(RigFit::of(
      {value(A, 1, 400), value(A, 2, 410), value(B, 1, 420), value(B, 2, 433), value(C, 1, 440)}, 3))
      << "one degree of freedom";
  std::vector<FitValue> once = day();
  once.push_back(value(4, 1, 500));
  const auto fit = RigFit::of(once, 5);
  ASSERT_TRUE(fit);
  EXPECT_LT(p(fit->pair(4, A), 5), 0.05) << "one that was filmed once is compared too";
}

}  // namespace
}  // namespace fin
