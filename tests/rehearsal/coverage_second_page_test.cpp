// SPDX-License-Identifier: GPL-3.0-or-later
// The same as coverage_test.cpp, for what hops, blades, courses, twitches before a fish and falls on several
// heads tell.
#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

#include "core/comparison/cadence.h"
#include "core/comparison/heads.h"
#include "core/readings/course.h"
#include "core/readings/flashes.h"
#include "core/readings/lift.h"
#include "core/readings/still.h"
#include "core/readings/zone_time.h"
#include "coverage.h"
#include "support/followed_error.h"
#include "support/moving_ends.h"
#include "support/reading_words.h"
#include "support/small_scene.h"
#include "support/truth_readings.h"

namespace fin {
namespace {

using test::between;
using test::insideOf;
using test::Judged;
using test::kFewestInside;

double normal(std::mt19937& random, double mean, double sd) {
  return std::normal_distribution<double>(mean, sd)(random);
}

ReadingSet only(ReadingId id, const Result<Estimate>& told) {
  ReadingSet out;
  if (told) out.readings.push_back({id, told->value, "", told->u95, told->n});
  return out;
}

TEST(CoverageOfTheSecondPage, TheKickOnTheWayUp) {
  for (const ReadingId name : {ReadingId::LiftKickFrequency, ReadingId::LiftKickAngle}) {
    const double inside = insideOf(
        name,
        [&](std::mt19937& random) {
          RehearsalScene scene = test::smallHops();
          auto& hops = std::get<Hops>(scene.motion);
          hops.lift_s = 0.5;
          hops.liftKick_Hz = between(random, 5.0, 8.0);
          hops.liftKick_deg = between(random, 25.0, 50.0);
          scene.noise_grey = 0.0;
          return std::pair(test::readFollowed(RehearsalTank(scene), random),
                           name == ReadingId::LiftKickAngle ? hops.liftKick_deg : hops.liftKick_Hz);
        },
        Judged::InsideOnly);
    EXPECT_GE(inside, kFewestInside) << name;
  }
}

TEST(CoverageOfTheSecondPage, ABladeWithABeatOfItsOwn) {
  for (const ReadingId name : {ReadingId::BladeFrequency, ReadingId::BeatRatio}) {
    const double inside = insideOf(
        name,
        [&](std::mt19937& random) {
          RehearsalScene scene = test::smallPull();
          scene.lure.blade_mm = 40.0;
          auto& pull = std::get<StraightPull>(scene.motion);
          pull.speed_mm_s = 90.0;
          pull.start_mm = -110.0;
          pull.wobble_Hz = between(random, 7.0, 9.0);
          pull.blade_Hz = between(random, 7.0, 10.0);
          pull.blade_deg = between(random, 30.0, 50.0);
          scene.length = Seconds(2.5);
          scene.noise_grey = 0.0;
          return std::pair(test::readFollowed(RehearsalTank(scene), random),
                           name == ReadingId::BeatRatio ? pull.blade_Hz / pull.wobble_Hz : pull.blade_Hz);
        },
        Judged::InsideOnly);
    EXPECT_GE(inside, kFewestInside) << name;
  }
}

TEST(CoverageOfTheSecondPage, ACourseBesideTheMarkedLine) {
  const double inside = insideOf(
      ReadingId::CourseAngle,
      [](std::mt19937& random) {
        const double course_deg = between(random, -6.0, 6.0);
        const double rate_Hz = between(random, 4.0, 7.0);
        const auto ends = [&](double t) {
          const double yaw = 12.0 / kDegreesPerRadian * std::sin(2.0 * std::numbers::pi * rate_Hz * t);
          const PixelPoint centre{200.0 * t, 200.0 * t * std::tan(course_deg / kDegreesPerRadian)};
          const PixelPoint half{40.0 * std::cos(yaw), 40.0 * std::sin(yaw)};
          return test::Ends{centre + half, centre - half};
        };
        // Its centre as it is followed, two pixels to a millimetre, against a line of 1000 px of which an end
        // was pressed a pixel off.
        Track track{0, 360, {{MarkName::Nose, {}}, {MarkName::Tail, {}}}};
        for (int n = 0; n < 360; ++n) {
          const test::Ends at = ends(n / 120.0);
          track.marks[0].samples.push_back({true, at.nose * 2.0, 1.0});
          track.marks[1].samples.push_back({true, at.tail * 2.0, 1.0});
        }
        test::followAsSeen(track, random);
        const double line = normal(random, 0.0, std::numbers::sqrt2 / kNormal95 / 1000.0);
        Series along, across;
        for (std::size_t n = 0; n < track.frameCount; ++n) {
          const PixelPoint centre =
              midpoint(track.marks[0].samples[n].at, track.marks[1].samples[n].at) * 0.5;
          const double t = static_cast<double>(n) / 120.0;
          along.add(t, centre.x_px);
          across.add(t, centre.y_px + line * centre.x_px);
        }
        const PassTraces traces = test::tracesOf(ends, 3.0, View::Side);
        ReadingSheet sheet;
        readCourse(along, across, traces, 1000.0, sheet);
        return std::pair(only(ReadingId::CourseAngle, *sheet.estimate(ReadingId::CourseAngle)), course_deg);
      },
      Judged::InsideOnly);
  EXPECT_GE(inside, kFewestInside);
}

TEST(CoverageOfTheSecondPage, TheShareOfTheTimeNearTheBottom) {
  const double inside = insideOf(
      ReadingId::LowShare,
      [](std::mt19937& random) {
        const double top = between(random, 250.0, 500.0);
        const double swing_s = between(random, 1.2, 2.0);
        const double off = normal(random, 0.0, 3.0 / kNormal95);  // of the marked levels
        Levels levels{{}, {}, 3.0};
        for (int n = 0; n < 720; ++n) {
          const double t = n / 120.0;
          const double height = top * std::pow(std::sin(std::numbers::pi * t / swing_s), 2.0);
          levels.height.add(t, height + off + normal(random, 0.0, 0.3));
          levels.whole.add(t, 600.0);
        }
        std::size_t low = 0;
        for (int n = 0; n < 720; ++n)
          low += top * std::pow(std::sin(std::numbers::pi * n / 120.0 / swing_s), 2.0) < 200.0 ? 1 : 0;
        ReadingSheet sheet;
        readLowShare(levels, sheet);
        return std::pair(only(ReadingId::LowShare, *sheet.estimate(ReadingId::LowShare)),
                         100.0 * low / 720.0);
      },
      Judged::InsideOnly);
  EXPECT_GE(inside, kFewestInside);
}

/// A twitch as one of many that differ.
TwitchPath anyTwitch(std::mt19937& random) {
  const double ahead = normal(random, 60.0, 8.0);
  const double rest = ahead - normal(random, 20.0, 4.0);
  const double drift = normal(random, -6.0, 3.0);
  return {{0.0, 0.1, 0.4, 1.5}, {0.0, ahead, rest, rest}, {0.0, 0.0, 0.4 * drift, 1.5 * drift}, 0.4};
}

TEST(CoverageOfTheSecondPage, HowLongItStaysBeforeAFish) {
  const Zone zone{100.0, 50.0, 1.5};
  std::mt19937 many(5);
  std::vector<TwitchPath> all;
  for (int i = 0; i < 500; ++i) all.push_back(anyTwitch(many));
  const auto truth = secondsInZone(all, zone);
  ASSERT_TRUE(truth);
  for (const ReadingId name : {ReadingId::ZoneTime, ReadingId::ZoneTenth}) {
    const bool mean = name == ReadingId::ZoneTime;
    const double inside = insideOf(
        name,
        [&](std::mt19937& random) {
          std::vector<TwitchPath> filmed;
          while (filmed.size() < 10) filmed.push_back(anyTwitch(random));
          const auto told = secondsInZone(filmed, zone);
          return std::pair(only(name, mean ? told->mean : told->tenth),
                           mean ? truth->mean.value : truth->tenth.value);
        },
        Judged::InsideOnly);
    EXPECT_GE(inside, kFewestInside) << name;
  }
}

TEST(CoverageOfTheSecondPage, TheIntervalFromWhichItHolds) {
  const double inside = insideOf(
      ReadingId::HoldInterval,
      [](std::mt19937& random) {
        const double slope = between(random, 20.0, 40.0);
        const double level_s = between(random, 1.1, 1.4);
        std::vector<CadenceRung> rungs;
        for (const double interval : {0.5, 0.8, 1.1, 1.5, 1.9})
          rungs.push_back({"", interval, normal(random, slope * (level_s - interval), 1.5 / kNormal95), 1.5});
        return std::pair(evaluateCadence(rungs).readings, level_s - 5.0 / slope);
      },
      Judged::InsideOnly);
  EXPECT_GE(inside, kFewestInside);
}

TEST(CoverageOfTheSecondPage, TheBodyFromItsFallsOnTwoHeads) {
  const double inside = insideOf(
      ReadingId::BodyWeight,
      [](std::mt19937& random) {
        const double body = between(random, 0.5, 3.0);
        std::vector<HeadFall> falls;
        for (const double head : {2.0, 5.0}) {
          const double drag = 1.0 + normal(random, 0.0, 0.05 / std::sqrt(2.0) / kNormal95);
          const double rate = 80.0 * std::sqrt((body + head) / drag);
          HeadFall fall{.name = "", .head_g = head + normal(random, 0.0, 0.05 / kNormal95)};
          fall.rate_mm_s = rate * (1.0 + normal(random, 0.0, 0.015 / kNormal95));
          fall.rateU95_mm_s = 0.015 * rate;
          fall.mode = "plumb";
          falls.push_back(std::move(fall));
        }
        return std::pair(only(ReadingId::BodyWeight, bodyWeight(falls)), body);
      },
      Judged::InsideOnly);
  EXPECT_GE(inside, kFewestInside);
}

TEST(CoverageOfTheSecondPage, FlashesOfAFall) {
  const double inside = insideOf(
      ReadingId::FallFlashRate,
      [](std::mt19937& random) {
        const double rate = between(random, 1.0, 3.0);
        std::exponential_distribution<double> wait(rate);
        std::vector<double> flashes_s;
        // No two nearer to each other than they can be told apart.
        for (double t = wait(random); t < 6.0; t += 0.1 + wait(random)) flashes_s.push_back(t);
        Series brightness;
        for (int n = 0; n < 720; ++n) {
          double y = normal(random, 80.0, 1.5);
          for (const double at : flashes_s)
            y += 60.0 * std::exp(-0.5 * std::pow((n / 120.0 - at) / 0.02, 2.0));
          brightness.add(n / 120.0, y);
        }
        ReadingSheet sheet;
        sheet.evidence().steady = TimeSpan{0.5, 5.5};
        readFallFlashes(brightness, sheet);
        return std::pair(only(ReadingId::FallFlashRate, *sheet.estimate(ReadingId::FallFlashRate)),
                         1.0 / (0.1 + 1.0 / rate));
      },
      Judged::InsideOnly);
  EXPECT_GE(inside, kFewestInside);
}

TEST(CoverageOfTheSecondPage, TheBendOfABodyThatIsHeldStill) {
  const double inside = insideOf(
      ReadingId::BodyBend,
      [](std::mt19937& random) {
        const double length_px = between(random, 120.0, 400.0);
        const double bend = between(random, 0.01, 0.06);  // of a parabola, over its chord
        const double upper = normal(random, 0.0, 0.5 / kNormal95);
        std::vector<PixelPoint> rim;
        const auto add = [&](double x, double thick) {
          const double s = x / length_px;
          rim.push_back(
              {x, 4.0 * bend * length_px * s * (1.0 - s) + thick + upper * s + normal(random, 0.0, 0.4)});
        };
        for (double x = -5.0; x <= length_px + 5.0; x += 1.0) add(x, 12.0);
        for (double x = length_px + 5.0; x >= -5.0; x -= 1.0) add(x, -12.0);
        Track track;
        track.frameCount = 1;
        const PixelPoint nose{length_px + normal(random, 0.0, 0.7), normal(random, 0.0, 0.7)};
        const PixelPoint tail{normal(random, 0.0, 0.7), normal(random, 0.0, 0.7)};
        track.marks = {{MarkName::Nose, {{true, nose, 1.0}}}, {MarkName::Tail, {{true, tail, 1.0}}}};
        OutlineSample sample{.seen = true, .whole = true};
        sample.contours = {rim};
        track.outline = {sample};
        ReadingSheet sheet;
        readStill(track, {}, sheet);
        double arc = 0.0;
        for (int i = 0; i < 1000; ++i)
          arc += 1e-3 * std::hypot(1.0, 4.0 * bend * (1.0 - 2.0 * (i + 0.5) * 1e-3));
        return std::pair(only(ReadingId::BodyBend, *sheet.estimate(ReadingId::BodyBend)), 100.0 * bend / arc);
      },
      Judged::InsideOnly);
  EXPECT_GE(inside, kFewestInside);
}

}  // namespace
}  // namespace fin
