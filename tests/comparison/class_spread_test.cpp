// SPDX-License-Identifier: GPL-3.0-or-later
// p of the tables: R 4.3, fisher.test.
#include "core/comparison/class_spread.h"

#include <gtest/gtest.h>

namespace fin {
namespace {

ComparedPass fall(int id, const std::string& rig, const std::string& mode) {
  ComparedPass out{.id = PassId(id), .title = rig, .rig = rig, .protocol = Protocol::Fall};
  if (mode.empty()) {
    out.readings.refused.push_back({ReadingId::FallMode, "it never sank"});
  } else {
    out.readings.readings.push_back({ReadingId::FallMode, mode, "text", {}, 1.0});
  }
  return out;
}

std::vector<ComparedPass> falls(const std::vector<std::pair<std::string, std::vector<std::string>>>& rigs) {
  std::vector<ComparedPass> out;
  for (const auto& [rig, modes] : rigs) {
    for (const std::string& mode : modes) out.push_back(fall(static_cast<int>(out.size()) + 1, rig, mode));
  }
  return out;
}

TEST(ClassSpread, HasTheExactTestOfATable) {
  EXPECT_NEAR(freemanHalton({{5, 0}, {0, 5}}), 0.00794, 5e-6);
  EXPECT_NEAR(freemanHalton({{4, 1}, {1, 4}}), 0.2063, 5e-5);
  EXPECT_NEAR(freemanHalton({{3, 0}, {0, 3}}), 0.1, 1e-9);
  EXPECT_NEAR(freemanHalton({{4, 0}, {0, 4}}), 0.0286, 5e-5);
  EXPECT_NEAR(freemanHalton({{3, 1, 1}, {0, 1, 4}}), 0.1667, 5e-5);
  EXPECT_NEAR(freemanHalton({{3, 0, 0}, {0, 3, 0}, {1, 2, 0}, {0, 0, 3}}), 0.002597, 5e-7);
  EXPECT_DOUBLE_EQ(freemanHalton({{3, 0}, {4, 0}}), 1.0);
}

TEST(ClassSpread, CountsPassesByClassAndThoseRefusedApart) {
  const auto passes = falls({{"Lark", {"glide", "plumb", "glide", "", "glide"}}, {"Rill", {"plumb"}}});
  ASSERT_EQ(readingsAmong(passes, ReadAs::Class), std::vector{ReadingId::FallMode});
  const ClassSpread spread = compareClasses(passes, ReadingId::FallMode);
  ASSERT_EQ(spread.rigs.size(), 2U);
  EXPECT_EQ(spread.rigs[0].passes, 4U);
  EXPECT_EQ(spread.rigs[0].refused, 1U);
  EXPECT_EQ(spread.rigs[0].classes.front().name, "glide");
  EXPECT_EQ(spread.rigs[0].passesOf("plumb"), 1U);
  EXPECT_EQ(spread.classes, (std::vector<std::string>{"glide", "plumb"}));
}

TEST(ClassSpread, TellsRigsApartOnlyWhereSoManyPassesCan) {
  const ClassSpread three = compareClasses(falls({{"Lark", {"glide", "glide", "glide"}},  //
                                                  {"Rill", {"plumb", "plumb", "plumb"}}}),
                                           ReadingId::FallMode);
  EXPECT_FALSE(three.pairs.front().apart);
  EXPECT_TRUE(three.pairs.front().tooFew);
  EXPECT_EQ(three.passesThatCouldTell, 4U);
  EXPECT_EQ(three.rigs[0].letters, three.rigs[1].letters);

  const ClassSpread five = compareClasses(falls({{"Lark", {"glide", "glide", "glide", "glide", "glide"}},
                                                 {"Rill", {"plumb", "plumb", "plumb", "plumb", "plumb"}},
                                                 {"Sedge", {"plumb", "plumb", "glide", "plumb", "plumb"}}}),
                                          ReadingId::FallMode);
  ASSERT_EQ(five.pairs.size(), 3U);
  EXPECT_NEAR(five.pairs[0].p, 3.0 * 2.0 / 252.0, 1e-9) << "adjusted for three pairs";
  EXPECT_TRUE(five.pairs[0].apart);
  EXPECT_FALSE(five.pairs[2].apart);
  EXPECT_FALSE(five.pairs[2].tooFew) << "they could have been told apart, and are alike";
  EXPECT_NE(five.rigs[0].letters, five.rigs[1].letters);
}

TEST(ClassSpread, TakesSeveralClipsOfOnePassOnce) {
  auto passes = falls({{"Lark", {"glide", "glide"}}});
  passes[0].planned = passes[1].planned = PlannedPassId(7);
  EXPECT_EQ(compareClasses(passes, ReadingId::FallMode).rigs.front().passes, 1U);
}

}  // namespace
}  // namespace fin
