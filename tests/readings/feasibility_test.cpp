// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/feasibility.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace fin {
namespace {

const PassNeeds kPull{Protocol::Retrieve, View::Top, {MarkName::Nose, MarkName::Tail}, true, false, false};
const ClipFacts kGood{120.0, 3.0, 1280.0, 0.006, 90.0};

Feasibility feasibilityOf(const PassNeeds& needs, const ClipFacts& facts, ReadingId name) {
  const auto all = feasibilityOf(needs, facts);
  const auto found = std::find_if(all.begin(), all.end(), [&](const Feasibility& p) { return p.id == name; });
  EXPECT_NE(found, all.end());
  return *found;
}

TEST(Feasibility, ExpectsTheCramerRaoBoundAndSomeUnevennessForARate) {
  // Scatter over swing: 0.3 px / (90 px / 6) = 0.02; n = 360.
  const double bound =
      120.0 / (2.0 * std::numbers::pi) * 0.02 * std::sqrt(24.0 / (360.0 * (360.0 * 360.0 - 1.0)));
  // 15 beats in view, each uneven by 1.5 %.
  const double expected = 1.959964 * std::hypot(bound, 0.015 * 5.0 / 15.0);
  EXPECT_NEAR(*feasibilityOf(kPull, kGood, ReadingId::WobbleFrequency).expectedU95, expected, 1e-9);
}

TEST(Feasibility, NamesTheScaleForASpeedAndTheMarksForAnAngle) {
  EXPECT_NEAR(*feasibilityOf(kPull, kGood, ReadingId::TravelSpeed).expectedU95, 0.6, 0.05);
  EXPECT_NEAR(*feasibilityOf(kPull, kGood, ReadingId::WobbleAngle).expectedU95,
              std::sqrt(2.0) * 0.8 / 90.0 * kDegreesPerRadian, 1e-9);
}

TEST(Feasibility, SaysWhatToSayOrFilmFirst) {
  PassNeeds bare = kPull;
  bare.hasScale = false;
  EXPECT_NE(feasibilityOf(bare, kGood, ReadingId::TravelSpeed).toSay.find("known length"), std::string::npos);
  bare.marks.clear();
  EXPECT_NE(feasibilityOf(bare, kGood, ReadingId::WobbleFrequency).toSay.find("nose"), std::string::npos);
  EXPECT_TRUE(feasibilityOf(bare, kGood, ReadingId::WobbleFrequency).why.empty());
  EXPECT_NE(feasibilityOf(kPull, kGood, ReadingId::RollAngle).why.find("top view"), std::string::npos);
  ClipFacts slow = kGood;
  slow.rate_Hz = 30.0;
  EXPECT_NE(feasibilityOf(kPull, slow, ReadingId::WobbleAngle).better.find("higher rate"), std::string::npos);
  ClipFacts brief = kGood;
  brief.length_s = 0.5;
  EXPECT_NE(feasibilityOf(kPull, brief, ReadingId::WobbleFrequency).better.find("longer"), std::string::npos);
  EXPECT_TRUE(feasibilityOf(kPull, kGood, ReadingId::WobbleAngle).better.empty());
}

}  // namespace
}  // namespace fin
