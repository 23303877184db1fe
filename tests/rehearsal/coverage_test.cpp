// SPDX-License-Identifier: GPL-3.0-or-later
// Over many rehearsal passes the truth lies inside what is stated as its uncertainty.
#include <gtest/gtest.h>

#include <cmath>
#include <functional>
#include <map>
#include <numbers>
#include <random>

#include "core/readings/fall.h"
#include "core/readings/outline_traces.h"
#include "core/readings/own_ruler.h"
#include "core/readings/rattle.h"
#include "core/readings/retrieve.h"
#include "core/readings/roll.h"
#include "core/readings/side_wobble.h"
#include "core/readings/skirt.h"
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

struct Truth {
  ReadingId name{};
  std::function<double(const RehearsalScene&)> value;
  std::optional<Protocol> protocol = {};  ///< other than the motion's own
};

double insideOf(const Truth& truth, const std::function<RehearsalScene(std::mt19937&)>& sceneOf) {
  return insideOf(truth.name, [&](std::mt19937& random) {
    const RehearsalScene scene = sceneOf(random);
    return std::pair(test::readFollowed(RehearsalTank(scene), random, truth.protocol), truth.value(scene));
  });
}

RehearsalScene anyPull(std::mt19937& random) {
  RehearsalScene scene = test::smallPull();
  auto& pull = std::get<StraightPull>(scene.motion);
  pull.speed_mm_s = between(random, 170.0, 290.0);
  pull.wobble_Hz = between(random, 3.5, 9.0);
  pull.wobble_deg = between(random, 16.0, 44.0);
  scene.length = Seconds(460.0 / pull.speed_mm_s);
  scene.noise_grey = 0.0;
  return scene;
}

RehearsalScene anyKick(std::mt19937& random) {
  RehearsalScene scene = anyPull(random);
  scene.lure.tail_mm = 45.0;
  auto& pull = std::get<StraightPull>(scene.motion);
  pull.wobble_deg = 8.0;
  pull.kick_deg = between(random, 20.0, 60.0);
  return scene;
}

RehearsalScene anyFall(std::mt19937& random) {
  RehearsalScene scene = test::smallFall();
  auto& sink = std::get<Sink>(scene.motion);
  sink.speed_mm_s = between(random, 110.0, 190.0);
  sink.timeConstant_s = between(random, 0.06, 0.14);
  sink.glide = between(random, -0.1, 0.5);
  sink.attitude_deg = between(random, 5.0, 60.0);
  scene.noise_grey = 0.0;
  return scene;
}

RehearsalScene anyRock(std::mt19937& random) {
  RehearsalScene scene = anyFall(random);
  auto& sink = std::get<Sink>(scene.motion);
  sink.speed_mm_s = between(random, 100.0, 130.0);
  sink.rock_Hz = between(random, 2.5, 5.0);
  sink.rock_deg = between(random, 10.0, 24.0);
  scene.length = Seconds(2.4);
  return scene;
}

/// Comes down on its nose or tail and stays so.
RehearsalScene anyStanding(std::mt19937& random) {
  RehearsalScene scene = anyFall(random);
  auto& sink = std::get<Sink>(scene.motion);
  sink.attitude_deg = between(random, 40.0, 80.0);
  sink.bottom_mm = -60.0;
  scene.length = Seconds(2.6);
  return scene;
}

RehearsalScene anyFallKick(std::mt19937& random) {
  RehearsalScene scene = anyFall(random);
  scene.lure.tail_mm = 40.0;
  auto& sink = std::get<Sink>(scene.motion);
  sink.speed_mm_s = between(random, 100.0, 130.0);
  sink.kick_Hz = between(random, 3.0, 7.0);
  sink.kick_deg = between(random, 20.0, 50.0);
  scene.length = Seconds(2.4);
  return scene;
}

RehearsalScene anyJerks(std::mt19937& random) {
  RehearsalScene scene = test::smallJerks();
  auto& jerks = std::get<Jerks>(scene.motion);
  jerks.every_s = between(random, 0.95, 1.15);
  jerks.start_mm = -200.0;
  jerks.advance_mm = between(random, 60.0, 110.0);
  jerks.back_mm = between(random, 12.0, 30.0);
  jerks.drift_mm_s = between(random, -15.0, 15.0);
  jerks.attitude_deg = between(random, -10.0, 20.0);
  scene.length = Seconds(jerks.first_s + 3.0 * jerks.every_s);
  scene.noise_grey = 0.0;
  return scene;
}

