// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include "core/season/claims.h"
#include "core/season/forecast.h"
#include "core/season/retest.h"
#include "core/units/date.h"

namespace fin {
namespace {

TEST(Claims, AreKeptOnlyWhereTheWholeIntervalIsWithin) {
  const Claim hangs{
      .id = 1, .model = 1, .words = "hangs", .reading = ReadingId::RiseRate, .least = -5.0, .most = 5.0};
  EXPECT_EQ(stateOf(hangs, {}), ClaimState::Untested);
  EXPECT_EQ(stateOf(hangs, ReadRange{-4.0, 5.0}), ClaimState::Kept);
  EXPECT_EQ(stateOf(hangs, ReadRange{-4.0, 6.0}), ClaimState::Undecided);
  EXPECT_EQ(stateOf(hangs, ReadRange{29.0, 33.0}), ClaimState::Broken);
  EXPECT_EQ(stateOf(hangs, ReadRange{-9.0, -6.0}), ClaimState::Broken);
  Claim fast = hangs;
  fast.most.reset();
  EXPECT_EQ(stateOf(fast, ReadRange{29.0, 33.0}), ClaimState::Kept);
}

TEST(Forecast, IsScoredByWhatCameOut) {
  const auto score =
      brierScore({{0.9, true}, {0.7, false}, {0.5, true}, {0.1, false}, {0.8, true}, {0.9, {}}});
  ASSERT_TRUE(score);
  EXPECT_NEAR(*score, 0.16, 1e-12);
  EXPECT_FALSE(brierScore({{0.9, {}}})) << "it lies across the line";
}

/// Rigs in this order, those named as close not told apart.
Spread orderOf(const std::string& order, const std::string& close = "") {
  Spread out;
  for (const char c : order) out.rigs.push_back({.rig = std::string(1, c)});
  for (std::size_t a = 0; a < order.size(); ++a) {
    for (std::size_t b = a + 1; b < order.size(); ++b) {
      const bool near =
          close.find(order[a]) != std::string::npos && close.find(order[b]) != std::string::npos;
      out.pairs.push_back({.a = a, .b = b, .apart = !near});
    }
  }
  return out;
}

TEST(Forecast, OfAnOrderCountsPairsThatWereToldApart) {
  const std::vector<std::string> foretold{"A", "B", "C", "D", "E"};
  EXPECT_NEAR(orderForetold(foretold, orderOf("BADCE"))->share(), 0.2, 1e-12);
  EXPECT_NEAR(orderForetold(foretold, orderOf("BADCE", "CD"))->share(), 0.111111, 1e-6);
  EXPECT_FALSE(orderForetold(foretold, orderOf("BA", "AB")));
  EXPECT_EQ(orderForetold({"A", "B"}, orderOf("BAX"))->apart, 1U) << "of X nothing was foretold";
}

TEST(Retest, PlansTheSamePassesOnceMoreAndNamesTheChange) {
  DayPlan day;
  day.name = "Pool";
  day.sheet = {
      {.id = 3, .rig = 7, .speed_mm_s = 250.0, .block = 2, .state = PassState::Fouled, .whyFouled = "a leaf"},
      {.id = 4, .rig = 7, .block = 2, .attempt = 2, .state = PassState::Done, .finished_s = 1e9}};
  day.heldEqual[0].exception = "another rod";
  const DayPlan again = retestOf(day, 20, "2027-06-01", "another hook");
  EXPECT_EQ(again.id, DayId(20));
  EXPECT_EQ(again.date, "2027-06-01");
  EXPECT_EQ(again.name, "Pool, again: another hook");
  ASSERT_EQ(again.sheet.size(), 1U);
  EXPECT_EQ(again.sheet[0].id, PlannedPassId(21));
  EXPECT_EQ(again.sheet[0].state, PassState::Planned);
  EXPECT_EQ(again.sheet[0].speed_mm_s, 250.0);
  EXPECT_EQ(again.sheet[0].whyFouled, "");
  EXPECT_EQ(again.heldEqual.front().exception, "");
  EXPECT_EQ(again.heldEqual.back().value, "another hook");
}

TEST(Dates, AreDaysOfTheCalendar) {
  EXPECT_EQ(dateAt(0.0), "1970-01-01");
  EXPECT_EQ(dateAt(1809216000.0 + 3600.0), "2027-05-02");
  EXPECT_EQ(dateAt(-1.0), "1969-12-31");
  EXPECT_EQ(*dayNumberOf("2027-05-02") * 86400.0, 1809216000.0);
  for (const char* wrong : {"2027-02-29", "2027-5-2", "today", "2027-13-01", "2027-05-0x", ""})
    EXPECT_FALSE(dayNumberOf(wrong)) << wrong;
}

}  // namespace
}  // namespace fin
