// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/hop.h"

#include <gtest/gtest.h>

#include <cmath>

#include "core/readings/drag.h"
#include "support/small_scene.h"
#include "support/truth_readings.h"

namespace fin {
namespace {

using test::readTruth;
using test::valueOf;

std::string whyOf(const ReadingSet& set, std::string_view name) {
  for (const Refusal& r : set.refused) {
    if (r.name == name) return r.why;
  }
  return {};
}

TEST(Hop, ReadsHeightFallBackAndKickAsTheyWereMade) {
  const ReadingSet set = readTruth(RehearsalTank(test::smallHops()));
  EXPECT_EQ(valueOf(set, "hop_count"), 3.0);
  EXPECT_NEAR(valueOf(set, "hop_interval"), 1.2, 0.01);
  EXPECT_NEAR(valueOf(set, "hop_height"), 110.0, 1.0);
  EXPECT_NEAR(valueOf(set, "fall_back_rate"), 170.0, 2.0);
  // v(t) = v∞ tanh(t/τ) has fallen h after τ acosh(exp(h / (v∞ τ))).
  EXPECT_NEAR(valueOf(set, "fall_back_time"), 0.06 * std::acosh(std::exp(99.0 / (170.0 * 0.06))), 0.015);
  EXPECT_NEAR(valueOf(set, "hop_kick_frequency"), 6.0, 0.2);
  EXPECT_NEAR(valueOf(set, "hop_kick_angle"), 40.0, 2.0);
}

TEST(Hop, StartsWhereItLeavesTheBottom) {
  const RehearsalTank tank(test::smallHops());
  const Evidence found = test::evidenceOfTruth(tank);
  ASSERT_EQ(found.twitches.size(), 3U);
  EXPECT_NEAR(found.twitches[1].span.from_s, 1.6, 0.06) << "a hop starts where it leaves the bottom";
}

TEST(Hop, RefusesWhereNothingHopsOrNothingFallsBack) {
  RehearsalScene scene = test::smallHops();
  std::get<Hops>(scene.motion).count = 0;
  const ReadingSet still = readTruth(RehearsalTank(scene), 0.05);
  EXPECT_TRUE(still.readings.empty()) << still.readings.front().name << " of a lure that lies still";
  EXPECT_NE(whyOf(still, "hop_height").find("no hops are in view"), std::string::npos);
  scene = test::smallHops();
  std::get<Hops>(scene.motion).kick_deg = 0.0;
  const ReadingSet stiff = readTruth(RehearsalTank(scene), 0.05);
  EXPECT_EQ(stiff.find("hop_kick_frequency"), nullptr);
  EXPECT_FALSE(whyOf(stiff, "hop_kick_frequency").empty());
  EXPECT_NE(stiff.find("hop_height"), nullptr);
}

RehearsalScene dragged(double wobble_deg) {
  RehearsalScene scene = test::smallPull();
  auto& pull = std::get<StraightPull>(scene.motion);
  pull.speed_mm_s = 120.0;
  pull.wobble_Hz = 3.0;
  pull.wobble_deg = wobble_deg;
  scene.length = Seconds(3.6);
  return scene;
}

TEST(Drag, AddsUpTheSwingsForEveryMetrePulled) {
  // To and fro once a wobble: twice its width, three times a second, over 0.12 m a second.
  const ReadingSet set = readTruth(RehearsalTank(dragged(20.0)), 0.0, Protocol::Drag);
  EXPECT_NEAR(valueOf(set, "drag_turning"), 2.0 * 20.0 * 3.0 / 0.12, 15.0);
  EXPECT_FALSE(whyOf(set, "drag_kick").empty()) << "no tip is marked";
}

TEST(Drag, FindsNoMovementInAStick) {
  const ReadingSet set = readTruth(RehearsalTank(dragged(0.0)), 0.25, Protocol::Drag);
  EXPECT_EQ(set.find("drag_turning"), nullptr);
  EXPECT_NE(whyOf(set, "drag_turning").find("swings"), std::string::npos);
}

}  // namespace
}  // namespace fin