RehearsalScene anyHops(std::mt19937& random) {
  RehearsalScene scene = test::smallHops();
  auto& hops = std::get<Hops>(scene.motion);
  hops.height_mm = between(random, 80.0, 120.0);
  hops.speed_mm_s = between(random, 120.0, 170.0);
  hops.ahead_mm = between(random, 20.0, 50.0);
  hops.kick_Hz = between(random, 5.0, 8.0);
  hops.kick_deg = between(random, 25.0, 50.0);
  scene.noise_grey = 0.0;
  return scene;
}

RehearsalScene anyHunting(std::mt19937& random) {
  RehearsalScene scene = anyPull(random);
  auto& pull = std::get<StraightPull>(scene.motion);
  pull.wobble_Hz = between(random, 6.0, 9.0);
  pull.unevenness = between(random, 0.02, 0.10);
  pull.seed = static_cast<unsigned>(random());
  return scene;
}

double swingOf(const StraightPull& pull, double length_mm) {
  return length_mm * std::sin(0.5 * pull.wobble_deg * std::numbers::pi / 180.0);
}

class Pulls : public testing::TestWithParam<Truth> {};
class Kicks : public testing::TestWithParam<Truth> {};
class Falls : public testing::TestWithParam<Truth> {};
class Rocks : public testing::TestWithParam<Truth> {};
class Standing : public testing::TestWithParam<Truth> {};
class FallKicks : public testing::TestWithParam<Truth> {};
class Twitches : public testing::TestWithParam<Truth> {};
class HopsOfOne : public testing::TestWithParam<Truth> {};
class Hunting : public testing::TestWithParam<Truth> {};

TEST_P(Pulls, LieInsideTheirUncertainty) {
  EXPECT_GE(insideOf(GetParam(), anyPull), kFewestInside);
}
TEST_P(Kicks, LieInsideTheirUncertainty) {
  EXPECT_GE(insideOf(GetParam(), anyKick), kFewestInside);
}
TEST_P(Falls, LieInsideTheirUncertainty) {
  EXPECT_GE(insideOf(GetParam(), anyFall), kFewestInside);
}

TEST_P(Rocks, LieInsideTheirUncertainty) {
  EXPECT_GE(insideOf(GetParam(), anyRock), kFewestInside);
}
TEST_P(Twitches, LieInsideTheirUncertainty) {
  EXPECT_GE(insideOf(GetParam(), anyJerks), kFewestInside);
}

TEST_P(Standing, LieInsideTheirUncertainty) {
  EXPECT_GE(insideOf(GetParam(), anyStanding), kFewestInside);
}
TEST_P(FallKicks, LieInsideTheirUncertainty) {
  EXPECT_GE(insideOf(GetParam(), anyFallKick), kFewestInside);
}
TEST_P(HopsOfOne, LieInsideTheirUncertainty) {
  EXPECT_GE(insideOf(GetParam(), anyHops), kFewestInside);
}
TEST_P(Hunting, LieInsideTheirUncertainty) {
  EXPECT_GE(insideOf(GetParam(), anyHunting), kFewestInside);
}

const StraightPull& pullOf(const RehearsalScene& s) {
  return std::get<StraightPull>(s.motion);
}
const Sink& sinkOf(const RehearsalScene& s) {
  return std::get<Sink>(s.motion);
}
const Hops& hopsOf(const RehearsalScene& s) {
  return std::get<Hops>(s.motion);
}
/// When v(t) = v∞ tanh(t/τ) has fallen so far.
double fallen_s(double way_mm, double speed_mm_s, double timeConstant_s) {
  return timeConstant_s * std::acosh(std::exp(way_mm / (speed_mm_s * timeConstant_s)));
}
const Jerks& jerksOf(const RehearsalScene& s) {
  return std::get<Jerks>(s.motion);
}
void PrintTo(const Truth& truth, std::ostream* out) {
  *out << toString(truth.name);
}
const auto kByName = [](const auto& truth) { return std::string(toString(truth.param.name)); };

/// A reading whose truth follows from its definition alone: read from the exact track.
Truth byDefinition(ReadingId name) {
  return {name,
          [name](const RehearsalScene& s) { return test::valueOf(test::readTruth(RehearsalTank(s)), name); }};
}

INSTANTIATE_TEST_SUITE_P(
    Coverage, Pulls,
    testing::Values(Truth{ReadingId::TravelSpeed, [](const auto& s) { return pullOf(s).speed_mm_s; }},
                    Truth{ReadingId::WobbleFrequency, [](const auto& s) { return pullOf(s).wobble_Hz; }},
                    Truth{ReadingId::WobbleAngle, [](const auto& s) { return pullOf(s).wobble_deg; }},
                    Truth{ReadingId::TailSweep,
                          [](const auto& s) { return swingOf(pullOf(s), s.lure.length_mm); }},
                    Truth{ReadingId::Strouhal,
                          [](const auto& s) {
                            return pullOf(s).wobble_Hz * swingOf(pullOf(s), s.lure.length_mm) /
                                   pullOf(s).speed_mm_s;
                          }}),
    kByName);

