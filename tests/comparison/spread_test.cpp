// SPDX-License-Identifier: GPL-3.0-or-later
// A worked day of fall rates, and days that are too small. Two rigs: against R 4.3's t.test on its sleep
// data.
#include "core/comparison/spread.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

#include "core/comparison/apart/letters.h"
#include "core/comparison/apart/passes_needed.h"

namespace fin {
namespace {

constexpr ReadingId kRate = ReadingId::FallRate;  // by ratios
constexpr ReadingId kRise = ReadingId::RiseRate;  // has a sign: by differences

struct Day {
  std::vector<ComparedRig> rigs;
  explicit Day(double lengthU95 = 0.0) {
    const double rates[4][3] = {{402, 411, 395}, {428, 440, 419}, {405, 417, 399}, {470, 478, 455}};
    for (int r = 0; r < 4; ++r) {
      ComparedRig& rig = rigs.emplace_back(ComparedRig{std::string(1, static_cast<char>('A' + r)), {}});
      for (int b = 0; b < 3; ++b)
        rig.values.push_back({.value = rates[r][b],
                              .u95 = lengthU95 * rates[r][b],
                              .block = b + 1,
                              .cameraDay = "camera",
                              .lengthU95 = lengthU95});
    }
  }
};
ComparedRig plain(const char* name, const std::vector<double>& values, double u95 = 0.0) {
  ComparedRig rig{name, {}};
  for (const double v : values) rig.values.push_back({.value = v, .u95 = u95});
  return rig;
}
const RigMean& named(const Spread& spread, const std::string& name) {
  return *std::find_if(spread.rigs.begin(), spread.rigs.end(),
                       [&](const RigMean& r) { return r.rig == name; });
}
const RigPair& pairOf(const Spread& spread, const std::string& a, const std::string& b) {
  return *std::find_if(spread.pairs.begin(), spread.pairs.end(), [&](const RigPair& p) {
    return spread.rigs[p.a].rig == a && spread.rigs[p.b].rig == b;
  });
}

TEST(Spread, TellsApartAlikeAndTooClose) {
  const Spread spread = compare(Day(0.007).rigs, kRate);
  ASSERT_EQ(spread.pairs.size(), 6U);
  const RigPair& ca = pairOf(spread, "C", "A");
  EXPECT_NEAR(ca.p, 0.145938, 1e-6);
  EXPECT_NEAR(std::log1p(ca.to) - std::log1p(ca.difference), 0.013872, 1e-6) << "the known length cancels";
  EXPECT_NEAR(1.0 / (1.0 + ca.to), 0.975759, 1e-6);
  EXPECT_NEAR(1.0 / (1.0 + ca.from), 1.003209, 1e-6);
  EXPECT_NEAR(std::log1p(ca.alikeWithin), 0.024540, 1e-6);
  EXPECT_FALSE(ca.apart);
  EXPECT_NEAR(0.5 * std::log(named(spread, "A").to / named(spread, "A").from), 0.009158, 1e-6);
  EXPECT_EQ(named(spread, "D").letters, "a");
  EXPECT_EQ(named(spread, "B").letters, "b");
  EXPECT_EQ(named(spread, "A").letters, "c");
  EXPECT_EQ(named(spread, "C").letters, "c");
  for (const RigMean& rig : spread.rigs) {
    EXPECT_EQ(rig.mayBeMost, rig.rig == "D");
    EXPECT_EQ(rig.mayBeLeast, rig.rig == "A" || rig.rig == "C");
  }
  EXPECT_EQ(named(spread, "D").placeTo, 1U);
  EXPECT_EQ(named(spread, "B").placeFrom, 2U);
  EXPECT_EQ(named(spread, "A").placeFrom, 3U);
  EXPECT_EQ(named(spread, "A").placeTo, 4U);
}

TEST(Spread, CallsAlikeWhatDiffersByLessThanIsWorthHaving) {
  const Day day(0.007);
  const auto ca = [&](double worth) {
    return pairOf(compare(day.rigs, kRate, {.furtherPasses = true, .worth = worth}), "C", "A");
  };
  EXPECT_TRUE(ca(0.03).alike) << "2.5 % apart at most";
  EXPECT_FALSE(ca(0.03).morePasses) << "nothing is left to settle";
  EXPECT_FALSE(ca(0.02).alike);
  ASSERT_TRUE(ca(0.005).morePasses);
  EXPECT_GT(*ca(0.005).morePasses, *ca(0.02).morePasses) << "less takes more passes";
  const Spread wide = compare(day.rigs, kRate, {.worth = 0.5});
  EXPECT_TRUE(pairOf(wide, "D", "A").apart && pairOf(wide, "D", "A").alike)
      << "told apart, by too little to matter";
  // A ratio says nothing of what is compared by difference that day.
  EXPECT_FALSE(
      pairOf(compare({plain("a", {10, 10.1, 9.9}), plain("b", {10, 10.1, -9})}, kRate, {.worth = 1e3}), "a",
             "b")
          .alike);
}

TEST(Spread, AddsTheErrorsOfTwoCamerasAndDays) {
  Day day(0.007);
  for (ComparedValue& v : day.rigs[2].values) v.cameraDay = "another";
  const RigPair ca = pairOf(compare(day.rigs, kRate), "C", "A");
  EXPECT_NEAR(std::log1p(ca.to) - std::log1p(ca.difference), 0.017042, 1e-6);
  EXPECT_GT(ca.p, 0.145938);
}

TEST(Spread, LooksOnTheWaySpendAShareOfTheLevel) {
  const Spread atEnd = compare(Day().rigs, kRate);
  const Spread early = compare(Day().rigs, kRate, {.share = 0.25});
  EXPECT_NEAR(pairOf(early, "B", "A").p, 4.0 * pairOf(atEnd, "B", "A").p, 1e-9);
  EXPECT_FALSE(lookAt(2));
  EXPECT_EQ(lookAt(5)->passes, 4U);
  EXPECT_EQ(lookAt(5)->share, 0.35);
}

TEST(Spread, KnowsHowManyPassesWouldSettleIt) {
  PassesNeeded eight(8);
  EXPECT_EQ(eight(4.0), 3U);
  EXPECT_NEAR(eight.power(4.0, 3), 0.802178, 1e-5);
  EXPECT_EQ(eight(-3.0), 5U);
  EXPECT_NEAR(eight.power(3.0, 5), 0.861911, 1e-5);
  EXPECT_EQ(eight(2.0), 10U);
  EXPECT_NEAR(eight.power(2.0, 10), 0.852607, 1e-5);
  EXPECT_EQ(eight(0.0), std::nullopt);
  EXPECT_EQ(eight(0.01), std::nullopt);
  PassesNeeded two(2);
  EXPECT_EQ(two(1.0), 17U);  // power.t.test(delta = 1, sd = 1, power = .8): 16.71
  EXPECT_EQ(two(0.5), 64U);  // 63.77
  const Spread spread = compare(Day().rigs, kRate, {.furtherPasses = true});
  ASSERT_TRUE(pairOf(spread, "C", "A").morePasses);
  EXPECT_GE(*pairOf(spread, "C", "A").morePasses, 1U);
  EXPECT_FALSE(pairOf(spread, "D", "A").morePasses) << "apart already";
}

TEST(Spread, ComparesTwoAsWelchDid) {
  const Spread spread = compare({plain("first", {0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0.0, 2.0}),
                                 plain("second", {1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4})},
                                kRise, {.furtherPasses = true});
  ASSERT_EQ(spread.rigs.size(), 2U);
  EXPECT_EQ(spread.rigs[0].rig, "second") << "the larger one first";
  EXPECT_NEAR(spread.rigs[0].mean, 2.33, 1e-12);
  EXPECT_NEAR(spread.rigs[0].u95(), 2.262157 * 2.002249 / std::sqrt(10.0), 1e-5);
  ASSERT_EQ(spread.pairs.size(), 1U);
  EXPECT_NEAR(spread.pairs[0].p, 0.07939, 5e-6);
  EXPECT_NEAR(spread.pairs[0].to, 3.365483, 1e-5);
  EXPECT_EQ(spread.rigs[0].letters, spread.rigs[1].letters);
  // power.t.test(delta = 1.58, sd = 1.898626, power = .8): 23.66, so 14 more of each.
  EXPECT_EQ(spread.pairs[0].morePasses, 14U);
}

TEST(Spread, LetsRigsThatCannotBeToldApartShareALetter) {
  EXPECT_EQ(lettersFor(4, {{0, 1}, {0, 2}, {0, 3}, {1, 3}}), (std::vector<std::string>{"a", "b", "bc", "c"}));
}

TEST(Spread, NeverTrustsPassesMoreThanTheirOwnUncertainty) {
  // Two passes that happen to agree to a thousandth are still known to 0.5 only.
  const Spread spread = compare({plain("a", {5.000, 5.001}, 0.5), plain("b", {5.3, 5.301}, 0.5)}, kRise);
  EXPECT_FALSE(spread.pairs[0].apart);
  EXPECT_GT(spread.rigs[0].u95(), 0.5);
}

TEST(Spread, LeavesRatiosWhereAValueIsNotAboveNoughtAndSaysSo) {
  const Spread ratios = compare({plain("a", {5.0, 5.1}), plain("b", {7.0, 7.2})}, kRate);
  EXPECT_TRUE(ratios.byRatio());
  EXPECT_FALSE(ratios.notByRatio);
  const Spread plainly = compare({plain("a", {5.0, 0.0}), plain("b", {7.0, 7.2})}, kRate);
  EXPECT_FALSE(plainly.byRatio());
  EXPECT_TRUE(plainly.notByRatio);
  EXPECT_TRUE(compare({plain("a", {5.0, 5.1}, 2.0), plain("b", {7.0, 7.2})}, kRate).notByRatio)
      << "too unsure";
}

TEST(Spread, OfSharesCountsWhatTheyAreOf) {
  const auto shares = [](double n) {
    std::vector<ComparedRig> rigs{plain("a", {60.0, 60.0}), plain("b", {25.0, 25.0})};
    for (ComparedRig& rig : rigs) {
      for (ComparedValue& v : rig.values) v.n = n;
    }
    return compare(rigs, ReadingId::SideSwitch);
  };
  EXPECT_EQ(shares(10).scaling, Scaling::Share);
  EXPECT_LT(shares(100).pairs[0].p, shares(10).pairs[0].p);
  EXPECT_GE(shares(10).rigs[1].from, 0.0);
  EXPECT_NEAR(shares(1000).rigs[1].mean, 25.0, 0.3);
}

TEST(Spread, AveragesRepeatsOfOneTying) {
  std::vector<ComparedRig> once = Day().rigs, twice = once;
  for (ComparedRig& rig : twice) {
    const std::vector<ComparedValue> values = rig.values;
    rig.values.insert(rig.values.end(), values.begin(), values.end());
  }
  EXPECT_NEAR(pairOf(compare(twice, kRate), "C", "A").p, pairOf(compare(once, kRate), "C", "A").p, 1e-9)
      << "they are no passes of their own";
  EXPECT_EQ(compare(twice, kRate).rigs[0].passes, 6U);
  for (ComparedRig& rig : twice) {
    for (ComparedValue& v : rig.values) v.tiedOnAgain = true;
  }
  EXPECT_LT(pairOf(compare(twice, kRate), "C", "A").p, 0.05);
}

TEST(Spread, StaysUsefulWithLittle) {
  EXPECT_TRUE(compare({}, kRise).rigs.empty());
  const Spread one = compare({plain("alone", {3.0}, 0.2), ComparedRig{"none", {}}}, kRise);
  ASSERT_EQ(one.rigs.size(), 1U);
  EXPECT_NEAR(one.rigs[0].u95(), 0.2, 1e-12);
  EXPECT_TRUE(one.rigs[0].letters.empty());
  const Spread once =
      compare({plain("a", {3.0}, 0.2), plain("b", {5.0}, 0.2), plain("c", {6.0}, 0.2)}, kRise);
  EXPECT_TRUE(once.pairs.empty());
  EXPECT_NE(once.whyNoPairs.find("two passes"), std::string::npos);
  const Spread equal = compare({plain("a", {2.0, 2.0}), plain("b", {2.0, 2.0})}, kRise);
  EXPECT_TRUE(equal.pairs.empty()) << "equal values, and nothing is divided by nothing";
  EXPECT_FALSE(equal.whyNoPairs.empty());
}

}  // namespace
}  // namespace fin
