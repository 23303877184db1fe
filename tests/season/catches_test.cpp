// SPDX-License-Identifier: GPL-3.0-or-later
// Figures of a season of four days: hours and fish of eight rigs.
#include <gtest/gtest.h>

#include "core/season/catches/compare_rates.h"
#include "core/season/catches/wear.h"

namespace fin {
namespace {

const std::vector<RigEffort> kSeason{{"Vinto 7 g", 6.5, 9}, {"Vinto 4 g", 4.0, 1}, {"Mirk", 2.0, 1},
                                     {"Skrell", 5.0, 6},    {"Oblig", 5.5, 2},     {"Oblag", 3.5, 2},
                                     {"Tavver", 3.0, 0},    {"Hasp", 7.0, 3}};

TEST(Rates, HaveTheExactBoundsOfACount) {
  const Rate vinto = *exactRate(9, 6.5);
  EXPECT_NEAR(vinto.value, 1.384615, 1e-6);
  EXPECT_NEAR(vinto.from, 0.633134, 1e-6);
  EXPECT_NEAR(vinto.to, 2.628431, 1e-6);
  const Rate none = *exactRate(0, 3.0);
  EXPECT_EQ(none.from, 0.0);
  EXPECT_NEAR(none.to, 1.229626, 1e-6);
  EXPECT_FALSE(exactRate(1, 0.0)) << "no time";
  const Rate perTen = *exactRate(9, 3 * 1.90 / 10.0);
  EXPECT_NEAR(perTen.value, 15.789474, 1e-6);
  EXPECT_NEAR(perTen.from, 7.219953, 1e-6);
  EXPECT_NEAR(perTen.to, 29.973339, 1e-6);
}

TEST(Rates, AreDrawnInByWhatRigsScatter) {
  const ShrunkRates shrunk = *shrunkRates(kSeason);
  EXPECT_EQ(shrunk.how, ShrunkRates::How::Fitted);
  EXPECT_NEAR(shrunk.a, 5.073538, 1e-5);
  EXPECT_NEAR(shrunk.b, 7.996216, 1e-5);
  EXPECT_NEAR(shrunk.rates[0].value, 0.970842, 1e-6);
  EXPECT_NEAR(shrunk.rates[0].from, 0.531735, 1e-6);
  EXPECT_NEAR(shrunk.rates[0].to, 1.539941, 1e-6);
  EXPECT_NEAR(shrunk.rates[6].value, 0.461389, 1e-6);
}

TEST(Rates, OfFewRigsOfNoSpreadAndOfNoFishAreSaidToBe) {
  const ShrunkRates few = *shrunkRates({kSeason[0], kSeason[1], kSeason[2], kSeason[3]});
  EXPECT_EQ(few.how, ShrunkRates::How::FewRigs);
  EXPECT_EQ(few.a, 1.0);
  EXPECT_NEAR(few.b, 17.5 / 17.0, 1e-12);
  EXPECT_NEAR(few.rates[0].value, 10.0 / (6.5 + 17.5 / 17.0), 1e-12);
  std::vector<RigEffort> alike(6, {"", 2.0, 2});
  const ShrunkRates same = *shrunkRates(alike);
  EXPECT_EQ(same.how, ShrunkRates::How::NoSpread);
  EXPECT_NEAR(same.rates[5].value, 1.0, 1e-12);
  for (RigEffort& rig : alike) rig.count = 0;
  const ShrunkRates none = *shrunkRates(alike);
  EXPECT_EQ(none.how, ShrunkRates::How::Raw);
  EXPECT_NEAR(none.rates[0].to, exactRate(0, 2.0)->to, 1e-12);
  EXPECT_FALSE(shrunkRates({{"", 0.0, 0}})) << "no time";
}

TEST(TwoRates, AreComparedExactly) {
  const RateRatio r = *compareRates({"", 6.5, 9}, {"", 7.0, 3});
  EXPECT_NEAR(r.p, 0.082776, 1e-6);
  EXPECT_NEAR(r.ratio, 3.230769, 1e-6);
  EXPECT_NEAR(r.from, 0.806276, 1e-6);
  EXPECT_NEAR(r.to, 18.553234, 1e-5);
  const RateRatio one = *compareRates({"", 2.0, 3}, {"", 2.0, 0});
  EXPECT_TRUE(std::isinf(one.ratio) && std::isinf(one.to));
  EXPECT_GT(one.from, 0.0);
  EXPECT_NEAR(one.p, 0.25, 1e-12) << "three heads or three tails";
  EXPECT_FALSE(compareRates({"", 2.0, 0}, {"", 2.0, 0}));
  EXPECT_FALSE(compareRates({"", 0.0, 1}, {"", 2.0, 0}));
}

TEST(TwoRates, AreComparedWithinBlocksOfPlaceAndHour) {
  const std::vector<EffortBlock> blocks{{1.0, 1.0, 3, 0}, {0.75, 1.0, 1, 1}, {1.0, 1.0, 2, 1},
                                        {0.5, 0.5, 0, 0}, {1.0, 0.75, 2, 0}, {1.0, 1.0, 1, 1}};
  const RateRatio r = *compareInBlocks(blocks);
  EXPECT_NEAR(r.p, 0.144500, 1e-6);
  EXPECT_NEAR(r.ratio, 3.020655, 1e-6);
  EXPECT_NEAR(r.from, 0.750284, 1e-6);
  EXPECT_NEAR(r.to, 17.409723, 1e-5);
  EXPECT_FALSE(compareInBlocks({{1.0, 0.0, 3, 0}})) << "the other did not fish there";
}

TEST(TwoRates, SayHowManyHoursWouldTell) {
  const auto needed = hoursToTell(1.0, 0.4);
  ASSERT_TRUE(needed);
  EXPECT_EQ(needed->each, 32.5);
  EXPECT_NEAR(needed->power, 0.802721, 1e-6);
  EXPECT_FALSE(hoursToTell(1.0, 1.0));
  EXPECT_FALSE(hoursToTell(0.011, 0.01)) << "a lifetime";
}

TEST(TankAndWater, AgreeByRankWithAnExactChance) {
  const std::vector<double> kick{36, 18, 22, 27, 12, 14};
  const std::vector<double> rates{.970842, .506288, .607584, .852059, .524113, .615293};
  const RankAgreementP agree = *spearman(kick, rates);
  EXPECT_NEAR(agree.rho, 0.714286, 1e-6);
  EXPECT_NEAR(agree.p, 0.136111, 1e-6);
  // Nine rigs are drawn: the same order is met about never, and by no draw counts as 1 in 10 001.
  const std::vector<double> nine{1, 2, 3, 4, 5, 6, 7, 8, 9};
  EXPECT_NEAR(spearman(nine, nine)->p, 1.0 / 10001.0, 3e-4);
  EXPECT_FALSE(spearman({1, 1, 1}, {1, 2, 3}));
  EXPECT_FALSE(spearman({1, 2}, {1, 2}));
  std::vector<RigEffort> five(kSeason.begin(), kSeason.begin() + 5);
  EXPECT_EQ(
      tooFewForTheWater(five),
      "too few to tell: 5 of 6 rigs that were both measured and fished, 19 of 10 fish, 23.0 of 20 rod-hours");
  EXPECT_EQ(tooFewForTheWater(kSeason), "");
}

TEST(Wear, IsASlopeOverRodHours) {
  // y = 36 − 2 x with ±0.1 about it: residual sum of squares 0.04 where two lie over and two under.
  const auto wear = slopeOver({{0, 36.1}, {1, 33.9}, {2, 31.9}, {3, 30.1}});
  ASSERT_TRUE(wear);
  EXPECT_NEAR(wear->perHour, -2.0, 1e-12);
  EXPECT_NEAR(wear->to - wear->perHour, 4.302653 * std::sqrt(0.04 / 2.0 / 5.0), 1e-6);
  EXPECT_FALSE(slopeOver({{0, 1}, {1, 2}, {2, 3}})) << "three days";
}

TEST(Wear, GoesByTheHoursFishedBeforeEachTestDay) {
  RigHistory history{.rig = "Vinto"};
  std::vector<FishedDay> fished;
  for (int month = 3; month <= 6; ++month) {
    const std::string date = "2027-0" + std::to_string(month) + "-10";
    history.days.push_back({.day = month, .date = date});
    history.history.days.push_back({36.0 - 2.0 * (month - 3), 2});
    // Two hours with it and one with another, after that test.
    RunningDay run;
    run.stints = {{.rig = 11, .from_s = 0.0, .to_s = 7200.0}, {.rig = 12, .from_s = 0.0, .to_s = 3600.0}};
    fished.push_back({"2027-0" + std::to_string(month) + "-20", run});
  }
  const auto wear = wearOf(history, 11, fished);
  ASSERT_TRUE(wear);
  EXPECT_NEAR(wear->perHour, -1.0, 1e-12);
  EXPECT_FALSE(wearOf(history, 99, fished)) << "it was not fished";
}

}  // namespace
}  // namespace fin