INSTANTIATE_TEST_SUITE_P(
    Coverage, Kicks,
    testing::Values(Truth{ReadingId::KickFrequency, [](const auto& s) { return pullOf(s).wobble_Hz; }},
                    Truth{ReadingId::KickAngle, [](const auto& s) { return pullOf(s).kick_deg; }}),
    kByName);

INSTANTIATE_TEST_SUITE_P(
    Coverage, Falls,
    testing::Values(
        Truth{ReadingId::FallRate, [](const auto& s) { return sinkOf(s).speed_mm_s; }},
        Truth{ReadingId::TimePerMetre, [](const auto& s) { return 1000.0 / sinkOf(s).speed_mm_s; }},
        Truth{ReadingId::GlideRatio, [](const auto& s) { return sinkOf(s).glide; }},
        Truth{ReadingId::SettleDistance,
              [](const auto& s) { return 1.164 * sinkOf(s).speed_mm_s * sinkOf(s).timeConstant_s; }},
        Truth{ReadingId::GlideAngle,
              [](const auto& s) {
                return std::atan2(1.0, std::abs(sinkOf(s).glide)) * 180.0 / std::numbers::pi;
              }},
        byDefinition(ReadingId::FallTravel),
        Truth{ReadingId::FallAttitude, [](const auto& s) { return sinkOf(s).attitude_deg; }}),
    kByName);

INSTANTIATE_TEST_SUITE_P(
    Coverage, Rocks,
    testing::Values(Truth{ReadingId::FallRockFrequency, [](const auto& s) { return sinkOf(s).rock_Hz; }},
                    Truth{ReadingId::FallRockAngle, [](const auto& s) { return sinkOf(s).rock_deg; }}),
    kByName);

INSTANTIATE_TEST_SUITE_P(
    Coverage, Twitches,
    testing::Values(Truth{ReadingId::TwitchInterval, [](const auto& s) { return jerksOf(s).every_s; }},
                    Truth{ReadingId::Advance, [](const auto& s) { return jerksOf(s).advance_mm; }},
                    Truth{ReadingId::SpringBack, [](const auto& s) { return jerksOf(s).back_mm; }},
                    Truth{ReadingId::SpringBackRatio,
                          [](const auto& s) { return 100.0 * jerksOf(s).back_mm / jerksOf(s).advance_mm; }},
                    byDefinition(ReadingId::SpringBackTime), byDefinition(ReadingId::StopTime),
                    byDefinition(ReadingId::StopDistance), byDefinition(ReadingId::DartSpread),
                    byDefinition(ReadingId::Erraticness),
                    Truth{ReadingId::PauseDrift, [](const auto& s) { return jerksOf(s).drift_mm_s; }},
                    Truth{ReadingId::PauseAttitude, [](const auto& s) { return jerksOf(s).attitude_deg; }},
                    Truth{ReadingId::RisePerTwitch,
                          [](const auto& s) { return jerksOf(s).drift_mm_s * jerksOf(s).every_s; }}),
    kByName);

INSTANTIATE_TEST_SUITE_P(
    Coverage, HopsOfOne,
    testing::Values(Truth{ReadingId::HopInterval, [](const auto& s) { return hopsOf(s).every_s; }},
                    Truth{ReadingId::HopHeight, [](const auto& s) { return hopsOf(s).height_mm; }},
                    Truth{ReadingId::FallBackRate, [](const auto& s) { return hopsOf(s).speed_mm_s; }},
                    Truth{ReadingId::FallBackTime,
                          [](const auto& s) {
                            const Hops& h = hopsOf(s);
                            return fallen_s(0.9 * h.height_mm, h.speed_mm_s, h.timeConstant_s);
                          }},
                    Truth{ReadingId::HopKickFrequency, [](const auto& s) { return hopsOf(s).kick_Hz; }},
                    Truth{ReadingId::HopKickAngle, [](const auto& s) { return hopsOf(s).kick_deg; }}),
    kByName);

// By its definition on the exact track: detrending evens out part of what single cycles differ by.
INSTANTIATE_TEST_SUITE_P(Coverage, Hunting, testing::Values(byDefinition(ReadingId::CycleVariation)),
                         kByName);

