// SPDX-License-Identifier: GPL-3.0-or-later
// Against R 4.3: t.test(extra ~ group, data = sleep), p.adjust, power.t.test, and t-intervals by qt().
#include "core/comparison/spread.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

namespace fin {
namespace {

const RigValues kFirst{"first", {0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0.0, 2.0}, {}};
const RigValues kSecond{"second", {1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4}, {}};

TEST(Spread, HasWelchsTest) {
  const Welch w = welch(0.75, 3.200556, 10.0, 2.33, 4.009000, 10.0);
  EXPECT_NEAR(w.t, -1.8608, 5e-5);
  EXPECT_NEAR(w.degrees, 17.776, 5e-4);
  EXPECT_NEAR(w.p, 0.07939, 5e-6);
}

TEST(Spread, AdjustsForTheNumberOfPairs) {
  const std::vector<double> expected{0.03, 0.06, 0.06};
  const std::vector<double> adjusted = holm({0.01, 0.04, 0.03});
  for (std::size_t i = 0; i < expected.size(); ++i) EXPECT_NEAR(adjusted[i], expected[i], 1e-12);
}

TEST(Spread, KnowsHowManyPassesWouldSettleIt) {
  EXPECT_EQ(passesNeeded(1.0, 1.0), 17U);  // power.t.test(delta = 1, sd = 1, power = .8): 16.71
  EXPECT_EQ(passesNeeded(0.5, 1.0), 64U);  // 63.77
  EXPECT_EQ(passesNeeded(-3.0, 1.0), 4U);  // 3.07
  EXPECT_EQ(passesNeeded(0.0, 1.0), std::nullopt);
  EXPECT_EQ(passesNeeded(0.001, 1.0), std::nullopt);
}

TEST(Spread, HasTheMeanWithItsIntervalOverThePasses) {
  const Spread spread = compare({kFirst, kSecond}, FurtherPasses::Find);
  ASSERT_EQ(spread.rigs.size(), 2U);
  EXPECT_EQ(spread.rigs[0].rig, "second") << "the larger one first";
  EXPECT_NEAR(spread.rigs[0].mean, 2.33, 1e-12);
  EXPECT_NEAR(spread.rigs[0].u95, 2.262157 * 2.002249 / std::sqrt(10.0), 1e-5);
  ASSERT_EQ(spread.pairs.size(), 1U);
  EXPECT_NEAR(spread.pairs[0].p, 0.07939, 5e-6);
  EXPECT_FALSE(spread.pairs[0].apart);
  EXPECT_EQ(spread.rigs[0].letters, spread.rigs[1].letters);
  // power.t.test(delta = 1.58, sd = 1.898626, power = .8): 23.66, so 14 more of each.
  EXPECT_EQ(spread.pairs[0].morePasses, 14U);
}

TEST(Spread, LetsRigsThatCannotBeToldApartShareALetter) {
  // The middle one is near to either of the others, which are far from each other.
  const Spread spread = compare({{"low", {10.0, 10.4, 9.6, 10.2, 9.8}, {}},
                                 {"middle", {10.4, 10.9, 10.0, 10.6, 10.3}, {}},
                                 {"high", {10.8, 11.2, 10.5, 11.0, 10.7}, {}},
                                 {"far", {20.1, 20.3, 19.9, 20.0, 20.2}, {}}});
  const auto letters = [&](const char* rig) {
    return std::find_if(spread.rigs.begin(), spread.rigs.end(),
                        [&](const RigMean& r) { return r.rig == rig; })
        ->letters;
  };
  EXPECT_EQ(letters("far"), "a");
  EXPECT_EQ(letters("high"), "b");
  EXPECT_EQ(letters("middle"), "bc");
  EXPECT_EQ(letters("low"), "c");
}

TEST(Spread, NeverTrustsPassesMoreThanTheirOwnUncertainty) {
  // Two passes that happen to agree to a thousandth are still known to 0.5 only.
  const Spread spread = compare({{"a", {5.000, 5.001}, {0.5, 0.5}}, {"b", {5.3, 5.301}, {0.5, 0.5}}});
  EXPECT_FALSE(spread.pairs[0].apart);
  EXPECT_GT(spread.rigs[0].u95, 0.5);
}

TEST(Spread, StaysUsefulWithLittle) {
  EXPECT_TRUE(compare({}).rigs.empty());
  const Spread one = compare({{"alone", {3.0}, {0.2}}, {"none", {}, {}}});
  ASSERT_EQ(one.rigs.size(), 1U);
  EXPECT_NEAR(one.rigs[0].u95, 0.2, 1e-12);
  EXPECT_TRUE(one.rigs[0].letters.empty());
  EXPECT_EQ(one.untested, std::vector<std::string>{"alone"});
  const Spread equal = compare({{"a", {2.0, 2.0}, {}}, {"b", {2.0, 2.0}, {}}});
  EXPECT_FALSE(equal.pairs[0].apart) << "equal values, and nothing is divided by nothing";
}

TEST(Spread, AsksForMorePassesWhereTwoAreTooFewToTell) {
  // Far apart, but with two passes each nothing is told apart among many: one more at least, and not "never".
  const Spread spread = compare({{"a", {7.39, 7.72}, {0.1, 0.1}},
                                 {"b", {5.42, 5.47}, {0.01, 0.01}},
                                 {"c", {3.8, 3.9}, {0.01, 0.01}},
                                 {"d", {1.0, 1.3}, {0.01, 0.01}}},
                                FurtherPasses::Find);
  ASSERT_EQ(spread.pairs.size(), 6U);
  ASSERT_FALSE(spread.pairs[0].apart);
  ASSERT_TRUE(spread.pairs[0].morePasses);
  EXPECT_GE(*spread.pairs[0].morePasses, 1U);
  EXPECT_LE(*spread.pairs[0].morePasses, 3U);
}

}  // namespace
}  // namespace fin
