// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/twitch_starts.h"

#include <gtest/gtest.h>

namespace fin {
namespace {

using Times = std::vector<double>;

TEST(TwitchStarts, StayInOrderAndApart) {
  TwitchStarts s;
  for (const double at : {1.5, 0.5, 2.5, 1.51, 0.49}) s.add(at);
  EXPECT_EQ(s.starts_s, (Times{0.5, 1.5, 2.5})) << "within 20 ms of one that is there nothing happens";
}

TEST(TwitchStarts, AreTakenOutWithWhatWasSaidOfThem) {
  TwitchStarts s{{0.5, 1.5, 2.5}, {1.5}};
  s.remove(1.6);
  EXPECT_EQ(s, (TwitchStarts{{0.5, 2.5}, {}}));
  s.remove(0.0);
  s.remove(9.0);
  EXPECT_TRUE(s.starts_s.empty());
  s.remove(1.0);
  s.move(1.0, 2.0);
  s.toggleExcluded(1.0);
  EXPECT_EQ(s, TwitchStarts{}) << "of none nothing is the nearest";
}

TEST(TwitchStarts, AreMovedNoFurtherThanTheirNeighboursAndStayLeftOut) {
  TwitchStarts s{{0.5, 1.5, 2.5}, {1.5}};
  s.move(1.4, 1.9);
  EXPECT_EQ(s, (TwitchStarts{{0.5, 1.9, 2.5}, {1.9}}));
  s.move(1.9, 9.0);
  EXPECT_NEAR(s.starts_s[1], 2.48, 1e-12);
  s.move(2.48, -3.0);
  EXPECT_NEAR(s.starts_s[1], 0.52, 1e-12);
  s.move(0.5, -1.0);
  EXPECT_EQ(s.starts_s[0], 0.0) << "not before the clip";
  s.move(2.5, 7.0);
  EXPECT_EQ(s.starts_s[2], 7.0) << "the last may go on";
}

TEST(TwitchStarts, AreLeftOutAndTakenInAgain) {
  TwitchStarts s{{0.5, 1.5}, {}};
  s.toggleExcluded(1.3);
  EXPECT_TRUE(s.leavesOut(1.5));
  EXPECT_FALSE(s.leavesOut(0.5));
  s.toggleExcluded(1.7);
  EXPECT_FALSE(s.leavesOut(1.5));
}

}  // namespace
}  // namespace fin