INSTANTIATE_TEST_SUITE_P(CoverageOfTheDrag, Pulls,
                         testing::Values(Truth{ReadingId::DragTurning,
                                               [](const auto& s) {
                                                 return 2.0 * pullOf(s).wobble_deg * pullOf(s).wobble_Hz /
                                                        (0.001 * pullOf(s).speed_mm_s);
                                               },
                                               Protocol::Drag}),
                         kByName);

INSTANTIATE_TEST_SUITE_P(
    Coverage, FallKicks,
    testing::Values(Truth{ReadingId::FallKickFrequency, [](const auto& s) { return sinkOf(s).kick_Hz; }},
                    Truth{ReadingId::FallKickAngle, [](const auto& s) { return sinkOf(s).kick_deg; }}),
    kByName);

INSTANTIATE_TEST_SUITE_P(
    Coverage, Standing,
    testing::Values(Truth{ReadingId::StandAngle, [](const auto& s) { return sinkOf(s).attitude_deg; },
                          Protocol::Rest},
                    Truth{ReadingId::StandTime,
                          [](const auto& s) {
                            const Sink& sink = sinkOf(s);
                            const double down_s =
                                fallen_s(sink.from_mm - sink.bottom_mm, sink.speed_mm_s, sink.timeConstant_s);
                            return s.length.value() - 1.0 / s.rate.value() - sink.release_s - down_s;
                          },
                          Protocol::Rest}),
    kByName);

TEST(Coverage, OfDepthAndRise) {
  for (const ReadingId name : {ReadingId::RunningDepth, ReadingId::RiseRate}) {
    const double inside = insideOf(name, [&](std::mt19937& random) {
      const double rise = between(random, -20.0, 20.0);
      const double depth = between(random, 80.0, 300.0);
      const double pace = between(random, 150.0, 300.0);
      const auto ends = [&](double t) {
        const PixelPoint centre{pace * t, rise * (t - 1.0) - depth};
        return test::Ends{centre + PixelPoint{40.0, 0.0}, centre - PixelPoint{40.0, 0.0}};
      };
      ReadingSheet sheet;
      readRetrieve(test::tracesOf(ends, 2.0, View::Side, 0.0, &random), View::Side, sheet);
      return std::pair(
          sheet.complete({Protocol::Retrieve, View::Side, {MarkName::Nose, MarkName::Tail}, true, true}),
          name == ReadingId::RiseRate ? rise : depth);
    });
    EXPECT_GE(inside, kFewestInside) << name;
  }
}

// Farther apart than the 3 s of the median can follow: nearer ones are counted twice, as the definition has
// it.
TEST(Coverage, OfBreakouts) {
  const double inside = insideOf(ReadingId::Breakouts, [](std::mt19937& random) {
    const int darts = static_cast<int>(between(random, 0.0, 4.0));
    const double rate_Hz = between(random, 4.0, 7.0);
    const auto ends = [&](double t) {
      const double yaw = 15.0 / kDegreesPerRadian * std::sin(2.0 * std::numbers::pi * rate_Hz * t);
      double aside = 0.0;
      for (int i = 0; i < darts; ++i)
        aside += 32.0 * std::exp(-0.5 * std::pow((t - 1.8 - 2.8 * i) / 0.25, 2.0));
      const PixelPoint centre{200.0 * t, aside};
      const PixelPoint half{40.0 * std::cos(yaw), 40.0 * std::sin(yaw)};
      return test::Ends{centre + half, centre - half};
    };
    ReadingSheet sheet;
    readRetrieve(test::tracesOf(ends, 10.0, View::Top, {}, &random), View::Top, sheet);
    return std::pair(sheet.complete({Protocol::Retrieve, View::Top, {MarkName::Nose, MarkName::Tail}, true}),
                     static_cast<double>(darts));
  });
  EXPECT_GE(inside, kFewestInside);
}

TEST(Coverage, OfFlashes) {
  const double inside = insideOf(ReadingId::FlashRate, [](std::mt19937& random) {
    const double rate_Hz = between(random, 2.0, 8.0);
    std::normal_distribution<double> grey(0.0, 6.0);
    Track track{0, 300, {}};
    std::vector<double> time_s;
    for (std::size_t n = 0; n < track.frameCount; ++n) {
      time_s.push_back(static_cast<double>(n) / 120.0);
      track.brightness.emplace_back(
          100.0 + 25.0 * std::sin(2.0 * std::numbers::pi * rate_Hz * time_s.back()) + grey(random));
    }
    ReadingSheet sheet;
    readFlash(traceFlash(track, time_s), sheet);
    return std::pair(sheet.complete({Protocol::Retrieve, View::Side, {}}), rate_Hz);
  });
  EXPECT_GE(inside, kFewestInside);
}

