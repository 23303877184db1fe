// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/speed_ladder.h"

#include <gtest/gtest.h>

#include <cmath>

#include "core/comparison/monotone_curve.h"
#include "support/reading_words.h"

namespace fin {
namespace {

/// A pull seen from the side: a roll by its flank spot, a wobble where it was told.
LadderRung fromTheSide(double speed, double roll, std::optional<double> wobble) {
  ReadingSet set;
  set.readings.push_back({ReadingId::TravelSpeed, speed, "mm/s", 1.0, 100.0});
  set.readings.push_back({ReadingId::RollAngle, roll, "deg", 1.0, 20.0});
  if (wobble) set.readings.push_back({ReadingId::WobbleAngle, *wobble, "deg", 1.0, 20.0});
  return *rungOf("pull", set, true);
}

TEST(SpeedLadder, GoesByTheActionThatMostPullsHave) {
  const SpeedLadder ladder =
      evaluateLadder({fromTheSide(60.0, 1.0, std::nullopt), fromTheSide(120.0, 14.0, 21.0),
                      fromTheSide(180.0, 30.0, std::nullopt), fromTheSide(240.0, 32.0, 40.0)});
  for (const LadderRung& rung : ladder.rungs) ASSERT_TRUE(rung.action_deg);
  EXPECT_EQ(*ladder.rungs[1].action_deg, 14.0) << "its roll, as all have one";
  ASSERT_NE(ladder.readings.find(ReadingId::OnsetSpeed), nullptr);
  const double onset = std::get<double>(ladder.readings.find(ReadingId::OnsetSpeed)->value);
  EXPECT_GT(onset, 60.0);
  EXPECT_LT(onset, 120.0);
}

LadderRung rung(double speed, std::optional<double> action, double variation = 2.0) {
  LadderRung out;
  out.name = std::to_string(static_cast<int>(speed));
  out.speed_mm_s = speed;
  out.speedU95_mm_s = 0.01 * speed;
  out.action_deg = action;
  out.actionU95_deg = 0.5;
  out.cycleVariation_percent = action ? std::optional(variation) : std::nullopt;
  return out;
}

/// A paddle tail that wakes up at about 200 mm/s and loses its rhythm at 620.
std::vector<LadderRung> paddleTail() {
  return {rung(620.0, 37.5, 41.0), rung(110.0, 1.0), rung(280.0, 32.9), rung(190.0, 3.7), rung(420.0, 38.9)};
}

double valueOf(const SpeedLadder& ladder, ReadingId name) {
  const Reading* r = ladder.readings.find(name);
  EXPECT_NE(r, nullptr) << name;
  return r != nullptr ? std::get<double>(r->value) : std::nan("");
}

std::string whyNot(const SpeedLadder& ladder, ReadingId name) {
  return test::whyRefused(ladder.readings, name);
}

TEST(MonotoneCurve, GoesThroughItsPointsAndNeverBeyondThem) {
  const std::vector<double> x{0.0, 1.0, 2.0, 4.0, 5.0};
  const std::vector<double> y{0.0, 0.1, 3.0, 3.1, 3.1};
  const MonotoneCurve curve(x, y);
  for (std::size_t i = 0; i < x.size(); ++i) EXPECT_NEAR(curve.at(x[i]), y[i], 1e-12);
  for (double t = 0.0; t < 5.0; t += 0.01) EXPECT_LE(curve.at(t), curve.at(t + 0.01) + 1e-12) << t;
  EXPECT_NEAR(curve.at(*curve.firstRiseThrough(1.5)), 1.5, 1e-9);
  EXPECT_FALSE(curve.firstRiseThrough(3.5));
  EXPECT_NEAR(MonotoneCurve({0.0, 2.0}, {0.0, 4.0}).at(0.5), 1.0, 1e-12) << "two points: a straight line";
}

TEST(SpeedLadder, FindsOnsetAndBlowoutInAnyOrderOfPasses) {
  const SpeedLadder ladder = evaluateLadder(paddleTail());
  // A fifth of 38.9° is 7.8°: monotone cubic interpolation between 190 and 280 mm/s (a line would give
  // 202.6).
  EXPECT_NEAR(valueOf(ladder, ReadingId::OnsetSpeed), 210.0, 4.0);
  EXPECT_EQ(valueOf(ladder, ReadingId::BlowoutSpeed), 620.0) << "the lowest filmed speed, not interpolated";
  EXPECT_EQ(ladder.rungs.front().speed_mm_s, 110.0);
}

TEST(SpeedLadder, ExtrapolatesNothing) {
  auto rungs = paddleTail();
  rungs.erase(rungs.begin());  // without the fastest
  EXPECT_NE(whyNot(evaluateLadder(rungs), ReadingId::BlowoutSpeed).find("420"), std::string::npos);
  const SpeedLadder fast = evaluateLadder({rung(280.0, 32.9), rung(420.0, 38.9), rung(500.0, 38.0)});
  EXPECT_NE(whyNot(fast, ReadingId::OnsetSpeed).find("film slower"), std::string::npos);
  EXPECT_NE(
      whyNot(evaluateLadder({rung(280.0, 32.9), rung(420.0, 38.9)}), ReadingId::OnsetSpeed).find("three"),
      std::string::npos);
}

TEST(SpeedLadder, TakesALostRhythmASpinOrLayingOverForBlowout) {
  auto spins = paddleTail();
  spins.front() = rung(620.0, 37.5);
  spins.front().spinTurns = 3.0;
  EXPECT_EQ(valueOf(evaluateLadder(spins), ReadingId::BlowoutSpeed), 620.0);
  auto lost = paddleTail();
  lost.front() = rung(620.0, std::nullopt);
  EXPECT_EQ(valueOf(evaluateLadder(lost), ReadingId::BlowoutSpeed), 620.0);
  EXPECT_NEAR(valueOf(evaluateLadder(lost), ReadingId::OnsetSpeed), 210.0, 4.0)
      << "its nothing does not bend the onset";
  auto over = paddleTail();
  over.back().list_deg = -95.0;
  EXPECT_EQ(valueOf(evaluateLadder(over), ReadingId::BlowoutSpeed), 420.0);
}

TEST(SpeedLadder, TakesTheKickOfAPaddleTailElseTheWobble) {
  ReadingSet set;
  set.readings = {{ReadingId::TravelSpeed, -250.0, "mm/s", 2.0, 100.0, Grade::Good, {}},
                  {ReadingId::WobbleAngle, 12.0, "deg", 0.5, 20.0, Grade::Good, {}}};
  EXPECT_EQ(rungOf("a", set, true)->action_deg, 12.0);
  EXPECT_EQ(rungOf("a", set, true)->speed_mm_s, 250.0);
  set.readings.push_back({ReadingId::KickAngle, 40.0, "deg", 0.5, 20.0, Grade::Good, {}});
  EXPECT_EQ(rungOf("a", set, true)->action_deg, 40.0);
  EXPECT_FALSE(rungOf("a", {}, true));
}

}  // namespace
}  // namespace fin
