// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/speed_sets.h"

#include <gtest/gtest.h>

namespace fin {
namespace {

using Names = std::vector<std::string>;

TEST(SpeedSets, AreTheLargestThatShareASpeed) {
  const std::vector<SpeedBand> bands{{"d", 390.0, 500.0},
                                     {"c", 240.0, 400.0},
                                     {"b", 200.0, 300.0},
                                     {"a", 100.0, 250.0},
                                     {"alone", 20.0, 40.0}};
  const auto sets = setsThatShare(bands);
  ASSERT_EQ(sets.size(), 2U);
  EXPECT_EQ(sets[0].rigs, (Names{"c", "b", "a"}));
  EXPECT_EQ(sets[0].from_mm_s, 240.0);
  EXPECT_EQ(sets[0].to_mm_s, 250.0);
  EXPECT_EQ(sets[1].rigs, (Names{"d", "c"}));
  const auto pairs = pairsThatShare(bands);
  ASSERT_EQ(pairs.size(), 4U);
  EXPECT_EQ(pairs[0].rigs, (Names{"c", "b"})) << "60 mm/s wide";
  EXPECT_EQ(pairs[1].rigs, (Names{"b", "a"})) << "50 mm/s wide";
}

TEST(SpeedSets, ReadBandsFromLaddersAndFromSinglePulls) {
  std::vector<ComparedPass> passes;
  const auto pull = [&](const char* rig, double speed, double action, double variation) {
    ComparedPass pass;
    pass.rig = rig;
    pass.showsAction = true;
    pass.readings.readings = {{ReadingId::TravelSpeed, speed, "mm/s", 2.0, 100.0},
                              {ReadingId::WobbleAngle, action, "deg", 0.5, 12.0},
                              {ReadingId::CycleVariation, variation, "%", 1.0, 12.0}};
    passes.push_back(pass);
  };
  pull("ladder", 80.0, 1.0, 6.0);
  pull("ladder", 160.0, 12.0, 6.0);
  pull("ladder", 320.0, 30.0, 6.0);
  pull("ladder", 400.0, 28.0, 60.0);
  pull("once", 200.0, 20.0, 6.0);
  const auto bands = bandsOf(passes);
  ASSERT_EQ(bands.size(), 2U);
  EXPECT_EQ(bands[0].rig, "ladder");
  EXPECT_EQ(bands[0].to_mm_s, 320.0) << "the fastest that went well";
  EXPECT_GT(bands[0].from_mm_s, 80.0);
  EXPECT_LT(bands[0].from_mm_s, 160.0);
  EXPECT_FALSE(bands[0].openBelow || bands[0].openAbove);
  EXPECT_EQ(bands[1], (SpeedBand{"once", 190.0, 210.0, false, true, true}));
}

TEST(SpeedSets, OrderADayByBothSchools) {
  const std::vector<OrderedRig> rigs{{"small fast", 400.0, 40.0},
                                     {"big slow", 150.0, 120.0},
                                     {"big fast", 390.0, 130.0},
                                     {"unknown", 200.0, {}}};
  const auto names = [](const std::vector<OrderedRig>& order) {
    Names out;
    for (const OrderedRig& rig : order) out.push_back(rig.rig);
    return out;
  };
  EXPECT_EQ(names(bySpeed(rigs)), (Names{"big fast", "small fast", "big slow", "unknown"}));
  EXPECT_EQ(names(byPrey(rigs, 50.0)), (Names{"small fast", "big slow", "big fast", "unknown"}));
}

}  // namespace
}  // namespace fin
