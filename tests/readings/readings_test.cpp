// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <set>

#include "core/readings/fall.h"
#include "core/readings/registry.h"
#include "core/readings/retrieve.h"
#include "support/reading_words.h"
#include "support/small_scene.h"
#include "support/truth_readings.h"

namespace fin {
namespace {

std::vector<double> timesOf(const RehearsalTank& tank, std::size_t first, std::size_t count) {
  std::vector<double> out;
  for (std::size_t i = 0; i < count; ++i) out.push_back(tank.timeOf(first + i).value());
  return out;
}

using test::valueOf;

ReadingSet fromTruth(const RehearsalTank& tank) {
  return test::readTruth(tank);
}

/// Truth lies inside the stated uncertainty, and the uncertainty says something.
void expectReading(const ReadingSet& set, ReadingId name, double truth, double usefulU95) {
  const Reading* r = set.find(name);
  ASSERT_NE(r, nullptr) << name;
  EXPECT_NEAR(std::get<double>(r->value), truth, *r->u95) << name;
  EXPECT_LT(*r->u95, usefulU95) << name;
}

TEST(Retrieve, ReadsAStraightPullAsItWasMade) {
  const RehearsalTank tank(test::smallPull());
  const ReadingSet set = fromTruth(tank);
  expectReading(set, ReadingId::TravelSpeed, 240.0, 5.0);
  expectReading(set, ReadingId::WobbleFrequency, 5.0, 0.1);
  expectReading(set, ReadingId::WobbleAngle, 30.0, 1.5);
  // The tail swings 40 mm behind the middle: 2 · 40 · sin 15°.
  const double sweep = 80.0 * std::sin(15.0 * std::numbers::pi / 180.0);
  expectReading(set, ReadingId::TailSweep, sweep, 1.5);
  expectReading(set, ReadingId::Strouhal, 5.0 * sweep / 240.0, 0.05);
  EXPECT_LT(valueOf(set, ReadingId::CycleVariation), 2.0);
  std::size_t told = 0;
  for (const Reading& r : set.readings) {
    if (r.parts.empty()) continue;
    ++told;
    EXPECT_NEAR(inQuadrature(r.parts), *r.u95, 1e-9) << r.id << ": the parts make the whole";
  }
  EXPECT_GE(told, 3U);
}

TEST(Retrieve, ShowsTheWobblesItCounted) {
  const Evidence evidence = test::evidenceOfTruth(RehearsalTank(test::smallPull()));
  ASSERT_GT(evidence.cycles.size(), 4U);
  for (std::size_t i = 1; i < evidence.cycles.size(); ++i) {
    EXPECT_NEAR(evidence.cycles[i].to_s - evidence.cycles[i].from_s, 0.2, 0.01);
    EXPECT_EQ(evidence.cycles[i].from_s, evidence.cycles[i - 1].to_s);
  }
  ASSERT_TRUE(evidence.line);
  const FittedLine& line = *evidence.line;
  EXPECT_NEAR((line.to - line.from) / (line.span.to_s - line.span.from_s), 240.0, 3.0);
  EXPECT_TRUE(evidence.breakouts_s.empty());
}

TEST(Fall, ShowsWhereItIsSteady) {
  const Evidence evidence = test::evidenceOfTruth(RehearsalTank(test::smallFall()));
  ASSERT_TRUE(evidence.steady);
  // Released at 0.1 s with a time constant of 0.12 s: at 95 % after 1.832 of these.
  EXPECT_NEAR(evidence.steady->from_s, 0.1 + 1.832 * 0.12, 0.06);
  ASSERT_TRUE(evidence.line);
  EXPECT_LT(evidence.line->to, evidence.line->from) << "up counts upwards";
}

TEST(Fall, ReadsHowTheBodyRocksAndThatItDoesNotTumble) {
  RehearsalScene scene = test::smallFall();
  auto& sink = std::get<Sink>(scene.motion);
  sink.rock_Hz = 2.6;
  sink.rock_deg = 18.0;
  const ReadingSet set = fromTruth(RehearsalTank(scene));
  expectReading(set, ReadingId::FallRockFrequency, 2.6, 0.3);
  expectReading(set, ReadingId::FallRockAngle, 18.0, 3.0);
  EXPECT_EQ(set.find(ReadingId::TumbleRate), nullptr);
}

TEST(Retrieve, ReadsDepthUnderASlantingWaterlineAndTheRise) {
  // 2 mm a pixel; the body rises by a pixel every ten frames of 0.01 s, under a waterline that slants in the
  // picture.
  Track track{0, 100, {{MarkName::Nose, {}}, {MarkName::Tail, {}}}};
  std::vector<double> times;
  for (int n = 0; n < 100; ++n) {
    track.marks[0].samples.push_back({true, {200.0 + 2.0 * n, 160.0 - 0.1 * n}, 1.0});
    track.marks[1].samples.push_back({true, {150.0 + 2.0 * n, 160.0 - 0.1 * n}, 1.0});
    times.push_back(0.01 * n);
  }
  Geometry geometry;
  geometry.view = View::Side;
  geometry.scale = *Scale::create({{0.0, 0.0}, {100.0, 0.0}, Millimetres(200.0)}, {});
  geometry.waterline = PixelLine{{0.0, 40.0}, {400.0, 60.0}};
  ReadingSheet sheet;
  readRetrieve(traceBody(track, times, geometry), View::Side, sheet);
  const ReadingSet set =
      sheet.complete({Protocol::Retrieve, View::Side, {MarkName::Nose, MarkName::Tail}, true, true, false});
  EXPECT_NEAR(valueOf(set, ReadingId::RiseRate), 20.0, 1e-6);
  // Middle of the path: x 274, y 155.05; the waterline stands at 53.7 there.
  EXPECT_NEAR(valueOf(set, ReadingId::RunningDepth), 2.0 * (155.05 - 53.7), 0.01);
}

TEST(Retrieve, IsTheSameForAPullToTheLeft) {
  RehearsalScene scene = test::smallPull();
  std::get<StraightPull>(scene.motion).start_mm = 235.0;
  std::get<StraightPull>(scene.motion).speed_mm_s = -240.0;
  RehearsalTank tank(scene);
  PassRequest request = requestFor(tank, {});
  request.pull.reset();
  Track track = tank.trueTrack(std::vector{MarkName::Nose, MarkName::Tail});
  const PassTraces traces = traceBody(track, timesOf(tank, 0, track.frameCount),
                                      {View::Top, {}, *Scale::create(*request.scale, {}), {}, {}, {}, {}});
  ReadingSheet sheet;
  readRetrieve(traces, View::Top, sheet);
  ASSERT_NE(sheet.estimate(ReadingId::TravelSpeed), nullptr);
  EXPECT_NEAR(sheet.estimate(ReadingId::TravelSpeed)->value, 240.0, 3.0);
}

TEST(Retrieve, RefusesARateThatAliases) {
  RehearsalScene scene = test::smallPull();
  scene.rate = Hertz(11.0);
  const ReadingSet set = fromTruth(RehearsalTank(scene));
  EXPECT_EQ(set.find(ReadingId::WobbleFrequency), nullptr);
}

TEST(Retrieve, CallsTwoToFiveCyclesPoorAndFewerRefused) {
  RehearsalScene scene = test::smallPull();
  std::get<StraightPull>(scene.motion).wobble_Hz = 2.2;
  const ReadingSet few = fromTruth(RehearsalTank(scene));
  ASSERT_NE(few.find(ReadingId::WobbleFrequency), nullptr);
  EXPECT_EQ(few.find(ReadingId::WobbleFrequency)->grade, Grade::Poor);
  scene.length = Seconds(0.7);
  EXPECT_EQ(fromTruth(RehearsalTank(scene)).find(ReadingId::WobbleFrequency), nullptr);
}

TEST(Retrieve, RefusesAWobbleWhereThereIsNone) {
  RehearsalScene scene = test::smallPull();
  std::get<StraightPull>(scene.motion).wobble_deg = 0.0;
  const ReadingSet set = fromTruth(RehearsalTank(scene));
  EXPECT_EQ(set.find(ReadingId::WobbleFrequency), nullptr);
  EXPECT_NE(set.find(ReadingId::TravelSpeed), nullptr);
}

TEST(Fall, ReadsAFallAsItWasMade) {
  const RehearsalTank tank(test::smallFall());
  const ReadingSet set = fromTruth(tank);
  expectReading(set, ReadingId::FallRate, 150.0, 4.0);
  expectReading(set, ReadingId::TimePerMetre, 1000.0 / 150.0, 0.2);
  expectReading(set, ReadingId::SettleDistance, 1.164 * 150.0 * 0.12, 4.0);
  expectReading(set, ReadingId::GlideRatio, 0.3, 0.05);
  expectReading(set, ReadingId::GlideAngle, std::atan2(1.0, 0.3) * kDegreesPerRadian, 3.0);
  expectReading(set, ReadingId::FallAttitude, 25.0, 3.0);
  EXPECT_EQ(std::get<std::string>(set.find(ReadingId::FallMode)->value), "plumb");
}

TEST(Fall, SaysWhenItNeverBecomesSteady) {
  RehearsalScene scene = test::smallFall();
  std::get<Sink>(scene.motion).timeConstant_s = 1.5;
  std::get<Sink>(scene.motion).speed_mm_s = 600.0;
  const ReadingSet set = fromTruth(RehearsalTank(scene));
  EXPECT_EQ(set.find(ReadingId::FallRate), nullptr);
  const std::string why = test::whyRefused(set, ReadingId::FallRate);
  EXPECT_NE(why.find("steady"), std::string::npos) << why;
}

class Protocols : public testing::TestWithParam<Protocol> {};

TEST_P(Protocols, AnswerEveryReadingOnceWithAReasonWhereRefused) {
  for (View view : {View::Side, View::Top, View::HeadOn, View::Chase}) {
    const PassNeeds needs{.protocol = GetParam(), .view = view};
    const ReadingSet set = ReadingSheet().complete(needs);
    std::set<ReadingId> names;
    for (const Refusal& r : set.refused) {
      EXPECT_TRUE(names.insert(r.id).second) << r.id;
      EXPECT_FALSE(r.why.empty());
    }
    const auto all = readingsOf(GetParam());
    EXPECT_EQ(names.size(), std::count_if(all.begin(), all.end(),
                                          [&](const ReadingSpec& spec) { return isAsked(spec, needs); }));
    EXPECT_TRUE(set.readings.empty());
  }
}

INSTANTIATE_TEST_SUITE_P(All, Protocols,
                         testing::Values(Protocol::Retrieve, Protocol::Fall, Protocol::Twitch, Protocol::Walk,
                                         Protocol::Rest, Protocol::Skirt, Protocol::Sound));

TEST(ReadingId, HasAWordOfItsOwnAndADefinitionWhereAPassTellsIt) {
  for (std::size_t i = 0; i < kReadingCount; ++i) {
    const auto id = static_cast<ReadingId>(i);
    EXPECT_EQ(readingNamed(toString(id)), id) << toString(id);
    const std::set<ReadingId> ofSeveral{
        ReadingId::OnsetSpeed, ReadingId::BlowoutSpeed, ReadingId::BodyWeight,   ReadingId::KickFallRate,
        ReadingId::KickHead,   ReadingId::HoldInterval, ReadingId::LevelInterval};
    ASSERT_EQ(specOf(id) == nullptr, ofSeveral.contains(id)) << toString(id);
    if (!ofSeveral.contains(id)) {
      EXPECT_FALSE(specOf(id)->definition.empty()) << toString(id);
    }
  }
  EXPECT_FALSE(readingNamed("fall rate"));
  EXPECT_EQ(unitOf(ReadingId::OnsetSpeed), "mm/s");
}

TEST(Readings, TellWhatTheirUncertaintyComesFrom) {
  // Counts, and what is made of other readings, stand without parts.
  const std::set<ReadingId> without{ReadingId::Strouhal, ReadingId::Breakouts, ReadingId::TwitchCount,
                                    ReadingId::HopCount, ReadingId::FallMode,  ReadingId::PauseClass};
  for (const RehearsalScene& scene :
       {test::smallPull(), test::smallFall(), test::smallJerks(), test::smallHops()}) {
    const ReadingSet set = test::readTruth(RehearsalTank(scene), 0.1);
    EXPECT_GT(set.readings.size(), 4U);
    for (const Reading& r : set.readings) {
      if (without.contains(r.id)) continue;
      EXPECT_FALSE(r.parts.empty()) << r.id;
      EXPECT_NEAR(inQuadrature(r.parts), r.u95.value_or(0.0), 1e-9) << r.id;
    }
  }
}

}  // namespace
}  // namespace fin
