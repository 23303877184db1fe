// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measuring/calibration.h"
#include "core/exchange/pass_json.h"

#include <gtest/gtest.h>

#include <array>

#include "core/measuring/measure.h"
#include "core/rehearsal/tank.h"
#include "support/numbered_film.h"
#include "support/small_scene.h"
#include "support/truth_readings.h"

namespace fin {
namespace {

PassRequest calibrated() {
  PassRequest r;
  r.clip = "a.mp4";
  r.captureRate = Hertz(240.0);
  r.square = SquareMark{{PixelPoint{10, 10}, {110, 12}, {108, 90}, {12, 88}},
                        Millimetres(100.0),
                        Millimetres(80.0),
                        Millimetres(0.5)};
  r.plumb = PixelLine{{50, 0}, {51, 200}};
  r.marks = {{MarkName::Nose, 12, {40, 40}}};
  r.firstFrame = 10;
  r.lastFrame = 20;
  return r;
}

TEST(Calibration, IsTheCamerasPartAndLeavesTheLuresAlone) {
  PassRequest other;
  other.marks = {{MarkName::Tail, 3, {7, 7}}};
  other.scale = ScaleMark{{0, 0}, {10, 0}, Millimetres(5.0)};
  applyCalibration(other, calibrationOf(calibrated()));
  EXPECT_EQ(calibrationOf(other), calibrationOf(calibrated()));
  EXPECT_FALSE(other.scale);
  EXPECT_EQ(other.marks.front().at, (PixelPoint{7, 7}));
}

TEST(Calibration, KeepsMarksAndWindowAtTheirInstantsWhenFieldsAreRead) {
  PassRequest r = calibrated();
  setByField(r, true);
  EXPECT_EQ(r.marks.front().frame, 24U);
  EXPECT_EQ(r.firstFrame, 20U);
  EXPECT_EQ(*r.lastFrame, 41U);
  EXPECT_DOUBLE_EQ(r.captureRate->value(), 480.0);
  setByField(r, false);
  EXPECT_EQ(r, calibrated());
}

TEST(PassFormat, CarriesSquareAndFieldsThereAndBack) {
  PassRequest r = calibrated();
  r.byField = true;
  r.clip = "/there/a.mp4";
  const auto back = parsePassRequest(writePassRequest(r, "/there"), "/there");
  ASSERT_TRUE(back) << back.error().message;
  EXPECT_EQ(*back, r);
}

TEST(PassFormat, RefusesASquareThatIsNone) {
  PassRequest r = calibrated();
  r.square->corners[2] = {60.0, 11.0};
  const auto back = parsePassRequest(writePassRequest(r, ""), "");
  ASSERT_FALSE(back);
  EXPECT_EQ(back.error().where, "square");
  r = calibrated();
  r.scale = ScaleMark{{0, 0}, {10, 0}, Millimetres(5.0)};
  EXPECT_FALSE(parsePassRequest(writePassRequest(r, ""), ""));
}

TEST(OpenClip, RefusesFieldsOfAClipThatHasNone) {
  const test::TemporaryFolder folder;
  test::film(folder / "whole.mp4", {.frames = 10});
  PassRequest r;
  r.clip = folder / "whole.mp4";
  r.byField = true;
  const auto clip = openClip(r);
  ASSERT_FALSE(clip);
  EXPECT_EQ(clip.error().where, "by_field");
}

TEST(WholeFactor, NoticesARateSaidWronglyAndNothingElse) {
  const std::array peers{4.1, 4.3, 4.2};
  const auto slow = wholeFactor(1.06, peers);
  ASSERT_TRUE(slow);
  EXPECT_EQ(slow->factor, 4);
  EXPECT_TRUE(slow->tooSlow);
  const auto fast = wholeFactor(33.4, peers);
  ASSERT_TRUE(fast);
  EXPECT_EQ(fast->factor, 8);
  EXPECT_FALSE(fast->tooSlow);
  EXPECT_FALSE(wholeFactor(4.6, peers));
  EXPECT_FALSE(wholeFactor(6.3, peers));  // half as fast again is another lure
  EXPECT_FALSE(wholeFactor(1.0, {}));
}

}  // namespace
}  // namespace fin
