// SPDX-License-Identifier: GPL-3.0-or-later
// Over many rehearsal passes the truth lies inside what is stated as its uncertainty.
#include <gtest/gtest.h>

#include <cmath>
#include <functional>
#include <numbers>
#include <random>

#include "support/small_scene.h"
#include "support/truth_readings.h"

namespace fin {
namespace {

constexpr int kPasses = 30;
constexpr double kScatter_px = 0.25;
// 95 of 100 are meant to lie inside. Of 30, fewer than 25 do so by chance in 4 of 1000 cases (binomial).
constexpr int kFewestInside = 25;

struct Truth {
  std::string name;
  std::function<double(const RehearsalScene&)> value;
};

int insideOf(const Truth& truth, const std::function<RehearsalScene(std::mt19937&)>& sceneOf) {
  std::mt19937 random(11);
  int inside = 0;
  for (int i = 0; i < kPasses; ++i) {
    const RehearsalScene scene = sceneOf(random);
    const ReadingSet set = test::readTruth(RehearsalTank(scene), kScatter_px, static_cast<unsigned>(i));
    const Reading* r = set.find(truth.name);
    if (r != nullptr && std::abs(std::get<double>(r->value) - truth.value(scene)) <= *r->u95) ++inside;
  }
  return inside;
}

double between(std::mt19937& random, double low, double high) {
  return std::uniform_real_distribution<double>(low, high)(random);
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

double swingOf(const StraightPull& pull, double length_mm) {
  return length_mm * std::sin(0.5 * pull.wobble_deg * std::numbers::pi / 180.0);
}

class Pulls : public testing::TestWithParam<Truth> {};
class Kicks : public testing::TestWithParam<Truth> {};
class Falls : public testing::TestWithParam<Truth> {};
class Rocks : public testing::TestWithParam<Truth> {};
class Twitches : public testing::TestWithParam<Truth> {};

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

const StraightPull& pullOf(const RehearsalScene& s) {
  return std::get<StraightPull>(s.motion);
}
const Sink& sinkOf(const RehearsalScene& s) {
  return std::get<Sink>(s.motion);
}
const Jerks& jerksOf(const RehearsalScene& s) {
  return std::get<Jerks>(s.motion);
}
void PrintTo(const Truth& truth, std::ostream* out) {
  *out << truth.name;
}
const auto kByName = [](const auto& truth) { return truth.param.name; };

INSTANTIATE_TEST_SUITE_P(
    Coverage, Pulls,
    testing::Values(Truth{"travel_speed", [](const auto& s) { return pullOf(s).speed_mm_s; }},
                    Truth{"wobble_frequency", [](const auto& s) { return pullOf(s).wobble_Hz; }},
                    Truth{"wobble_angle", [](const auto& s) { return pullOf(s).wobble_deg; }},
                    Truth{"tail_sweep", [](const auto& s) { return swingOf(pullOf(s), s.lure.length_mm); }},
                    Truth{"strouhal",
                          [](const auto& s) {
                            return pullOf(s).wobble_Hz * swingOf(pullOf(s), s.lure.length_mm) /
                                   pullOf(s).speed_mm_s;
                          }}),
    kByName);

INSTANTIATE_TEST_SUITE_P(
    Coverage, Kicks,
    testing::Values(Truth{"kick_frequency", [](const auto& s) { return pullOf(s).wobble_Hz; }},
                    Truth{"kick_angle", [](const auto& s) { return pullOf(s).kick_deg; }}),
    kByName);

INSTANTIATE_TEST_SUITE_P(
    Coverage, Falls,
    testing::Values(Truth{"fall_rate", [](const auto& s) { return sinkOf(s).speed_mm_s; }},
                    Truth{"time_per_metre", [](const auto& s) { return 1000.0 / sinkOf(s).speed_mm_s; }},
                    Truth{"glide_ratio", [](const auto& s) { return sinkOf(s).glide; }},
                    Truth{"settle_distance",
                          [](const auto& s) {
                            return 1.164 * sinkOf(s).speed_mm_s * sinkOf(s).timeConstant_s;
                          }},
                    Truth{"glide_angle",
                          [](const auto& s) {
                            return std::atan2(1.0, std::abs(sinkOf(s).glide)) * 180.0 / std::numbers::pi;
                          }},
                    Truth{"fall_attitude", [](const auto& s) { return sinkOf(s).attitude_deg; }}),
    kByName);

INSTANTIATE_TEST_SUITE_P(
    Coverage, Rocks,
    testing::Values(Truth{"fall_rock_frequency", [](const auto& s) { return sinkOf(s).rock_Hz; }},
                    Truth{"fall_rock_angle", [](const auto& s) { return sinkOf(s).rock_deg; }}),
    kByName);

INSTANTIATE_TEST_SUITE_P(
    Coverage, Twitches,
    testing::Values(Truth{"twitch_interval", [](const auto& s) { return jerksOf(s).every_s; }},
                    Truth{"advance", [](const auto& s) { return jerksOf(s).advance_mm; }},
                    Truth{"spring_back", [](const auto& s) { return jerksOf(s).back_mm; }},
                    Truth{"spring_back_ratio",
                          [](const auto& s) { return 100.0 * jerksOf(s).back_mm / jerksOf(s).advance_mm; }},
                    Truth{"pause_drift", [](const auto& s) { return jerksOf(s).drift_mm_s; }},
                    Truth{"pause_attitude", [](const auto& s) { return jerksOf(s).attitude_deg; }},
                    Truth{"rise_per_twitch",
                          [](const auto& s) { return jerksOf(s).drift_mm_s * jerksOf(s).every_s; }}),
    kByName);

}  // namespace
}  // namespace fin
