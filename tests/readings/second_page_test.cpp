// SPDX-License-Identifier: GPL-3.0-or-later
// Readings that stand beside the usual ones: by the lure's own length, against a line, of a blade, of knocks.
#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

#include "core/readings/beat.h"
#include "core/readings/course.h"
#include "core/readings/lift.h"
#include "core/readings/own_ruler.h"
#include "core/readings/stretches.h"
#include "core/readings/surface.h"
#include "core/readings/twitch_knocks.h"

namespace fin {
namespace {

constexpr double kTwoPi = 2.0 * std::numbers::pi;

TEST(OwnRuler, IsAsUnsureAsItsLengthItsMarksAndItsHeading) {
  EXPECT_NEAR(100.0 * ownRulerRelativeU95(80.0, 0.5, 112.0, 0.0), 1.81, 5e-3);
  EXPECT_NEAR(100.0 * ownRulerRelativeU95(80.0, 0.5, 112.0, 10.0), 0.98, 5e-3);
}

TEST(OwnRuler, TakesTheWholeLengthAndNotWhatNoiseAddsToIt) {
  OwnRulerInput input;
  input.length_mm = 80.0;
  input.lengthU95_mm = 0.5;
  unsigned state = 1;
  const auto noise = [&state] {  // evenly from −1 to 1
    state = state * 1664525U + 1013904223U;
    return static_cast<double>(state) / 2147483648.0 - 1.0;
  };
  for (double t = 0.0; t < 5.0; t += 0.01)
    input.length_px.add(t, 120.0 * std::cos(0.25 * std::sin(kTwoPi * 2.0 * t)) + 0.9 * noise());
  const auto ruler = ownRuler(input);
  ASSERT_TRUE(ruler);
  EXPECT_NEAR(ruler->scale.value, 1.5, 0.4 * ruler->scale.u95);
}

TEST(Course, IsTheAngleOfTheWayAgainstTheLine) {
  Series along, across;
  for (int i = 0; i <= 100; ++i) {
    along.add(0.03 * i, 10.0 * i);
    across.add(0.03 * i, 0.35 * i);
  }
  EXPECT_NEAR(courseAngle_deg(along, across), 2.0045, 5e-5);
}

TEST(Course, TellsSwayAndBendApartFromIt) {
  // An arc that turns by 3° over its length, with a slow sway of 8 mm.
  PassTraces traces;
  traces.inMillimetres = true;
  traces.bodyLength = 80.0;
  Series along, across;
  for (double t = 0.0; t < 6.0; t += 0.01) {
    const double x = 250.0 * t;
    along.add(t, x);
    across.add(t, 4.0 * std::sin(kTwoPi * 0.5 * t) + x * x * std::tan(3.0 / kDegreesPerRadian) / 3000.0);
  }
  ReadingSheet sheet;
  readCourse(along, across, traces, 1500.0, sheet);
  // Halfway along it points by half of what it turns; over its first and last thirds by a third of it.
  EXPECT_NEAR(sheet.estimate(ReadingId::CourseAngle)->value, 1.5,
              sheet.estimate(ReadingId::CourseAngle)->u95);
  EXPECT_NEAR(sheet.estimate(ReadingId::CourseBend)->value, 2.0, sheet.estimate(ReadingId::CourseBend)->u95);
}

TEST(Beat, CoherenceIsOneWhereTwoAreLockedAndLessWhereTheySlip) {
  const std::vector<double> steady{0.0, 1.0, 2.0, 3.0};
  const std::vector<double> slips{0.0, 1.25, 2.0, 3.25};
  EXPECT_NEAR(phaseCoherence(steady, steady, 1, 1), 1.0, 1e-12);
  EXPECT_NEAR(phaseCoherence(slips, steady, 1, 1), 0.7071, 5e-5);
}

/// A body and a blade that beat with slow wandering of their own, or with the body's.
struct Beating {
  PassTraces body;
  Series blade;
};

Beating beating(double bladeRate_Hz, bool together) {
  Beating out;
  out.body.bodyLength = 80.0;
  out.body.frameRate_Hz = 120.0;
  for (double t = 0.0; t < 8.0; t += 1.0 / 120.0) {
    const double wander = 0.35 * std::sin(kTwoPi * 0.23 * t) + 0.25 * std::sin(kTwoPi * 0.61 * t + 1.0);
    const double other = 0.35 * std::sin(kTwoPi * 0.31 * t + 2.0) + 0.25 * std::sin(kTwoPi * 0.47 * t);
    out.body.axis.add(t, 12.0 * std::sin(kTwoPi * (4.5 * t + wander)));
    out.blade.add(t, 25.0 * std::sin(kTwoPi * (bladeRate_Hz * t + (together ? wander : other)) + 0.5));
  }
  return out;
}

std::string classOf(const Beating& b, ReadingSheet& sheet) {
  Estimate wobble;
  wobble.value = 4.5;
  wobble.u95 = 0.01;
  wobble.n = 30.0;
  sheet.give(ReadingId::WobbleFrequency, wobble);
  readBeat(b.blade, 30.0, b.body, sheet);
  const ReadingSet set = sheet.complete({.protocol = Protocol::Retrieve,
                                         .view = View::Top,
                                         .marks = {MarkName::Nose, MarkName::Tail, MarkName::Blade}});
  const Reading* told = set.find(ReadingId::BeatClass);
  return told == nullptr ? "refused" : std::get<std::string>(told->value);
}

TEST(Beat, TellsWhatIsInStepFromWhatIsNot) {
  ReadingSheet linked;
  EXPECT_EQ(classOf(beating(4.5, true), linked), "in step 1:1");
  EXPECT_GT(linked.estimate(ReadingId::BeatCoherence)->value, 0.95);
  ReadingSheet loose;
  EXPECT_EQ(classOf(beating(5.7, false), loose), "out of step");
  EXPECT_NEAR(loose.estimate(ReadingId::BladeFrequency)->value, 5.7, 0.15);
}

TEST(TwitchKnocks, AreCountedByTheirTwitchesAndHeldAgainstChance) {
  const std::vector<double> starts{1.0, 2.0, 3.0, 4.0};
  const std::vector<double> knocks{1.12, 2.08, 2.20, 3.80, 4.10};
  ReadingSheet sheet;
  readTwitchKnocks(starts, knocks, sheet);
  const Estimate* share = sheet.estimate(ReadingId::RattleShare);
  ASSERT_NE(share, nullptr);
  EXPECT_EQ(share->value, 75.0);
  EXPECT_NEAR(share->u95, 0.5 * (95.4 - 30.1), 0.05);
  EXPECT_EQ(share->notes.front(), "30 to 95 % by Wilson; in equal stretches just before 25 %");
  EXPECT_EQ(share->grade, Grade::Poor) << "p is 0.25";
  EXPECT_NEAR(sheet.estimate(ReadingId::RattleDelay)->value, 0.10, 1e-9);
  EXPECT_EQ(sheet.estimate(ReadingId::RattlesPerTwitch)->value, 1.0);
}

TEST(Surface, IsTheShareOfTheTimeInWhichTheTopIsNearTheWaterline) {
  Track track;
  track.frameCount = 200;
  std::vector<double> times;
  for (int i = 0; i < 200; ++i) {
    times.push_back(0.02 * i);
    OutlineSample outline;
    outline.seen = outline.whole = true;
    const double top = i < 80 ? 120.0 : 160.0;  // 20 and 60 px under the line
    outline.contours = {{{300.0, top + 30.0}, {340.0, top}, {380.0, top + 30.0}}};
    track.outline.push_back(outline);
  }
  Geometry geometry{.view = View::Side};
  geometry.scale = Scale::known(0.5, 0.005);  // 15 mm are 30 px
  geometry.waterline = PixelLine{{0.0, 100.0}, {640.0, 100.0}};
  ReadingSheet sheet;
  readSurface(track, times, geometry, sheet);
  const Estimate* share = sheet.estimate(ReadingId::SurfaceShare);
  ASSERT_NE(share, nullptr);
  EXPECT_DOUBLE_EQ(share->value, 40.0);
  EXPECT_NEAR(share->u95, 0.5, 1e-9) << "a frame more or less: the line is far from both";
}

TEST(LowShare, OfAnEvenClimbIsAThird) {
  Levels levels;
  for (int i = 0; i < 3000; ++i) {
    levels.height.add(0.01 * i, 900.0 * (i + 0.5) / 3000.0);
    levels.whole.add(0.01 * i, 900.0);
  }
  EXPECT_NEAR(lowShare_percent(levels, 0.0), 33.3, 0.05);
}

TEST(BodyPulse, IsTheAngleBetweenTheTwoHalves) {
  Track track;
  track.frameCount = 1;
  const auto mark = [&](MarkName name, double x, double y) {
    track.marks.push_back({name, {{true, {x, -y}, 1.0}}});  // pictures count downwards
  };
  mark(MarkName::Nose, 2.0, 1.0);
  mark(MarkName::Mid, 1.0, 0.0);
  mark(MarkName::Tail, 0.0, 0.0);
  const double times[] = {0.0};
  const PassTraces traces = traceBody(track, times, {.view = View::Side, .pull = Pull::Right});
  ASSERT_EQ(traces.bend.size(), 1U);
  EXPECT_NEAR(traces.bend.y.front(), 45.0, 1e-9);
}

/// Two twitches with a pause each, a pull of two seconds, a wait, a fall.
PassTraces severalThings() {
  PassTraces out;
  out.inMillimetres = true;
  double along = 0.0, up = 0.0;
  for (double t = 0.0; t < 7.0; t += 0.01) {
    const bool twitch = (t > 0.2 && t < 0.4) || (t > 1.0 && t < 1.2);
    const bool pull = t > 2.0 && t < 4.0;
    const bool falls = t > 5.0;
    along += 0.01 * (twitch ? 350.0 : pull ? 250.0 : 0.0);
    up -= 0.01 * (falls ? 180.0 * std::tanh((t - 5.0) / 0.1) : 0.0);
    out.alongCentre.add(t, along);
    out.upCentre.add(t, up);
    out.overBottom.add(t, 500.0 + up);
  }
  return out;
}

TEST(Stretches, ArePartedByWhatTheLureDoes) {
  const auto found = findStretches(severalThings(), 10.0);
  ASSERT_EQ(found.size(), 4U);
  EXPECT_EQ(found[0].protocol, Protocol::Twitch) << "with its pauses";
  EXPECT_EQ(found[1].protocol, Protocol::Retrieve);
  EXPECT_NEAR(found[1].from_s, 2.0, kCutU95_s);
  EXPECT_NEAR(found[1].to_s, 4.0, kCutU95_s);
  EXPECT_EQ(found[2].protocol, Protocol::Pause);
  EXPECT_EQ(found[3].protocol, Protocol::Fall);
  EXPECT_NEAR(found[3].from_s, 5.0, kCutU95_s);
}

TEST(LiftKick, IsOneRateForAllRises) {
  PassTraces traces;
  traces.bodyLength = 60.0;
  traces.tipLength = 30.0;
  traces.frameRate_Hz = 100.0;
  std::vector<Twitch> hops;
  for (int hop = 0; hop < 4; ++hop) {
    const double start = 0.3 + 1.5 * hop;
    hops.push_back({.start_s = start, .end_s = start + 1.5, .furthest_s = start + 0.55});
    for (double t = start - 0.2; t < start + 1.2; t += 0.01)
      traces.kick.add(t, 3.0 * hop + 20.0 * (t - start) + 13.0 * std::sin(kTwoPi * 5.4 * t + hop));
  }
  ReadingSheet sheet;
  readLiftKick(traces, hops, sheet);
  ASSERT_NE(sheet.estimate(ReadingId::LiftKickFrequency), nullptr);
  EXPECT_NEAR(sheet.estimate(ReadingId::LiftKickFrequency)->value, 5.4, 0.02);
  EXPECT_NEAR(sheet.estimate(ReadingId::LiftKickAngle)->value, 26.0, 0.2);
  EXPECT_EQ(sheet.estimate(ReadingId::LiftKickFrequency)->n, 4.0);
}

}  // namespace
}  // namespace fin
