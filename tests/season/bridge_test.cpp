// SPDX-License-Identifier: GPL-3.0-or-later
// Worked values of two and three days.
#include "core/season/bridge.h"

#include <gtest/gtest.h>

namespace fin {
namespace {

const BridgedDay kMay{{210.1, 209.2, 211.4}, {128.1, 127.4, 128.9}};
const BridgedDay kJune{{204.9, 206.3, 205.2}, {127.0, 127.9, 126.6}};

TEST(Bridge, TakesTheDayOutOfAChange) {
  const auto change = changeBetween(kMay, kJune, Scaling::Ratio);
  ASSERT_TRUE(change) << change.error().message;
  EXPECT_TRUE(change->bridged);
  EXPECT_NEAR(1.0 + change->change, 0.984759, 1e-6);
  EXPECT_NEAR(1.0 + change->from, 0.971378, 1e-6);
  EXPECT_NEAR(1.0 + change->to, 0.998323, 1e-6);
  EXPECT_NEAR(change->p, 0.032535, 1e-6);
}

TEST(Bridge, WithoutTheControlSaysOnlyThatSomethingDiffers) {
  BridgedDay once = kJune;
  once.control.resize(1);
  const auto change = changeBetween(kMay, once, Scaling::Ratio);
  ASSERT_TRUE(change);
  EXPECT_FALSE(change->bridged) << "filmed once that day";
  EXPECT_NEAR(change->p, 0.005051, 1e-6);
  EXPECT_FALSE(changeBetween({{210.1}, {}}, kJune, Scaling::Ratio));
  EXPECT_FALSE(changeBetween({{2, 2}, {}}, {{3, 3}, {}}, Scaling::Difference)) << "nothing scatters";
}

TEST(Bridge, LeavesRatiosWhereAValueIsNotAboveNought) {
  const auto change = changeBetween({{-1.0, 1.0}, {}}, {{3.0, 4.0}, {}}, Scaling::Ratio);
  ASSERT_TRUE(change);
  EXPECT_FALSE(change->byRatio);
  EXPECT_NEAR(change->change, 3.5, 1e-12);
}

TEST(History, TellsWhetherDaysDiffer) {
  const std::vector<BridgedDay> days{
      {{36.1, 35.2, 36.8}, {}}, {{35.6, 36.4, 34.9}, {}}, {{29.8, 28.7, 30.4}, {}}};
  const History history = historyOf(days, Scaling::Difference);
  ASSERT_TRUE(history.test);
  EXPECT_NEAR(history.test->f, 47.301404, 1e-6);
  EXPECT_EQ(history.test->df1, 2.0);
  EXPECT_NEAR(history.test->df2, 3.987355, 1e-6);
  EXPECT_NEAR(history.test->p, 0.001669, 1e-6);
  ASSERT_EQ(history.pairs.size(), 3U);
  EXPECT_GT(history.pairs[0].change.p, 0.5) << "the first two days";
  EXPECT_LT(history.pairs[1].change.p, 0.05);
  EXPECT_LT(history.pairs[2].change.p, 0.05);
}

TEST(History, StaysUsefulWithLittle) {
  const History one = historyOf({{{36.1}, {}}, {{}, {}}, {{30.0, 31.0}, {}}}, Scaling::Ratio);
  ASSERT_EQ(one.days.size(), 3U);
  EXPECT_NEAR(one.days[0].mean, 36.1, 1e-9);
  EXPECT_EQ(one.days[1].passes, 0U);
  EXPECT_FALSE(one.test);
  EXPECT_TRUE(one.pairs.empty());
}

}  // namespace
}  // namespace fin
