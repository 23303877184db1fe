// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/judging.h"

#include <gtest/gtest.h>

#include <cmath>

namespace fin {
namespace {

using Duel = Judgements::Duel;

void add(std::vector<Duel>& duels, const char* a, const char* b, int forA, int forB) {
  for (int k = 0; k < forA; ++k) duels.push_back({"Look", a, b, 1.0});
  for (int k = 0; k < forB; ++k) duels.push_back({"Look", b, a, 1.0});
}

TEST(Strengths, AreThoseOfTheWorkedExample) {
  std::vector<Duel> duels;
  add(duels, "A", "B", 7, 3);
  add(duels, "A", "C", 8, 2);
  add(duels, "B", "C", 6, 4);
  const auto strengths = strengthsOf(duels);
  ASSERT_EQ(strengths.size(), 3U);
  const double expected[] = {0.714310, -0.137912, -0.562061};
  for (std::size_t i = 0; i < 3; ++i) {
    EXPECT_NEAR(strengths[i].value, expected[i], 5e-7) << strengths[i].rig;
    EXPECT_EQ(strengths[i].duels, 20U);
    EXPECT_GT(strengths[i].u95, 0.5);
  }
}

TEST(Strengths, StayWithinBoundsAndTakeEqualsAsHalves) {
  std::vector<Duel> always;
  add(always, "A", "B", 5, 0);
  const auto won = strengthsOf(always);
  EXPECT_TRUE(std::isfinite(won[0].value));
  EXPECT_GT(won[0].value, 1.0);
  const auto equal = strengthsOf({{"Look", "A", "B", 0.5}, {"Look", "A", "A", 1.0}});
  EXPECT_NEAR(equal[0].value, 0.0, 1e-12);
  EXPECT_EQ(equal[0].duels, 1U) << "one against itself tells nothing";
  EXPECT_TRUE(strengthsOf({}).empty());
}

TEST(JudgedValues, AreTheMeansOfJudgesEachABlock) {
  Judgements judged;
  // The second judge gives two points less to all.
  const double points[3][2] = {{8.0, 6.0}, {6.0, 4.2}, {3.0, 0.8}};
  const char* rigs[] = {"A", "B", "C"};
  for (int r = 0; r < 3; ++r) {
    for (int j = 0; j < 2; ++j)
      judged.scores.push_back({"Look", rigs[r], j == 0 ? "one" : "two", points[r][j]});
  }
  judged.scores.push_back({"Finish", "A", "one", 1.0});
  judged.duels = {{"Look", "C", "A", 1.0}, {"Glow", "A", "B", 1.0}};
  const auto look = judgedValues(judged, "Look");
  ASSERT_EQ(look.size(), 3U);
  EXPECT_EQ(look[0].first, "A");
  EXPECT_NEAR(look[0].second.value, 7.0, 1e-9);
  EXPECT_LT(look[0].second.u95, 1.0) << "how strict a judge is, is not the rig's";
  EXPECT_NE(look[0].second.letters, look[2].second.letters);
  EXPECT_EQ(judgedValues(judged, "Finish").size(), 1U);
  EXPECT_GT(judgedValues(judged, "Glow")[0].second.value, 0.0) << "chosen, where nobody gave points";
  EXPECT_TRUE(judgedValues(judged, "Scent").empty());
}

TEST(ScoreTable, HoldsWhatIsJudgedBesideReadings) {
  Judgements judged;
  for (const auto& [rig, points] : {std::pair("a", 9.0), {"a", 8.6}, {"b", 5.0}, {"b", 5.4}})
    judged.scores.push_back({"Look", rig, "", points});
  std::vector<Entry> entries(2);
  entries[0].rig = "a";
  entries[1].rig = "b";
  const ScoreTable table = tableFor({}, entries, {{.judged = "Look"}}, judged);
  ASSERT_TRUE(table.cells[0][0]);
  EXPECT_NEAR(table.cells[0][0]->value, 8.8, 1e-9);
  EXPECT_FALSE(table.speeds_mm_s[0]);
}

}  // namespace
}  // namespace fin
