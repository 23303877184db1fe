// SPDX-License-Identifier: GPL-3.0-or-later
// The lure is found where nobody pressed anything.
#include "core/tracking/finding/find_lure.h"

#include <gtest/gtest.h>

#include "core/tracking/finding/laid_out_body.h"
#include "support/small_scene.h"

namespace fin {
namespace {

double off(const FoundLure& lure, MarkName name, const RehearsalTank& tank) {
  for (const FoundMark& mark : lure.marks) {
    if (mark.seed.name == name) return length(mark.seed.at - tank.markAt(name, mark.seed.frame)).value();
  }
  return 1e9;
}

TEST(FindLure, FindsAPulledLureWithItsNoseAhead) {
  RehearsalTank tank(test::smallPull());
  const double body = length(tank.markAt(MarkName::Nose, 60) - tank.markAt(MarkName::Tail, 60)).value();
  const auto lure = findLure(tank, {{0, tank.frameCount() - 1}, FrontBy::Pull, {}});
  ASSERT_TRUE(lure) << lure.error().message;
  EXPECT_LT(off(*lure, MarkName::Nose, tank), 0.08 * body);
  EXPECT_LT(off(*lure, MarkName::Tail, tank), 0.08 * body);
  EXPECT_GE(lure->outline.polygon.size(), 8U);
}

TEST(FindLure, TakesTheLowerEndOfASteepFallForTheNose) {
  RehearsalScene scene = test::smallFall();
  std::get<Sink>(scene.motion).attitude_deg = 50.0;
  RehearsalTank tank(scene);
  const auto lure = findLure(tank, {{0, tank.frameCount() - 1}, FrontBy::Fall, {}});
  ASSERT_TRUE(lure) << lure.error().message;
  const double body = length(tank.markAt(MarkName::Nose, 60) - tank.markAt(MarkName::Tail, 60)).value();
  EXPECT_LT(off(*lure, MarkName::Nose, tank), 0.1 * body);
  EXPECT_LT(off(*lure, MarkName::Tail, tank), 0.1 * body);
}

TEST(FindLure, SaysWhereNothingMovesAsOne) {
  RehearsalScene scene = test::smallPull();
  std::get<StraightPull>(scene.motion).start_mm = -5000.0;  // it never comes
  RehearsalTank empty(scene);
  const auto none = findLure(empty, {{0, empty.frameCount() - 1}, FrontBy::Pull, {}});
  ASSERT_FALSE(none);
  EXPECT_EQ(none.error().code, ErrorCode::Lost);
  RehearsalTank tank(test::smallPull());
  EXPECT_EQ(findLure(tank, {{0, 3}, FrontBy::Pull, {}}).error().code, ErrorCode::Lost) << "too short";
}

TEST(FindLure, StopsWhenAsked) {
  RehearsalTank tank(test::smallPull());
  std::stop_source stop;
  stop.request_stop();
  EXPECT_EQ(
      findLure(tank, {{0, tank.frameCount() - 1}, FrontBy::Pull, {}}, {stop.get_token(), {}}).error().code,
      ErrorCode::Cancelled);
}

TEST(LaidOutBody, TurnedRoundTwiceIsAsItWas) {
  RehearsalTank tank(test::smallPull());
  const std::size_t frame = 60;
  const auto picture = tank.frame(frame);
  const PixelPoint nose = tank.markAt(MarkName::Nose, frame);
  const PixelPoint tail = tank.markAt(MarkName::Tail, frame);
  OutlineSample outline{.seen = true, .whole = true};
  outline.centre = midpoint(nose, tail);
  const PixelPoint half = (nose - tail) * 0.56;
  const PixelPoint aside = PixelPoint{-half.y_px, half.x_px} * 0.2;
  outline.angle_rad = std::atan2(half.y_px, half.x_px);
  outline.contours = {
      {outline.centre + half, outline.centre + aside, outline.centre - half, outline.centre - aside}};
  const auto body = laidOut(*picture, outline);
  ASSERT_TRUE(body);
  const LaidOutBody round = body->turnedRound();
  EXPECT_LT(alikeness(*body, round), 0.9) << "its ends differ";
  EXPECT_GT(alikeness(*body, round.turnedRound()), 0.999);
  // A place stays where it is in the picture.
  const PixelPoint before = body->inPicture(150.0, 40.0);
  const PixelPoint after = round.inPicture(LaidOutBody::kColumns - 1 - 150.0, LaidOutBody::kRows - 1 - 40.0);
  EXPECT_NEAR(length(before - after).value(), 0.0, 1e-6);
}

}  // namespace
}  // namespace fin
