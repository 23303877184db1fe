// SPDX-License-Identifier: GPL-3.0-or-later
// What readings say of their own uncertainty, against values worked out another way.
#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <random>

#include "core/readings/fall.h"
#include "core/readings/retrieve.h"
#include "core/readings/rhythm_readings.h"
#include "core/rehearsal/rehearse.h"
#include "support/moving_ends.h"
#include "support/small_scene.h"
#include "support/truth_readings.h"

namespace fin {
namespace {

double angleOf_deg(PixelPoint v) {
  return std::atan2(v.y_px, v.x_px) * kDegreesPerRadian;
}

double partOf(const Reading& reading, UncertaintySource source) {
  double squares = 0.0;
  for (const UncertaintyPart& part : reading.parts)
    squares += part.source == source ? part.u95 * part.u95 : 0.0;
  return std::sqrt(squares);
}

/// Standard deviation of an angle told by marks that are each off by 1 px (standard deviation) along each
/// axis.
template <class Angle>
double byDrawing_deg(const Angle& angle) {
  constexpr int kDraws = 20000;
  std::mt19937 random(3);
  std::normal_distribution<double> one(0.0, 1.0);
  const auto off = [&] { return PixelPoint{one(random), one(random)}; };
  double sum = 0.0;
  double squares = 0.0;
  for (int i = 0; i < kDraws; ++i) {
    const double a = angle(off);
    sum += a;
    squares += a * a;
  }
  return std::sqrt(squares / kDraws - std::pow(sum / kDraws, 2));
}

TEST(Uncertainty, OfASwingIsWhatDrawingItsMarksGives) {
  const double body = byDrawing_deg([](const auto& off) {
    return angleOf_deg(PixelPoint{160.0, 0.0} + off() - off());
  });
  // 20000 draws tell a standard deviation to 0.5 %.
  EXPECT_NEAR(perMove_deg({"wobble", 80.0, 0.5, 120.0}), body, 0.02 * body);
  const double kick = byDrawing_deg([](const auto& off) {
    const PixelPoint tail = off();
    return angleOf_deg(tail - (PixelPoint{-90.0, 0.0} + off())) -
           angleOf_deg(PixelPoint{160.0, 0.0} + off() - tail);
  });
  EXPECT_NEAR(perMove_deg({"kick", 45.0, 0.5, 120.0, 80.0}), kick, 0.02 * kick)
      << "the tail is in both lines";
}

TEST(Uncertainty, OfTheKickComesFromThreeMarks) {
  RehearsalScene scene = test::smallPull();
  scene.lure.tail_mm = 45.0;
  std::get<StraightPull>(scene.motion).kick_deg = 40.0;
  const RehearsalTank tank(scene);
  const ReadingSet set = test::readTruth(tank);
  const double wobble = partOf(*set.find(ReadingId::WobbleAngle), UncertaintySource::Marks);
  const double kick = partOf(*set.find(ReadingId::KickAngle), UncertaintySource::Marks);
  const auto apart_px = [&](MarkName a, MarkName b) {
    return length(tank.markAt(a, 60) - tank.markAt(b, 60)).value();
  };
  const double body = apart_px(MarkName::Nose, MarkName::Tail);
  const double tip = apart_px(MarkName::Tip, MarkName::Tail);
  const double expected = std::hypot(1.0 / tip, 1.0 / tip + 1.0 / body, 1.0 / body) / (std::sqrt(2.0) / body);
  EXPECT_NEAR(kick / wobble, expected, 0.01 * expected);
}

TEST(Uncertainty, OfTheDepthDoesNotGrowWithASteadyRise) {
  const auto depthWhenRising = [](double rise_mm_s) {
    const auto ends = [rise_mm_s](double t) {
      const PixelPoint centre{200.0 * t, rise_mm_s * (t - 1.0) - 150.0};
      return test::Ends{centre + PixelPoint{40.0, 0.0}, centre - PixelPoint{40.0, 0.0}};
    };
    ReadingSheet sheet;
    readRetrieve(test::tracesOf(ends, 2.0, View::Side, 0.0), View::Side, sheet);
    return *sheet.complete({Protocol::Retrieve, View::Side, {MarkName::Nose, MarkName::Tail}, true, true})
                .find(ReadingId::RunningDepth);
  };
  const Reading level = depthWhenRising(0.0);
  const Reading rising = depthWhenRising(40.0);
  EXPECT_NEAR(std::get<double>(rising.value), 150.0, 0.5);
  EXPECT_NEAR(*rising.u95, *level.u95, 0.05);
}

TEST(Uncertainty, OfATumbleIsNotItsUnevenTurning) {
  constexpr double kRate_Hz = 1.3;
  const auto ends = [](double t) {
    const double even = 2.0 * std::numbers::pi * kRate_Hz * t;
    const double turn = even + 0.25 * std::sin(2.0 * even);
    const PixelPoint centre{0.0, -15.0 * std::log(std::cosh(t / 0.1))};
    const PixelPoint half{40.0 * std::cos(turn), -40.0 * std::sin(turn)};
    return test::Ends{centre + half, centre - half};
  };
  ReadingSheet sheet;
  readFall(test::tracesOf(ends, 4.0, View::Side), View::Side, sheet);
  const ReadingSet set = sheet.complete({Protocol::Fall, View::Side, {MarkName::Nose, MarkName::Tail}, true});
  const Reading* tumble = set.find(ReadingId::TumbleRate);
  ASSERT_NE(tumble, nullptr);
  EXPECT_NEAR(std::get<double>(tumble->value), kRate_Hz, *tumble->u95);
  EXPECT_LT(*tumble->u95, 0.02 * kRate_Hz)
      << "by the angle's distance from a line it would be a quarter of it";
}

TEST(Uncertainty, OfTheSettlingDistanceCarriesThePlacing) {
  const RehearsalTank tank(test::smallFall());
  const ReadingSet set = test::readTruth(tank);
  const Reading* settle = set.find(ReadingId::SettleDistance);
  ASSERT_NE(settle, nullptr);
  const double mmPerPixel = Scale::create(*requestFor(tank, {}).scale, {})->mmPerPixel();
  // The steady line lies v τ ln 2 behind the start, which two places tell.
  const double lag = std::log(std::cosh(std::atanh(0.95))) / std::numbers::ln2;
  const double body_px = length(tank.markAt(MarkName::Nose, 0) - tank.markAt(MarkName::Tail, 0)).value();
  const double placed_mm = lag * std::sqrt(2.0) * std::hypot(0.55, 0.0027 * body_px) * mmPerPixel;
  EXPECT_NEAR(partOf(*settle, UncertaintySource::Marks), placed_mm, 0.002 * placed_mm);
}

}  // namespace
}  // namespace fin
