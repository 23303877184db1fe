// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/roll.h"

#include <gtest/gtest.h>

#include <cmath>
#include <functional>
#include <numbers>

#include "support/reading_words.h"
#include "support/truth_readings.h"

namespace fin {
namespace {

using test::valueOf;
using RollOf = std::function<double(double)>;  // degrees against seconds

constexpr double kRollRate_Hz = 120.0;
constexpr std::size_t kFrames = 480;
constexpr double kHalf_px = 24.0;

struct Filmed {
  Track track{0, kFrames, {}};
  std::vector<double> time_s;
};

Filmed headOn(const RollOf& roll_deg) {
  Filmed out;
  MarkTrack back{MarkName::Back, {}};
  MarkTrack belly{MarkName::Belly, {}};
  for (std::size_t n = 0; n < kFrames; ++n) {
    out.time_s.push_back(static_cast<double>(n) / kRollRate_Hz);
    const double r = roll_deg(out.time_s.back()) / kDegreesPerRadian;
    // Leaning towards its own right the back goes to the picture's left.
    const PixelPoint over{-12.0 * std::sin(r), -12.0 * std::cos(r)};
    const PixelPoint middle{300.0, 200.0};
    back.samples.push_back({true, middle + over, 1.0});
    belly.samples.push_back({true, middle - over, 1.0});
  }
  out.track.marks = {back, belly};
  return out;
}

/// A round body pulled to the right or the left, its flank spot seen while it faces the camera.
Filmed fromTheSide(const RollOf& roll_deg, bool left) {
  Filmed out;
  MarkTrack flank{MarkName::Flank, {}};
  for (std::size_t n = 0; n < kFrames; ++n) {
    out.time_s.push_back(static_cast<double>(n) / kRollRate_Hz);
    const PixelPoint middle{(left ? 900.0 : 100.0) + (left ? -1.0 : 1.0) * static_cast<double>(n), 200.0};
    OutlineSample outline{true,  true,           0.0, middle, left ? std::numbers::pi : 0.0,
                          100.0, 2.0 * kHalf_px, 0.0, {}};
    auto& rim = outline.contours.emplace_back();
    for (int i = 0; i < 200; ++i) {
      const double a = 2.0 * std::numbers::pi * i / 200.0;
      rim.push_back(
          {std::round(middle.x_px + 50.0 * std::cos(a)), std::round(middle.y_px + kHalf_px * std::sin(a))});
    }
    out.track.outline.push_back(outline);
    const double r = roll_deg(out.time_s.back()) / kDegreesPerRadian;
    const double down = (left ? -1.0 : 1.0) * kHalf_px * std::sin(r);
    flank.samples.push_back({std::cos(r) > 0.2, middle + PixelPoint{0.0, down}, 1.0});
  }
  out.track.marks = {flank};
  return out;
}

ReadingSet read(const Filmed& filmed, View view, std::optional<double> speed = {}) {
  Geometry geometry;
  geometry.view = view;
  const RollView seen{kHalf_px, 5000.0, 200.0};
  ReadingSheet sheet;
  if (speed) sheet.give(ReadingId::TravelSpeed, {*speed, 0.01 * *speed, 100.0, Grade::Good, {}});
  readRoll(traceRoll(filmed.track, filmed.time_s, geometry, seen), sheet);
  return sheet.complete({Protocol::Retrieve,
                         view,
                         {MarkName::Nose, MarkName::Tail, MarkName::Back, MarkName::Belly, MarkName::Flank},
                         true,
                         true,
                         true});
}

double rocking(double t) {
  return 8.0 + 15.0 * std::sin(2.0 * std::numbers::pi * 3.2 * t);
}
double spinning(double t) {
  return 40.0 + 360.0 * 1.7 * t;
}

TEST(Roll, ReadsRateAngleAndListHeadOn) {
  const ReadingSet set = read(headOn(rocking), View::HeadOn);
  EXPECT_NEAR(valueOf(set, ReadingId::RollFrequency), 3.2, 0.02);
  EXPECT_NEAR(valueOf(set, ReadingId::RollAngle), 30.0, 0.5);
  EXPECT_NEAR(valueOf(set, ReadingId::RollList), 8.0, 0.5);
  EXPECT_EQ(valueOf(set, ReadingId::SpinTurns), 0.0);
}

TEST(Roll, LeansTheSameWayWhicheverSideTheCameraSees) {
  for (const bool left : {false, true}) {
    const ReadingSet set = read(fromTheSide(rocking, left), View::Side);
    EXPECT_NEAR(valueOf(set, ReadingId::RollList), 8.0, 1.5) << left;
    EXPECT_NEAR(valueOf(set, ReadingId::RollFrequency), 3.2, 0.02) << left;
    EXPECT_NEAR(valueOf(set, ReadingId::RollAngle), 30.0, 2.0) << left;
  }
}

TEST(Roll, CountsTurnsOfASpotThatHidesForHalfOfEach) {
  // 1.7 turns a second for 479 frames: 6.79 turns, at 250 mm/s 6.8 turns a metre.
  const ReadingSet set = read(fromTheSide(spinning, false), View::Side, 250.0);
  EXPECT_EQ(valueOf(set, ReadingId::SpinTurns), 6.0);
  EXPECT_NEAR(valueOf(set, ReadingId::TwistPerMetre), 6.8, 0.1);
  EXPECT_EQ(set.find(ReadingId::RollAngle), nullptr);
  EXPECT_EQ(valueOf(read(headOn(spinning), View::HeadOn), ReadingId::SpinTurns), 6.0);
}

TEST(Roll, TakesASpotThatWasLostInTheMiddleOfItsSideForNoTurn) {
  Filmed filmed = fromTheSide(rocking, false);
  // Lost for an eighth of a second (a third of a cycle) again and again, each time in another part of its
  // cycle.
  for (std::size_t n = 0; n < kFrames; ++n) {
    if (n % 160 >= 70 && n % 160 < 154) filmed.track.marks[0].samples[n] = {};
  }
  const ReadingSet set = read(filmed, View::Side, 250.0);
  EXPECT_EQ(valueOf(set, ReadingId::SpinTurns), 0.0);
  EXPECT_NEAR(valueOf(set, ReadingId::RollList), 8.0, 2.0);
}

TEST(Roll, SaysWhatIsLacking) {
  Filmed filmed = fromTheSide(rocking, false);
  filmed.track.outline.clear();
  const ReadingSet set = read(filmed, View::Side);
  EXPECT_EQ(set.find(ReadingId::RollList), nullptr);
  EXPECT_NE(test::whyRefused(set, ReadingId::RollList).find("outline"), std::string::npos);
}

}  // namespace
}  // namespace fin