TEST(Coverage, OfSpinAndTwist) {
  for (const ReadingId name : {ReadingId::SpinTurns, ReadingId::TwistPerMetre}) {
    const double inside = insideOf(name, [&](std::mt19937& random) {
      const double rate_Hz = between(random, 1.5, 4.0);
      const double pace = between(random, 150.0, 300.0);
      const auto straight = [&](double t) {
        return test::Ends{{pace * t + 40.0, 0.0}, {pace * t - 40.0, 0.0}};
      };
      ReadingSheet sheet;
      readRetrieve(test::tracesOf(straight, 3.0, View::Side, {}, &random), View::Side, sheet);
      std::normal_distribution<double> scatter(0.0, 3.0);
      RollTrace roll;
      roll.arm_px = 20.0;
      roll.frameRate_Hz = 120.0;
      roll.span_s = 359.0 / 120.0;
      for (int n = 0; n < 360; ++n) roll.roll.add(n / 120.0, 360.0 * rate_Hz * n / 120.0 + scatter(random));
      readRoll(roll, sheet);
      return std::pair(
          sheet.complete({Protocol::Retrieve, View::Side, {MarkName::Nose, MarkName::Tail}, true}),
          name == ReadingId::SpinTurns ? std::floor(rate_Hz * roll.span_s) : rate_Hz / (0.001 * pace));
    });
    EXPECT_GE(inside, kFewestInside) << name;
  }
}

/// Falls steadily from rest and turns over, or round the plumb.
TEST(Coverage, OfTumblesAndSpirals) {
  for (const ReadingId name : {ReadingId::TumbleRate, ReadingId::SpiralRate, ReadingId::SpiralRadius}) {
    const bool tumbles = name == ReadingId::TumbleRate;
    const double inside = insideOf(name, [&](std::mt19937& random) {
      const double rate_Hz = between(random, 0.9, 1.8);
      const double pace = between(random, 110.0, 200.0);
      const double radius = between(random, 20.0, 45.0);
      const double phase = between(random, 0.0, 2.0 * std::numbers::pi);
      const auto ends = [&](double t) {
        // A body that tumbles is faster broadside than edge on.
        const double even = 2.0 * std::numbers::pi * rate_Hz * t;
        const double turn = tumbles ? even + 0.25 * std::sin(2.0 * even + phase) : even;
        const double down = pace * 0.1 * std::log(std::cosh(t / 0.1));
        const PixelPoint centre{tumbles ? 0.0 : radius * std::sin(turn), -down};
        const PixelPoint half = tumbles ? PixelPoint{40.0 * std::cos(turn), -40.0 * std::sin(turn)}
                                        : PixelPoint{38.0 * std::cos(turn), -12.0};
        return test::Ends{centre + half, centre - half};
      };
      ReadingSheet sheet;
      readFall(test::tracesOf(ends, 4.0, View::Side, {}, &random), View::Side, sheet);
      return std::pair(sheet.complete({Protocol::Fall, View::Side, {MarkName::Nose, MarkName::Tail}, true}),
                       name == ReadingId::SpiralRadius ? radius : rate_Hz);
    });
    EXPECT_GE(inside, kFewestInside) << name;
  }
}

/// Marks back and belly of a body that comes at the camera, rocking about a list.
TEST(Coverage, OfTheRollHeadOn) {
  for (const ReadingId name : {ReadingId::RollFrequency, ReadingId::RollAngle, ReadingId::RollList}) {
    const double inside = insideOf(name, [&](std::mt19937& random) {
      const double rate_Hz = between(random, 3.0, 7.0);
      const double rock_deg = between(random, 20.0, 50.0);
      const double list_deg = between(random, -12.0, 12.0);
      const double offTheRidge_deg = std::normal_distribution<double>(0.0, 0.5)(random);  // placed by hand
      Track track{0, 240, {{MarkName::Back, {}}, {MarkName::Belly, {}}}};
      std::vector<double> time_s;
      for (std::size_t n = 0; n < track.frameCount; ++n) {
        time_s.push_back(static_cast<double>(n) / 120.0);
        const double roll = (list_deg + offTheRidge_deg +
                             0.5 * rock_deg * std::sin(2.0 * std::numbers::pi * rate_Hz * time_s.back())) /
                            kDegreesPerRadian;
        const PixelPoint over{-16.0 * std::sin(roll), -16.0 * std::cos(roll)};
        const PixelPoint middle{300.0, 200.0};
        track.marks[0].samples.push_back({true, middle + over, 1.0});
        track.marks[1].samples.push_back({true, middle - over, 1.0});
      }
      test::followAsSeen(track, random);
      Geometry geometry;
      geometry.view = View::HeadOn;
      ReadingSheet sheet;
      readRoll(traceRoll(track, time_s, geometry, {}), sheet);
      const double truth = name == ReadingId::RollFrequency ? rate_Hz
                           : name == ReadingId::RollAngle   ? rock_deg
                                                            : list_deg;
      return std::pair(sheet.complete({Protocol::Retrieve, View::HeadOn, {MarkName::Back, MarkName::Belly}}),
                       truth);
    });
    EXPECT_GE(inside, kFewestInside) << name;
  }
}

