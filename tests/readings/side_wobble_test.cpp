// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/side_wobble.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <random>

#include "core/readings/head_on_wobble.h"

namespace fin {
namespace {

constexpr double kRad = std::numbers::pi / 180.0;

/// A level body that yaws, seen from its side: the exact length of its picture, with what lies before and
/// behind the turning point, the angle of sight, and noise.
struct YawingBody {
  double before_mm = 36.0;
  double behind_mm = 64.0;
  double distance_mm = 900.0;
  double focal_px = 1050.0;
  double heading_deg = 0.0;
  double swing_deg = 15.0;  ///< half of peak to peak
  double rate_Hz = 4.3;
  double span_s = 5.0;
  double crossing_deg = 0.0;  ///< of sight, to either side
  double flank_px = 0.0;      ///< the flank mark's height swings by so much
  double noise_px = 0.25;
  double guessed_px = 0.0;  ///< focal length that is taken for it, where nobody knows it

  /// (f L / D) cos(ψ + β) / cos β / [(1 + n sin ψ / D) (1 − q sin ψ / D)]
  [[nodiscard]] double length_px(double yaw_rad, double sight_rad) const {
    const double whole = focal_px * (before_mm + behind_mm) / distance_mm;
    return whole * std::cos(yaw_rad + sight_rad) / std::cos(sight_rad) /
           ((1.0 + before_mm * std::sin(yaw_rad) / distance_mm) *
            (1.0 - behind_mm * std::sin(yaw_rad) / distance_mm));
  }
  [[nodiscard]] SightTrace seen() const {
    std::mt19937 random(5);
    std::normal_distribution<double> noise(0.0, noise_px);
    SightTrace out;
    out.frameRate_Hz = 120.0;
    out.view.width_px = 1280.0;
    if (guessed_px == 0.0) out.view.focal_px = focal_px;
    SightCue length{{}, false};
    SightCue flank{{}, true};
    for (double t = 0.0; t < span_s; t += 1.0 / 120.0) {
      const double phase = 2.0 * std::numbers::pi * rate_Hz * t;
      const double sight = kRad * crossing_deg * (2.0 * t / span_s - 1.0);
      const double yaw = kRad * (heading_deg + swing_deg * std::sin(phase));
      out.t_s.push_back(t);
      const double taken = guessed_px > 0.0 ? std::atan(std::tan(sight) * focal_px / guessed_px) : sight;
      out.sight_rad.push_back(taken);
      out.length_px.push_back((length_px(yaw, sight) + noise(random)) * std::cos(taken));
      length.px.add(t, out.length_px.back());
      flank.px.add(t, flank_px * std::sin(phase + 0.4) + noise(random));
    }
    out.cues.push_back(length);
    if (flank_px > 0.0) out.cues.push_back(flank);
    return out;
  }
};

struct Told {
  const Estimate* rate;
  const Estimate* angle;
};

TEST(SideWobble, SeesTheLengthThatTheFormulaGives) {
  const YawingBody body;
  EXPECT_NEAR(body.length_px(15.0 * kRad, 0.0), 113.628, 5e-4);
  EXPECT_NEAR(body.length_px(15.0 * kRad, 20.0 * kRad), 102.546, 5e-4);
}

class SideWobbleSeen : public testing::TestWithParam<YawingBody> {};

TEST_P(SideWobbleSeen, IsTold) {
  const YawingBody& body = GetParam();
  SightTrace trace = body.seen();
  if (body.heading_deg != 0.0) {
    // Stated two degrees wrongly.
    trace.view.heading_rad = (body.heading_deg - 2.0) * kRad;
    trace.view.headingU95_rad = 3.0 * kRad;
  }
  trace.view.whole_px = body.length_px(0.0, 0.0) * 1.005;
  trace.view.wholeRelativeU95 = 0.01;
  ReadingSheet sheet;
  readSideWobble(trace, sheet);
  const Estimate* rate = sheet.estimate(ReadingId::WobbleFrequency);
  const Estimate* angle = sheet.estimate(ReadingId::WobbleAngle);
  ASSERT_NE(rate, nullptr);
  ASSERT_NE(angle, nullptr);
  // A rate that is one cycle in 150 off would slip by a seventh of one over the view.
  EXPECT_NEAR(rate->value, body.rate_Hz, 0.03);
  EXPECT_NEAR(angle->value, 2.0 * body.swing_deg, angle->u95);
  EXPECT_LT(angle->u95, 0.2 * angle->value);
}

INSTANTIATE_TEST_SUITE_P(
    From, SideWobbleSeen,
    testing::Values(YawingBody{.heading_deg = 24.0, .swing_deg = 14.0},
                    YawingBody{.swing_deg = 16.0, .crossing_deg = 27.0},
                    YawingBody{
                        .swing_deg = 12.0, .crossing_deg = 24.0, .noise_px = 0.15, .guessed_px = 800.0},
                    YawingBody{.swing_deg = 19.0, .rate_Hz = 3.1, .flank_px = 3.0}),
    [](const auto& param) {
      return std::string(param.param.guessed_px > 0.0     ? "CrossingWithALensThatNobodyKnows"
                         : param.param.crossing_deg > 0.0 ? "Crossing"
                         : param.param.heading_deg > 0.0  ? "Askew"
                                                          : "SquareWithASpot");
    });

TEST(SideWobble, NamesBothRatesWhereNothingTellsOnceFromTwice) {
  ReadingSheet sheet;
  readSideWobble(YawingBody{.before_mm = 50.0, .behind_mm = 50.0}.seen(), sheet);
  EXPECT_EQ(sheet.estimate(ReadingId::WobbleFrequency), nullptr);
  const ReadingSet set = sheet.complete(
      {.protocol = Protocol::Retrieve, .view = View::Side, .marks = {MarkName::Nose, MarkName::Tail}});
  for (const Refusal& r : set.refused) {
    if (r.id != ReadingId::WobbleFrequency) continue;
    EXPECT_NE(r.why.find("4.3"), std::string::npos) << r.why;
    EXPECT_NE(r.why.find("8.6"), std::string::npos) << r.why;
  }
}

TEST(SideWobble, RefusesABodyThatHardlyShortensAndSaysWhatWould) {
  SightTrace trace = YawingBody{.heading_deg = 24.0, .swing_deg = 0.1}.seen();
  trace.view.heading_rad = 24.0 * kRad;
  trace.view.headingU95_rad = 3.0 * kRad;
  ReadingSheet sheet;
  readSideWobble(trace, sheet);
  const ReadingSet set = sheet.complete(
      {.protocol = Protocol::Retrieve, .view = View::Side, .marks = {MarkName::Nose, MarkName::Tail}});
  const auto found = std::find_if(set.refused.begin(), set.refused.end(),
                                  [](const Refusal& r) { return r.id == ReadingId::WobbleAngle; });
  ASSERT_NE(found, set.refused.end());
  EXPECT_NE(found->why.find("shows a wobble from about"), std::string::npos) << found->why;
}

TEST(HeadOnWobble, IsTheAngleThatTheTailStandsAsideBy) {
  Track track;
  track.frameCount = 20;
  const auto mark = [&](MarkName name, double x, double y) {
    track.marks.push_back({name, std::vector<MarkSample>(20, {true, {x, y}, 1.0})});
  };
  mark(MarkName::Back, 100.0, 85.0);
  mark(MarkName::Belly, 100.0, 115.0);
  mark(MarkName::Nose, 100.0, 100.0);
  mark(MarkName::Tail, 114.0, 100.0);
  std::vector<double> times;
  for (int i = 0; i < 20; ++i) times.push_back(0.01 * i);
  const Series yaw = headOnYaw_deg(track, times, {}, {80.0, 0.5, 18.0});
  ASSERT_EQ(yaw.size(), 20U);
  EXPECT_NEAR(yaw.y.front(), 6.03, 5e-3);
}

}  // namespace
}  // namespace fin
