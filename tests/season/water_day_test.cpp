// SPDX-License-Identifier: GPL-3.0-or-later
// The running day: tiers, the clock of the rods, currents, and what goes into the box.
#include <gtest/gtest.h>

#include <random>

#include "core/season/box.h"
#include "core/season/catches/effort.h"
#include "core/season/tiers.h"
#include "core/water/current.h"
#include "core/water/weight_change.h"

namespace fin {
namespace {

std::vector<TierRig> sixRigs() {
  return {{1, "A", 1200, 1560, 120.0}, {2, "B", 1120, 1560, 100.0}, {3, "C", 1070, 1250, 70.0},
          {4, "D", 1070, 1250, 64.0},  {5, "E", 580, 900, 45.0},    {6, "F", 450, 760, 40.0}};
}

TEST(Tiers, GoDownFromFastAndLongToSlowAndShort) {
  const auto tiers = tiersOf(sixRigs(), 2);
  ASSERT_TRUE(tiers) << tiers.error().message;
  ASSERT_EQ(tiers->size(), 3U);
  EXPECT_EQ((*tiers)[0].rigs, (std::vector<std::size_t>{0, 1}));
  EXPECT_EQ((*tiers)[0].middle(), 1380.0);
  EXPECT_EQ((*tiers)[1].rigs, (std::vector<std::size_t>{2, 3}));
  EXPECT_EQ((*tiers)[1].middle(), 1160.0);
  EXPECT_EQ((*tiers)[2].rigs, (std::vector<std::size_t>{4, 5}));
  EXPECT_EQ((*tiers)[2].middle(), 670.0);
}

TEST(Tiers, PreferWhatWasMeasuredAndRefuseWhatSharesNothing) {
  auto rigs = sixRigs();
  rigs[3].heard = true;
  rigs.push_back({7, "G", 1070, 1250, 66.0});
  const auto tiers = tiersOf(rigs, 2);
  ASSERT_TRUE(tiers);
  EXPECT_EQ((*tiers)[1].rigs, (std::vector<std::size_t>{2, 6})) << "not the one that was only heard of";
  EXPECT_FALSE(tiersOf({{1, "A", 100, 200, 50.0}, {2, "B", 300, 400, 40.0}}, 2)) << "they share nothing";
  EXPECT_FALSE(tiersOf({{1, "A", 100, 200, 50.0}, {2, "B", 100, 200, 40.0}}, 2)) << "one tier is none";
  EXPECT_FALSE(tiersOf(sixRigs(), 0));
  auto rising = sixRigs();
  rising[4].length_mm = rising[5].length_mm = 300.0;
  EXPECT_EQ(tiersOf(rising, 2)->size(), 2U) << "a longer lure never follows a shorter one";
  Rack rack;
  rack.models = {{.id = 1, .name = "V", .length_mm = 90.0}};
  rack.rigs = {{.id = 11, .model = 1, .name = "a"},
               {.id = 12, .model = 1, .name = "b", .heard = {.slowest_mm_s = 300.0, .fastest_mm_s = 500.0}},
               {.id = 13, .model = 1, .name = "c"}};
  const auto from = tierRigsOf(rack, {{"V, a", 200, 400, true}, {"V, c", 90, 110, false}});
  ASSERT_EQ(from.size(), 2U) << "one speed is no band";
  EXPECT_FALSE(from[0].heard);
  EXPECT_TRUE(from[1].heard);
}

TEST(Tiers, AreLeftForReasonsAndABiteStays) {
  EXPECT_EQ(adviceFor({.sinceTouch_rodMin = 31}).go, TierAdvice::Go::Down);
  EXPECT_EQ(adviceFor({.sinceTouch_rodMin = 29}).go, TierAdvice::Go::Stay);
  EXPECT_EQ(adviceFor({.dusk = true}).go, TierAdvice::Go::Up);
  const TierAdvice both = adviceFor({.sun = true, .crests = true});
  EXPECT_EQ(both.go, TierAdvice::Go::Stay);
  EXPECT_EQ(both.because.size(), 2U) << "what speaks for each is said";
  EXPECT_EQ(adviceFor({.sinceTouch_rodMin = 99, .justBitten = true}).go, TierAdvice::Go::Stay);
  EXPECT_NEAR(100.0 * chanceOfSilence(0.5, 2.0 * 0.5), 60.6531, 1e-4);
}

TEST(Current, AddsToATowedLureAsVectorsDo) {
  EXPECT_NEAR(*throughWater(1200, 300, 0), 900.0, 1e-9);
  EXPECT_NEAR(*throughWater(1200, 300, 90), 1236.931688, 1e-6);
  EXPECT_NEAR(*throughWater(1200, 300, 180), 1500.0, 1e-9);
  EXPECT_NEAR(*overGround(1000, 300, 90), 953.939201, 1e-6);
  EXPECT_FALSE(overGround(200, 300, 90)) << "the current is faster than the lure";
  EXPECT_FALSE(throughWater(-1, 300, 0));
}

TEST(Current, SwingsACastThroughTheAnglesAtWhichItWorks) {
  const auto angles = workingAngles(260, 200, 121, 310);
  ASSERT_TRUE(angles);
  EXPECT_NEAR(angles->from_deg, 45.972783, 1e-6);
  EXPECT_NEAR(angles->to_deg, 104.477512, 1e-6);
  EXPECT_NEAR(castInCurrent(260, 200, angles->from_deg)->alongLine, 121.0, 1e-9);
  EXPECT_NEAR(castInCurrent(260, 200, 90)->sideways, 200.0, 1e-9);
  EXPECT_FALSE(workingAngles(100, 50, 300, 400));
  EXPECT_FALSE(workingAngles(900, 50, 300, 400));
  EXPECT_NEAR(*reelAsTheCurrent(200, 60), 100.0, 1e-9);
  EXPECT_EQ(*reelAsTheCurrent(200, 120), 0.0);
}

TEST(Speeds, AreThoseOfAnglers) {
  const double mm_s = 1.8 / kMilesPerHour;
  EXPECT_NEAR(mm_s, 804.672, 1e-9);
  EXPECT_NEAR(mm_s * kKilometresPerHour, 2.896819, 1e-6);
  EXPECT_NEAR(mm_s * kKnots, 1.564157, 1e-6);
  // 3 m at 210 mm/s and τ 0.16 s.
  EXPECT_NEAR(countdown(Millimetres(3000), MillimetresPerSecond(210), Seconds(0.16)).value(), 14.396618,
              1e-6);
}

std::vector<BoxLure> sixLures() {
  const auto lure = [](const char* name, std::vector<std::optional<double>> points, double price) {
    return BoxLure{name, std::move(points), price};
  };
  return {lure("A", {9, 3, 2, 8.5, 6}, 1.9),   lure("B", {2, 9.5, 8.5, 4, 3}, 17.5),
          lure("C", {8.2, 8.6, 1, 2, 9}, 7.2), lure("D", {3, 2, 7.8, 9.2, 8.4}, 4.1),
          lure("E", {8.4, 1, 9, 3, 2}, 8.4),   lure("F", {1, 8.8, 2, 8.6, 4}, 2.4)};
}
const std::vector<double> kWeights{2, 1, 1, 1, 1};

TEST(BoxTest, HoldsTheFewestLuresThatCover) {
  const auto box = fewestLures(sixLures(), kWeights);
  ASSERT_TRUE(box);
  EXPECT_EQ(box->lures, (std::vector<std::size_t>{0, 1, 3}));
  EXPECT_NEAR(box->loss, 0.183333, 1e-6);
  const auto two = bestForSlots(sixLures(), kWeights, 2);
  ASSERT_TRUE(two);
  EXPECT_EQ(two->lures, (std::vector<std::size_t>{2, 3}));
  EXPECT_NEAR(two->loss, 0.616667, 1e-6);
}

TEST(BoxTest, SaysWhatToBuyFirstAndWhatNoLureCovers) {
  auto lures = sixLures();
  lures[1].owned = lures[4].owned = true;
  const auto buy = buyFirst(lures, kWeights);
  ASSERT_TRUE(buy && *buy);
  EXPECT_EQ((*buy)->lure, 0U);
  EXPECT_NEAR((*buy)->savedPerPrice, 0.763158, 1e-6);
  for (BoxLure& lure : lures) {
    lure.owned = true;
    lure.points[2].reset();
  }
  EXPECT_FALSE(*buyFirst(lures, kWeights)) << "there is nothing left to buy";
  EXPECT_EQ(fewestLures(lures, kWeights)->uncovered, std::vector<std::size_t>{2});
  EXPECT_FALSE(fewestLures(lures, {1, 1}));
  EXPECT_FALSE(fewestLures(lures, {1, 1, 1, 1, 0}));
  EXPECT_TRUE(fewestLures({}, {1.0})->lures.empty());
}

TEST(BoxTest, IsFoundExactlyForFortyLuresAndTwentyPurposes) {
  std::mt19937 random(5);
  std::vector<BoxLure> lures(40);
  for (BoxLure& lure : lures) {
    for (int p = 0; p < 20; ++p) lure.points.emplace_back(static_cast<double>(random() % 1000) / 100.0);
    lure.price = 1.0;
  }
  const std::vector<double> weights(20, 1.0);
  const auto box = fewestLures(lures, weights);
  ASSERT_TRUE(box);
  EXPECT_TRUE(box->uncovered.empty());
  EXPECT_LT(box->loss, 1.0) << "each within a point";
  // No box of as many slots loses less.
  const auto slots = bestForSlots(lures, weights, 2);
  for (std::size_t a = 0; a < 40; ++a) {
    for (std::size_t b = a + 1; b < 40; ++b) {
      double loss = 0.0;
      for (std::size_t p = 0; p < 20; ++p) {
        double best = 0.0;
        for (const BoxLure& l : lures) best = std::max(best, *l.points[p]);
        loss += (best - std::max(*lures[a].points[p], *lures[b].points[p])) / 20.0;
      }
      EXPECT_GE(loss, slots->loss - 1e-9);
    }
  }
}

TEST(Spares, AreAsManyAsAreLikelyLost) {
  const auto spares = sparesFor(2, 9.0, 6.0);
  ASSERT_TRUE(spares);
  EXPECT_EQ(spares->take, 4U);
  EXPECT_NEAR(spares->tooFew, 0.065558, 1e-6);
  EXPECT_EQ(sparesFor(0, 9.0, 0.0)->take, 0U);
  EXPECT_FALSE(sparesFor(1, 0.0, 6.0));
}

/// Events at minutes of a day.
struct Day {
  Day& at(double minute, RunEventKind kind, int rod, RigId rig = {}) {
    RunEvent event{.id = static_cast<std::int64_t>(events.size() + 1),
                   .at_s = 1e9 + 60.0 * minute,
                   .kind = kind,
                   .rod = rod,
                   .rig = rig};
    events.push_back(event);
    return *this;
  }
  [[nodiscard]] RunningDay until(double minute, int rods = 2) const {
    return runOf(events, rods, 1e9 + 60.0 * minute);
  }
  std::vector<RunEvent> events;
};
using Kind = RunEventKind;

TEST(RunningDayTest, CountsTheClockBetween) {
  Day day;
  day.at(0, Kind::Tie, 1, 11).at(0, Kind::Tie, 2, 12).at(5, Kind::Fish, 1).at(10, Kind::Fish, 2);
  day.at(20, Kind::Caught, 1).at(30, Kind::Tie, 1, 13).at(40, Kind::Rest, 2).at(45, Kind::Missed, 1);
  const RunningDay run = day.until(60);
  const auto tallies = talliesOf({run});
  ASSERT_EQ(tallies.size(), 3U);
  const auto hoursOf = [&](RigId rig) {
    for (const RigTally& t : tallies) {
      if (t.rig == rig) return t.hours;
    }
    return -1.0;
  };
  EXPECT_NEAR(hoursOf(11), 25.0 / 60.0, 1e-12);
  EXPECT_NEAR(hoursOf(12), 30.0 / 60.0, 1e-12);
  EXPECT_NEAR(hoursOf(13), 30.0 / 60.0, 1e-12) << "it is still at work";
  EXPECT_EQ(run.touches[0].rig, RigId(11));
  EXPECT_EQ(run.touches[1].rig, RigId(13));
  EXPECT_EQ(run.count(Kind::Caught), 1U);
  EXPECT_NEAR(run.sinceTouch_rodMin(), 15.0, 1e-9) << "one rod since the miss";
  EXPECT_NEAR(*run.toFirstTouch_rodMin(), 25.0, 1e-9);
  EXPECT_TRUE(run.rods[0].working);
  EXPECT_FALSE(run.rods[1].working);
  EXPECT_TRUE(run.troubles.empty());
}

TEST(RunningDayTest, TakesNoTimeFromAClockThatJumpsOrAGap) {
  Day day;
  day.at(0, Kind::Tie, 1, 11)
      .at(0, Kind::Fish, 1)
      .at(30, Kind::Missed, 1)
      .at(10, Kind::Missed, 1)
      .at(40, Kind::Rest, 1);
  const RunningDay back = day.until(40);
  EXPECT_NEAR(back.rodHours(), 40.0 / 60.0, 1e-12);
  ASSERT_EQ(back.troubles.size(), 1U);
  EXPECT_NE(back.troubles[0].find("went back"), std::string::npos);
  Day slept;
  slept.at(0, Kind::Tie, 1, 11).at(0, Kind::Fish, 1).at(30, Kind::Gap, 1).at(200, Kind::Rest, 1);
  slept.events[2].until_s = 1e9 + 60.0 * 180;
  EXPECT_NEAR(slept.until(200).rodHours(), 50.0 / 60.0, 1e-12) << "asleep from 30 to 180";
  slept.events[2].fished = true;
  EXPECT_NEAR(slept.until(200).rodHours(), 200.0 / 60.0, 1e-12);
}

TEST(RunningDayTest, AsksOfWhichRigWhereTheRodWasPutDown) {
  Day day;
  day.at(0, Kind::Tie, 1, 11).at(0, Kind::Fish, 1).at(30, Kind::Rest, 1).at(35, Kind::Caught, 1);
  EXPECT_FALSE(day.until(60).touches[0].rig);
  EXPECT_EQ(day.until(60).troubles.size(), 1U);
  day.events.back().rig = 11;
  EXPECT_EQ(day.until(60).touches[0].rig, RigId(11));
  EXPECT_TRUE(day.until(60).troubles.empty());
  EXPECT_EQ(Day().until(60).rodHours(), 0.0) << "nothing happened";
}

TEST(RunningDayTest, KnowsWastedTimeLostLuresAndBlocks) {
  Day day;
  day.at(0, Kind::Tie, 1, 1)
      .at(0, Kind::Tie, 2, 6)
      .at(0, Kind::Fish, 1)
      .at(0, Kind::Fish, 2)
      .at(30, Kind::Lost, 2)
      .at(60, Kind::Rest, 1);
  day.events[0].speed_mm_s = 1300.0;
  day.events[1].speed_mm_s = 1300.0;  // far too fast for F
  day.events[2].block = day.events[3].block = 1;
  const RunningDay run = day.until(60);
  const Wasted wasted = wastedOf(run, sixRigs(), 2);
  EXPECT_NEAR(wasted.outsideBand_rodMin, 30.0, 1e-9);
  EXPECT_NEAR(wasted.outOfWater_rodMin, 30.0, 1e-9) << "the second rod after its lure was lost";
  EXPECT_FALSE(run.rods[1].rig);
  const auto blocks = blocksOf({run}, 1, 6);
  ASSERT_EQ(blocks.size(), 1U);
  EXPECT_NEAR(blocks[0].hoursFirst, 1.0, 1e-12);
  EXPECT_NEAR(blocks[0].hoursSecond, 0.5, 1e-12);
  const auto order = firstOnFirstRod(6, 7);
  EXPECT_EQ(std::count(order.begin(), order.end(), true), 3);
}

}  // namespace
}  // namespace fin