/// Nose and tail of a body that yaws about a heading, as a camera beside it sees them: exact perspective,
/// cycles of unequal length, a wave form that is no sine, marks as they are followed.
struct YawSeen {
  Track track{0, 480, {{MarkName::Nose, {}}, {MarkName::Tail, {}}}};
  std::vector<double> time_s;
  double rate_Hz = 0.0;
  double peakToPeak_deg = 0.0;
  double heading_deg = 0.0;
};

YawSeen yawSeen(std::mt19937& random, bool crossing) {
  constexpr double kFocal_px = 1050.0;
  constexpr double kDistance_mm = 900.0;
  YawSeen out;
  out.rate_Hz = between(random, 3.0, 6.0);
  const double swing = between(random, 9.0, 18.0) / kDegreesPerRadian;
  const double second = between(random, -0.1, 0.1);
  const double wander = between(random, 0.0, 0.05);
  const double ahead_mm = between(random, 25.0, 55.0);
  out.heading_deg = crossing ? between(random, -3.0, 3.0) : between(random, 20.0, 30.0);
  std::normal_distribution<double> uneven(0.0, wander);
  double phase = 0.0;
  double least = 0.0, most = 0.0;
  for (std::size_t n = 0; n < out.track.frameCount; ++n) {
    const double t = static_cast<double>(n) / 120.0;
    out.time_s.push_back(t);
    const double yaw = swing * (std::sin(phase) + second * std::sin(2.0 * phase + 0.7));
    least = std::min(least, yaw);
    most = std::max(most, yaw);
    const double psi = out.heading_deg / kDegreesPerRadian + yaw;
    const double x0 = crossing ? 390.0 * (2.0 * t / 4.0 - 1.0) : 12.0 * std::sin(1.3 * t);
    const auto seen = [&](double along_mm) {
      const double depth = kDistance_mm + along_mm * std::sin(psi);
      return MarkSample{true, {640.0 + kFocal_px * (x0 + along_mm * std::cos(psi)) / depth, 360.0}, 1.0};
    };
    out.track.marks[0].samples.push_back(seen(ahead_mm));
    out.track.marks[1].samples.push_back(seen(ahead_mm - 90.0));
    // Each cycle's length strays by itself: a walk of the phase.
    phase += 2.0 * std::numbers::pi * out.rate_Hz / 120.0 *
             (1.0 + uneven(random) * std::sqrt(120.0 / out.rate_Hz));
  }
  out.rate_Hz = phase / (2.0 * std::numbers::pi) / (static_cast<double>(out.track.frameCount) / 120.0);
  out.peakToPeak_deg = (most - least) * kDegreesPerRadian;
  test::followAsSeen(out.track, random);
  return out;
}

TEST(Coverage, OfTheWobbleFromTheSide) {
  for (const bool crossing : {false, true}) {
    for (const ReadingId name : {ReadingId::WobbleFrequency, ReadingId::WobbleAngle}) {
      const double inside = insideOf(
          name,
          [&](std::mt19937& random) {
            const YawSeen seen = yawSeen(random, crossing);
            std::normal_distribution<double> one(0.0, 1.0);
            SightView view{
                1050.0, {639.5, 359.5}, 1280.0, 1050.0 * 90.0 / 900.0 * (1.0 + 0.005 * one(random)), 0.01, {},
                0.0};
            if (!crossing) {
              view.heading_rad = (seen.heading_deg + 1.5 * one(random)) / kDegreesPerRadian;
              view.headingU95_rad = 3.0 / kDegreesPerRadian;
            }
            ReadingSheet sheet;
            readSideWobble(traceSight(seen.track, seen.time_s, {.view = View::Side}, view), sheet);
            return std::pair(sheet.complete({.protocol = Protocol::Retrieve,
                                             .view = View::Side,
                                             .marks = {MarkName::Nose, MarkName::Tail}}),
                             name == ReadingId::WobbleFrequency ? seen.rate_Hz : seen.peakToPeak_deg);
          },
          Judged::InsideOnly);
      EXPECT_GE(inside, kFewestInside) << name << (crossing ? " crossing" : " askew");
    }
  }
}

