// SPDX-License-Identifier: GPL-3.0-or-later
// Readings of a pull beside its rhythm: breakouts, flashes, and a body whose ends turn out of sight.
#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

#include "core/readings/outline_traces.h"
#include "core/readings/retrieve.h"
#include "support/reading_words.h"
#include "support/truth_readings.h"

namespace fin {
namespace {

using test::valueOf;

constexpr double kPullRate_Hz = 120.0;

/// A wobbling body seen from above that darts aside at some instants and comes back.
PassTraces darting(const std::vector<double>& darts_s, double aside_mm) {
  PassTraces out;
  out.inMillimetres = true;
  out.bodyLength = 80.0;
  out.frameRate_Hz = kPullRate_Hz;
  for (int n = 0; n < 1200; ++n) {
    const double t = n / kPullRate_Hz;
    const double yaw = 15.0 * std::sin(2.0 * std::numbers::pi * 5.0 * t);
    double away = 0.0;
    for (const double d : darts_s) away += aside_mm * std::exp(-0.5 * std::pow((t - d) / 0.25, 2.0));
    out.alongCentre.add(t, 200.0 * t);
    out.upCentre.add(t, away);
    out.acrossTail.add(t, away - 40.0 * std::sin(yaw / kDegreesPerRadian));
    out.axis.add(t, yaw);
    out.bodyAlong.add(t, 80.0);
    out.bodyUp.add(t, 0.0);
  }
  return out;
}

ReadingSet read(const PassTraces& traces) {
  ReadingSheet sheet;
  readRetrieve(traces, View::Top, sheet);
  return sheet.complete(
      {Protocol::Retrieve, View::Top, {MarkName::Nose, MarkName::Tail}, true, false, false});
}

TEST(Breakouts, CountsTheDartsThatComeBack) {
  // Tail sweep 20.7 mm: half of it is the limit.
  EXPECT_NEAR(valueOf(read(darting({2.5, 5.0, 7.5}, 30.0)), ReadingId::Breakouts), 3.0, 0.02);
  EXPECT_EQ(valueOf(read(darting({2.5, 5.0, 7.5}, 6.0)), ReadingId::Breakouts), 0.0) << "too small to be one";
}

TEST(Flash, ReadsTheRateFromBrightnessAlone) {
  Track track{0, 400, {}};
  std::vector<double> time_s;
  for (std::size_t n = 0; n < track.frameCount; ++n) {
    time_s.push_back(static_cast<double>(n) / 90.0);
    const double phase = 2.0 * std::numbers::pi * 2.6 * time_s.back();
    // Several glints in one turn.
    track.brightness.emplace_back(90.0 + 25.0 * std::sin(phase) +
                                  30.0 * std::pow(std::cos(phase + 0.4), 8.0));
  }
  ReadingSheet sheet;
  readFlash(traceFlash(track, time_s), sheet);
  const ReadingSet set = sheet.complete({Protocol::Retrieve, View::Side, {}, false, false, false});
  EXPECT_NEAR(valueOf(set, ReadingId::FlashRate), 2.6, 0.02);
}

TEST(Traces, TakeTheOutlineWhereTheEndsTurnOutOfSight) {
  Track track{0, 240, {{MarkName::Nose, {}}, {MarkName::Tail, {}}}};
  std::vector<double> time_s;
  for (std::size_t n = 0; n < track.frameCount; ++n) {
    time_s.push_back(static_cast<double>(n) / 60.0);
    const PixelPoint middle{100.0 + 3.0 * static_cast<double>(n), 300.0};
    // The tail is held for the first fifth only, and the nose creeps away over the body.
    track.marks[0].samples.push_back(
        {true, middle + PixelPoint{40.0 - 0.2 * static_cast<double>(n), 0.0}, 0.9});
    track.marks[1].samples.push_back({n < 48, middle - PixelPoint{40.0, 0.0}, 0.9});
    OutlineSample o;
    o.seen = o.whole = true;
    o.centre = middle + PixelPoint{2.0, 5.0};  // hooks hang below
    track.outline.push_back(o);
  }
  const PassTraces traces = traceBody(track, time_s, {});
  ASSERT_EQ(traces.alongCentre.size(), 240U);
  EXPECT_NEAR((traces.alongCentre.y.back() - traces.alongCentre.y.front()) / traces.alongCentre.span_s(),
              180.0, 1e-6);
  EXPECT_NEAR(traces.upCentre.y.back(), -300.0, 1e-6) << "the body's centre, not the outline's";
}

}  // namespace
}  // namespace fin
