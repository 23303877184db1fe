// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/still.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

namespace fin {
namespace {

constexpr double kLength_px = 400.0;

/// A body 40 px thick along an arc of a sagitta (share of its chord), tail left, nose right, turned by an
/// angle.
struct Bent {
  std::vector<std::vector<PixelPoint>> rim{{}};
  PixelPoint nose;
  PixelPoint tail;
};
Bent bent(double sagitta, double turned_rad) {
  const auto place = [&](double x, double y) {
    const double c = std::cos(turned_rad);
    const double s = std::sin(turned_rad);
    return PixelPoint{500.0 + c * x - s * y, 400.0 + s * x + c * y};
  };
  const double h = sagitta * kLength_px;
  const double radius = (0.25 * kLength_px * kLength_px + h * h) / (2.0 * h);
  const auto middle = [&](double x) {
    return std::sqrt(radius * radius - (x - 0.5 * kLength_px) * (x - 0.5 * kLength_px)) - (radius - h);
  };
  Bent out;
  for (int i = -4; i <= 404; ++i) out.rim.front().push_back(place(i, middle(i) + 20.0));
  for (int i = 404; i >= -4; --i) out.rim.front().push_back(place(i, middle(i) - 20.0));
  out.nose = place(kLength_px, 0.0);
  out.tail = place(0.0, 0.0);
  return out;
}

Track trackOf(const Bent& body, std::optional<PixelPoint> hook = {}) {
  Track out;
  out.frameCount = 3;
  const auto mark = [&](MarkName name, PixelPoint at) {
    out.marks.push_back({name, std::vector<MarkSample>(3, {true, at, 1.0})});
  };
  mark(MarkName::Nose, body.nose);
  mark(MarkName::Tail, body.tail);
  if (hook) mark(MarkName::Hook, *hook);
  OutlineSample sample{.seen = true, .whole = true};
  sample.contours = body.rim;
  out.outline.assign(3, sample);
  return out;
}

TEST(Still, TellsHowFarABodyIsBent) {
  for (const double turned : {0.0, 0.7, std::numbers::pi}) {
    ReadingSheet sheet;
    readStill(trackOf(bent(0.05, turned)), {}, sheet);
    const Estimate* bend = sheet.estimate(ReadingId::BodyBend);
    ASSERT_NE(bend, nullptr);
    EXPECT_NEAR(bend->value, 4.90, 0.07) << "a sagitta of 5 %, over the length of the arc";
    EXPECT_NEAR(bend->u95, std::hypot(50.0 / kLength_px, 0.02 * bend->value), 0.01);
  }
  ReadingSheet straight;
  readStill(trackOf(bent(1e-5, 0.3)), {}, straight);
  EXPECT_LT(straight.estimate(ReadingId::BodyBend)->value, 0.01);
}

TEST(Still, TellsHowFarAHookStandsBesideTheMiddle) {
  const Bent body = bent(0.05, 0.0);
  ReadingSheet sheet;
  // Over the middle, where the body's own lies 20 px up: 12 px from it.
  readStill(trackOf(body, PixelPoint{700.0, 432.0}), {}, sheet);
  EXPECT_NEAR(sheet.estimate(ReadingId::HookOffset)->value, 3.0, 0.05);
}

TEST(Still, RefusesWhatNoFrameShowsWhole) {
  Track track = trackOf(bent(0.05, 0.0));
  for (OutlineSample& sample : track.outline) sample.whole = false;
  ReadingSheet sheet;
  readStill(track, {}, sheet);
  EXPECT_EQ(sheet.estimate(ReadingId::BodyBend), nullptr);
}

}  // namespace
}  // namespace fin
