// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/skirt.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

#include "support/reading_words.h"
#include "support/truth_readings.h"

namespace fin {
namespace {

using test::valueOf;

constexpr double kSkirtRate_Hz = 60.0;
constexpr double kStop_s = 2.0;
constexpr double kOpens_s = 0.3;

/// A disc of skirt: pulled until it stops, then opening by half and closing again with a half-life, if it
/// does.
double areaAt(double t, double halfLife_s) {
  constexpr double kMoving = 4000.0;
  if (t < kStop_s) return kMoving;
  if (t < kStop_s + kOpens_s) return kMoving * (1.0 + 0.5 * (t - kStop_s) / kOpens_s);
  const double left = halfLife_s > 0.0 ? std::pow(0.5, (t - kStop_s - kOpens_s) / halfLife_s) : 1.0;
  return kMoving * (1.1 + 0.4 * left);
}

ReadingSet read(double halfLife_s, double end_s = 6.0, double quiver_px = 0.0) {
  Track track{0, static_cast<std::size_t>(end_s * kSkirtRate_Hz), {}};
  std::vector<double> time_s;
  for (std::size_t n = 0; n < track.frameCount; ++n) {
    const double t = static_cast<double>(n) / kSkirtRate_Hz;
    time_s.push_back(t);
    const double area = areaAt(t, halfLife_s);
    const double radius = std::sqrt(area / std::numbers::pi);
    const double shift = n % 2 == 0 ? 0.0 : quiver_px;
    const PixelPoint middle{100.0 + 300.0 * std::min(t, kStop_s), 200.0};
    OutlineSample s{true, true, area, middle, 0.0, 2.0 * radius, 2.0 * radius, 0.0, {}};
    auto& rim = s.contours.emplace_back();
    for (int i = 0; i < 300; ++i) {
      const double a = 2.0 * std::numbers::pi * i / 300.0;
      rim.push_back(
          {std::round(middle.x_px + shift + radius * std::cos(a)), std::round(200.0 + radius * std::sin(a))});
    }
    track.outline.push_back(std::move(s));
  }
  Geometry geometry;
  geometry.scale = *Scale::create({{0, 0}, {200, 0}, Millimetres(100.0), Millimetres(0.2)}, {});
  ReadingSheet sheet;
  readSkirt(traceOutline(track, time_s, geometry), sheet);
  return sheet.complete({Protocol::Skirt, View::Side, {}, true, false, true});
}

TEST(Skirt, ReadsAreasAndHowItOpensAndCloses) {
  const ReadingSet set = read(0.5);
  // Half a millimetre to the pixel.
  EXPECT_NEAR(valueOf(set, ReadingId::FlareMoving), 1000.0, 5.0);
  EXPECT_NEAR(valueOf(set, ReadingId::FlareRest), 1000.0 * (1.1 + 0.4 * std::pow(0.5, 3.2 / 0.5)), 8.0);
  EXPECT_NEAR(valueOf(set, ReadingId::FlarePeakRatio), 1.5, 0.03);
  EXPECT_NEAR(valueOf(set, ReadingId::FlareHalfLife), 0.5, 0.06);
  EXPECT_NEAR(valueOf(set, ReadingId::Quiver), 0.0, 0.5);
}

TEST(Skirt, SeesItQuiver) {
  // One pixel to and fro: twice the diameter changes sides each frame.
  const ReadingSet set = read(0.2, 8.0, 1.0);
  const double diameter = 2.0 * std::sqrt(4400.0 / std::numbers::pi);
  EXPECT_NEAR(valueOf(set, ReadingId::Quiver), 100.0 * 2.0 * diameter / 4400.0, 0.6);
}

TEST(Skirt, SaysThatItStaysOpenOrNeverStops) {
  const auto why = test::whyRefused;
  EXPECT_NE(why(read(-1.0), ReadingId::FlareHalfLife).find("stays as open"), std::string::npos);
  EXPECT_NE(why(read(0.5, 1.9), ReadingId::FlareRest).find("stop"), std::string::npos);
  EXPECT_NE(why(read(0.5, 2.5), ReadingId::FlareRest).find("short"), std::string::npos);
}

}  // namespace
}  // namespace fin