/// The scale that a wobbling body of a length that is known to half a millimetre gives.
TEST(Coverage, OfTheLureAsItsOwnRuler) {
  const double inside = insideOf(ReadingId::OwnScale, [&](std::mt19937& random) {
    const YawSeen seen = yawSeen(random, true);
    const SightTrace sight = traceSight(seen.track, seen.time_s, {.view = View::Side},
                                        {1050.0, {639.5, 359.5}, 1280.0, {}, 0.0, {}, 0.0});
    OwnRulerInput input{{sight.t_s, sight.length_px}, {}, 0.5 * seen.peakToPeak_deg, 90.0, 0.5};
    input.length_mm += 0.25 * std::normal_distribution<double>()(random);
    ReadingSheet sheet;
    if (const auto ruler = ownRuler(input)) sheet.give(ReadingId::OwnScale, ruler->scale);
    PassNeeds needs{
        .protocol = Protocol::Retrieve, .view = View::Side, .marks = {MarkName::Nose, MarkName::Tail}};
    needs.hasOwnLength = true;
    return std::pair(sheet.complete(needs), 1050.0 / 900.0);
  });
  EXPECT_GE(inside, kFewestInside);
}

/// A spot on the flank of a body that passes from left to right, rocking about a list, below or above the
/// camera.
TEST(Coverage, OfTheRollFromTheSide) {
  for (const ReadingId name : {ReadingId::RollFrequency, ReadingId::RollAngle, ReadingId::RollList}) {
    const double inside = insideOf(name, [&](std::mt19937& random) {
      constexpr double kHalf_px = 16.0;
      constexpr double kDistance_px = 1600.0;
      const double rate_Hz = between(random, 3.0, 7.0);
      const double rock_deg = between(random, 20.0, 50.0);
      const double list_deg = between(random, -12.0, 12.0);
      const double below_px = between(random, -150.0, 150.0);
      std::normal_distribution<double> one(0.0, 1.0);
      Track track{0, 240, {{MarkName::Flank, {}}}};
      std::vector<double> time_s;
      for (std::size_t n = 0; n < track.frameCount; ++n) {
        time_s.push_back(static_cast<double>(n) / 120.0);
        const double roll =
            list_deg + 0.5 * rock_deg * std::sin(2.0 * std::numbers::pi * rate_Hz * time_s.back());
        const double seen =
            (-roll - kDegreesPerRadian * std::atan2(below_px, kDistance_px)) / kDegreesPerRadian;
        const PixelPoint middle{80.0 + 2.0 * static_cast<double>(n), 400.0 + below_px};
        track.marks[0].samples.push_back({true, middle - PixelPoint{0.0, kHalf_px * std::sin(seen)}, 1.0});
        OutlineSample o{true, true, std::numbers::pi * 50.0 * kHalf_px, middle, 0.0, 100.0, 2.0 * kHalf_px,
                        0.0,  {}};
        auto& rim = o.contours.emplace_back();
        for (int i = 0; i < 200; ++i) {
          const double a = 2.0 * std::numbers::pi * i / 200.0;
          rim.push_back({std::round(middle.x_px + 50.0 * std::cos(a)),
                         std::round(middle.y_px + kHalf_px * std::sin(a))});
        }
        track.outline.push_back(std::move(o));
      }
      test::followAsSeen(track, random);
      Geometry geometry;
      geometry.pull = Pull::Right;
      RollView view{kHalf_px * (1.0 + 0.015 * one(random)), kDistance_px * (1.0 + 0.005 * one(random)),
                    400.0};
      ReadingSheet sheet;
      readRoll(traceRoll(track, time_s, geometry, view), sheet);
      const double truth = name == ReadingId::RollFrequency ? rate_Hz
                           : name == ReadingId::RollAngle   ? rock_deg
                                                            : list_deg;
      return std::pair(sheet.complete({Protocol::Retrieve, View::Side, {MarkName::Flank}}), truth);
    });
    EXPECT_GE(inside, kFewestInside) << name;
  }
}

