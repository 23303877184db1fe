// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/hop.h"

#include <gtest/gtest.h>

#include <cmath>

#include "core/readings/drag.h"
#include "support/reading_words.h"
#include "support/small_scene.h"
#include "support/truth_readings.h"

namespace fin {
namespace {

using test::readTruth;
using test::valueOf;

TEST(Hop, ReadsHeightFallBackAndKickAsTheyWereMade) {
  const ReadingSet set = readTruth(RehearsalTank(test::smallHops()));
  EXPECT_EQ(valueOf(set, ReadingId::HopCount), 3.0);
  EXPECT_NEAR(valueOf(set, ReadingId::HopInterval), 1.2, 0.01);
  EXPECT_NEAR(valueOf(set, ReadingId::HopHeight), 110.0, 1.0);
  EXPECT_NEAR(valueOf(set, ReadingId::FallBackRate), 170.0, 2.0);
  // v(t) = v∞ tanh(t/τ) has fallen h after τ acosh(exp(h / (v∞ τ))).
  EXPECT_NEAR(valueOf(set, ReadingId::FallBackTime), 0.06 * std::acosh(std::exp(99.0 / (170.0 * 0.06))),
              0.015);
  EXPECT_NEAR(valueOf(set, ReadingId::HopKickFrequency), 6.0, 0.2);
  EXPECT_NEAR(valueOf(set, ReadingId::HopKickAngle), 40.0, 2.0);
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
  EXPECT_TRUE(still.readings.empty()) << still.readings.front().id << " of a lure that lies still";
  EXPECT_NE(test::whyRefused(still, ReadingId::HopHeight).find("no hops are in view"), std::string::npos);
  scene = test::smallHops();
  std::get<Hops>(scene.motion).kick_deg = 0.0;
  const ReadingSet stiff = readTruth(RehearsalTank(scene), 0.05);
  EXPECT_EQ(stiff.find(ReadingId::HopKickFrequency), nullptr);
  EXPECT_FALSE(test::whyRefused(stiff, ReadingId::HopKickFrequency).empty());
  EXPECT_NE(stiff.find(ReadingId::HopHeight), nullptr);
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
  EXPECT_NEAR(valueOf(set, ReadingId::DragTurning), 2.0 * 20.0 * 3.0 / 0.12, 15.0);
  EXPECT_FALSE(test::whyRefused(set, ReadingId::DragKick).empty()) << "no tip is marked";
}

TEST(Drag, FindsNoMovementInAStick) {
  const ReadingSet set = readTruth(RehearsalTank(dragged(0.0)), 0.25, Protocol::Drag);
  EXPECT_EQ(set.find(ReadingId::DragTurning), nullptr);
  EXPECT_NE(test::whyRefused(set, ReadingId::DragTurning).find("swings"), std::string::npos);
}

}  // namespace
}  // namespace fin
