// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/cadence.h"

#include <gtest/gtest.h>

#include "support/reading_words.h"

namespace fin {
namespace {

CadenceRung rung(double interval_s, double rise_mm, double u95_mm = 1.0) {
  return {"pass", interval_s, rise_mm, u95_mm};
}

TEST(Cadence, HasTheIntervalsFromWhichItHoldsAndNoLongerClimbs) {
  const CadenceLadder ladder = evaluateCadence({rung(1.5, -2.0), rung(0.5, 30.0), rung(1.0, 12.0)});
  ASSERT_EQ(ladder.readings.readings.size(), 2U);
  EXPECT_NEAR(*numberIn(ladder.readings, ReadingId::HoldInterval), 1.25, 1e-9);
  EXPECT_NEAR(*numberIn(ladder.readings, ReadingId::LevelInterval), 1.4286, 5e-5);
  // A millimetre of either neighbour is worth 0.036 s between them, both nearly half of that each.
  EXPECT_NEAR(*ladder.readings.find(ReadingId::HoldInterval)->u95, 0.026, 0.008);
}

TEST(Cadence, LevelsAClimbThatSeemsToGrow) {
  // 10 and 14 mm are one level of 12.
  const CadenceLadder ladder =
      evaluateCadence({rung(0.5, 30.0), rung(1.0, 10.0), rung(1.5, 14.0), rung(2.0, -2.0)});
  EXPECT_NEAR(*numberIn(ladder.readings, ReadingId::HoldInterval), 1.75, 1e-9);
}

TEST(Cadence, SaysNothingBeyondWhatWasFilmed) {
  const CadenceLadder climbs = evaluateCadence({rung(0.5, 30.0), rung(1.0, 12.0)});
  ASSERT_EQ(climbs.readings.refused.size(), 2U);
  EXPECT_NE(climbs.readings.refused[0].why.find("film slower twitches"), std::string::npos);
  const CadenceLadder sinks = evaluateCadence({rung(1.0, -3.0), rung(2.0, -9.0)});
  EXPECT_NE(sinks.readings.refused[1].why.find("film quicker twitches"), std::string::npos);
  const CadenceLadder alone = evaluateCadence({rung(1.0, 8.0), rung(1.05, 6.0)});
  EXPECT_NE(alone.readings.refused[0].why.find("two intervals"), std::string::npos);
}

TEST(Cadence, TakesRigsThatWereTwitchedAtSeveralIntervals) {
  std::vector<ComparedPass> passes;
  const auto add = [&](const std::string& rig, double interval_s, double rise_mm) {
    ComparedPass pass{.id = PassId(static_cast<std::int64_t>(passes.size() + 1)), .title = "t", .rig = rig};
    pass.protocol = Protocol::Twitch;
    pass.readings.readings = {{ReadingId::TwitchInterval, interval_s, "s", 0.01, 6.0},
                              {ReadingId::RisePerTwitch, rise_mm, "mm", 1.0, 6.0}};
    passes.push_back(std::move(pass));
  };
  add("Lark", 0.5, 20.0);
  add("Rill", 1.0, 4.0);
  add("Lark", 1.5, -5.0);
  add("Rill", 1.04, 6.0);
  const auto found = cadencesOf(passes);
  ASSERT_EQ(found.size(), 1U);
  EXPECT_EQ(found.front().first, "Lark");
}

}  // namespace
}  // namespace fin