/// A disc of skirt whose rim is seen a little too far out or in, otherwise at rest than in motion, and
/// shakes.
TEST(Coverage, OfTheSkirt) {
  for (const ReadingId name :
       {ReadingId::FlareMoving, ReadingId::FlareRest, ReadingId::FlarePeakRatio, ReadingId::FlareHalfLife}) {
    const double inside = insideOf(name, [&](std::mt19937& random) {
      const double moving = between(random, 3000.0, 8000.0);
      const double peak = between(random, 1.3, 1.8);
      const double rest = between(random, 1.0, 1.15);
      const double halfLife_s = between(random, 0.3, 0.7);
      std::normal_distribution<double> rimError(0.0, 0.5 * 0.5);
      const double movingRim_px = rimError(random);
      const double restingRim_px = rimError(random);
      std::normal_distribution<double> shake(0.0, 0.1);
      Track track{0, 360, {}};
      std::vector<double> time_s;
      for (std::size_t n = 0; n < track.frameCount; ++n) {
        const double t = static_cast<double>(n) / 60.0;
        time_s.push_back(t);
        const double left = std::exp2(-std::max(t - 2.3, 0.0) / halfLife_s);
        const double open =
            t < 2.0   ? 1.0
            : t < 2.3 ? 1.0 + (peak - 1.0) * std::pow(std::sin(0.5 * std::numbers::pi * (t - 2.0) / 0.3), 2.0)
                      : rest + (peak - rest) * left;
        const double radius = std::sqrt(moving * open / std::numbers::pi) +
                              (t < 2.0 ? movingRim_px : restingRim_px) + shake(random);
        const PixelPoint middle{100.0 + 300.0 * std::min(t, 2.0), 200.0};
        OutlineSample s{
            true, true, std::numbers::pi * radius * radius, middle, 0.0, 2.0 * radius, 2.0 * radius, 0.0, {}};
        auto& rim = s.contours.emplace_back();
        for (int i = 0; i < 200; ++i) {
          const double a = 2.0 * std::numbers::pi * i / 200.0;
          rim.push_back({std::round(middle.x_px + radius * std::cos(a)),
                         std::round(middle.y_px + radius * std::sin(a))});
        }
        track.outline.push_back(std::move(s));
      }
      Geometry geometry;
      geometry.scale = *Scale::create({{0, 0}, {200, 0}, Millimetres(100.0), Millimetres(0.2)}, {});
      ReadingSheet sheet;
      readSkirt(traceOutline(track, time_s, geometry), sheet);
      const std::map<ReadingId, double> truth{{ReadingId::FlareMoving, 0.25 * moving},
                                              {ReadingId::FlareRest, 0.25 * moving * rest},
                                              {ReadingId::FlarePeakRatio, peak},
                                              {ReadingId::FlareHalfLife, halfLife_s}};
      return std::pair(sheet.complete({Protocol::Skirt, View::Side, {}, true, false, true}), truth.at(name));
    });
    EXPECT_GE(inside, kFewestInside) << name;
  }
}

TEST(Coverage, OfTheSound) {
  for (const ReadingId name :
       {ReadingId::RattleLevel, ReadingId::RattleRate, ReadingId::RattlePeakFrequency}) {
    const double inside = insideOf(name, [&](std::mt19937& random) {
      constexpr double kRate = 48000.0;
      const bool level = name == ReadingId::RattleLevel;
      const double louder = level ? between(random, 1.2, 6.0) : 1.0;
      const double pitch_Hz = between(random, 700.0, 4000.0);
      const double every_s = between(random, 0.3, 0.6);
      std::normal_distribution<double> hiss(0.0, 0.003);
      HeardPass heard{kRate, std::vector<float>(96000), std::vector<float>(36000)};
      for (float& s : heard.quiet) s = static_cast<float>(hiss(random));
      constexpr double kFirst_s = 0.15;
      for (std::size_t i = 0; i < heard.window.size(); ++i) {
        const double since = std::fmod(static_cast<double>(i) / kRate, every_s) - kFirst_s;
        const double knock = level || since < 0.0 ? 0.0
                                                  : 0.3 * std::exp(-since / 0.02) *
                                                        std::sin(2.0 * std::numbers::pi * pitch_Hz * since);
        heard.window[i] = static_cast<float>(louder * hiss(random) + knock);
      }
      ReadingSheet sheet;
      readRattle(heard, sheet);
      const double truth = level ? 20.0 * std::log10(louder)
                           : name == ReadingId::RattleRate
                               ? (std::floor((2.0 - kFirst_s) / every_s) + 1.0) / 2.0
                               : pitch_Hz;
      return std::pair(sheet.complete({Protocol::Sound, View::Side, {}}), truth);
    });
    EXPECT_GE(inside, kFewestInside) << name;
  }
}

}  // namespace
}  // namespace fin
