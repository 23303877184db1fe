// SPDX-License-Identifier: GPL-3.0-or-later
// The lure is found where nobody pressed anything.
#include "core/tracking/finding/find_lure.h"

#include <gtest/gtest.h>

#include <opencv2/imgproc.hpp>

#include "core/measuring/finding.h"
#include "core/rehearsal/pool.h"
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

/// A camera that swims along: a part of the tank's picture that keeps the lure in its middle.
class Chasing : public FrameSource {
 public:
  explicit Chasing(RehearsalTank& tank) : tank_(tank) {}
  [[nodiscard]] std::size_t frameCount() const override { return tank_.frameCount(); }
  [[nodiscard]] Seconds timeOf(std::size_t frame) const override { return tank_.timeOf(frame); }
  [[nodiscard]] Result<Picture> frame(std::size_t frame) override {
    const auto whole = tank_.frame(frame);
    if (!whole) return whole;
    return Picture::fromMat(whole->rgb()(cv::Rect(left(frame), 0, kWide_px, whole->height())).clone());
  }
  [[nodiscard]] PixelPoint markAt(MarkName name, std::size_t frame) const {
    return tank_.markAt(name, frame) - PixelPoint{1.0 * left(frame), 0.0};
  }

 private:
  static constexpr int kWide_px = 200;
  [[nodiscard]] int left(std::size_t frame) const {
    const double x = midpoint(tank_.markAt(MarkName::Nose, frame), tank_.markAt(MarkName::Tail, frame)).x_px;
    return std::clamp(static_cast<int>(x) - kWide_px / 2, 0, 480 - kWide_px);
  }
  RehearsalTank& tank_;
};

TEST(FindLure, FindsItUnderACameraThatMovesAlong) {
  RehearsalTank tank(test::smallPull());
  Chasing chase(tank);
  const FrameStretch all{0, tank.frameCount() - 1};
  const auto lure = findLure(chase, {.window = all, .cameraMoves = true, .pull = {}, .looksLike = {}});
  ASSERT_TRUE(lure) << lure.error().message;
  const double body = length(tank.markAt(MarkName::Nose, 60) - tank.markAt(MarkName::Tail, 60)).value();
  for (const FoundMark& mark : lure->marks) {
    if (mark.seed.name == MarkName::Tip) continue;
    EXPECT_LT(length(mark.seed.at - chase.markAt(mark.seed.name, mark.seed.frame)).value(), 0.08 * body);
  }
}

TEST(FindLure, MarksTheDetailsThatAKnownLookHas) {
  RehearsalTank known(test::smallPull(1));
  // Not where marks are usual: on its belly, two fifths and four fifths of the way from the tail.
  const auto placed = [](const RehearsalTank& tank, double share, std::size_t frame) {
    const PixelPoint nose = tank.markAt(MarkName::Nose, frame), tail = tank.markAt(MarkName::Tail, frame);
    return tail + (nose - tail) * share;
  };
  const std::size_t at = 70;
  const auto look =
      lookOf(known, {.window = {0, known.frameCount() - 1}, .pull = {}, .looksLike = {}},
             {{MarkName::Nose, at, placed(known, 0.8, at)}, {MarkName::Tail, at, placed(known, 0.4, at)}});
  ASSERT_TRUE(look) << look.error().message;
  RehearsalScene scene = test::smallPull(2);
  std::get<StraightPull>(scene.motion).speed_mm_s *= 0.8;
  RehearsalTank other(scene);
  const auto lure = findLure(other, {.window = {0, other.frameCount() - 1}, .pull = {}, .looksLike = *look});
  ASSERT_TRUE(lure) << lure.error().message;
  ASSERT_EQ(lure->marks.size(), 2U);
  const double body = length(other.markAt(MarkName::Nose, 60) - other.markAt(MarkName::Tail, 60)).value();
  for (const FoundMark& mark : lure->marks) {
    const double share = mark.seed.name == MarkName::Nose ? 0.8 : 0.4;
    EXPECT_LT(length(mark.seed.at - placed(other, share, mark.seed.frame)).value(), 0.05 * body)
        << toString(mark.seed.name);
  }
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

struct Outcome {
  bool right = true;
  double sure = 1.0;
};
/// Of nose and tail of what was found; none where nothing was.
template <class Film>
std::optional<Outcome> outcomeIn(Film& film) {
  const auto lure = findLure(film, {.window = {0, film.frameCount() - 1}, .pull = {}, .looksLike = {}});
  if (!lure) return std::nullopt;
  Outcome out;
  for (const auto& [seed, sure] : lure->marks) {
    if (seed.name == MarkName::Tip) continue;
    const PixelPoint nose = film.markAt(MarkName::Nose, seed.frame),
                     tail = film.markAt(MarkName::Tail, seed.frame);
    const double off = length(seed.at - (seed.name == MarkName::Nose ? nose : tail)).value();
    out.right = out.right && off < 0.08 * length(nose - tail).value();
    out.sure = std::min(out.sure, sure);
  }
  return out;
}

/// A hand on its arm that is in the picture all the time and never still.
class Handed : public FrameSource {
 public:
  explicit Handed(RehearsalTank& tank) : tank_(tank) {}
  [[nodiscard]] std::size_t frameCount() const override { return tank_.frameCount(); }
  [[nodiscard]] Seconds timeOf(std::size_t frame) const override { return tank_.timeOf(frame); }
  [[nodiscard]] Result<Picture> frame(std::size_t frame) override {
    const auto whole = tank_.frame(frame);
    if (!whole) return whole;
    cv::Mat picture = whole->rgb().clone();
    const double t = timeOf(frame).value();
    const cv::Point hand(static_cast<int>(300.0 + 40.0 * std::sin(5.0 * t) + 60.0 * t),
                         static_cast<int>(35.0 + 12.0 * std::sin(7.0 * t)));
    const cv::Scalar skin(214, 164, 138);
    cv::line(picture, {hand.x + 60, -20}, hand, skin, 34, cv::LINE_AA);
    cv::ellipse(picture, hand, {26, 18}, 30.0 * std::sin(6.0 * t), 0.0, 360.0, skin, cv::FILLED, cv::LINE_AA);
    return Picture::fromMat(picture);
  }
  [[nodiscard]] PixelPoint markAt(MarkName name, std::size_t frame) const {
    return tank_.markAt(name, frame);
  }

 private:
  RehearsalTank& tank_;
};

TEST(FindLure, IsNotSureWhereThereAreTwo) {
  RehearsalPool two(test::smallPull(), {.secondLure = true});
  const auto outcome = outcomeIn(two);
  ASSERT_TRUE(outcome);
  EXPECT_LT(outcome->sure, kSureEnough);
}

TEST(FindLure, TakesNoHandForALure) {
  RehearsalTank tank(test::smallPull());
  Handed both(tank);
  const auto outcome = outcomeIn(both);
  ASSERT_TRUE(outcome);
  EXPECT_TRUE(outcome->right);
  RehearsalScene scene = test::smallPull();
  std::get<StraightPull>(scene.motion).start_mm = -5000.0;
  RehearsalTank empty(scene);
  Handed alone(empty);
  EXPECT_FALSE(outcomeIn(alone));
}

TEST(FindLure, FindsOneThatRestsInMostOfTheClip) {
  RehearsalScene scene = test::smallJerks();
  std::get<Jerks>(scene.motion).first_s = 10.0;
  scene.length = Seconds(12.5);
  RehearsalTank tank(scene);
  const auto outcome = outcomeIn(tank);
  ASSERT_TRUE(outcome);
  EXPECT_TRUE(outcome->right);
}

TEST(FindLure, FindsOneThatComesInAfterTenSeconds) {
  RehearsalScene scene = test::smallPull();
  auto& pull = std::get<StraightPull>(scene.motion);
  pull.start_mm -= 10.5 * pull.speed_mm_s;
  scene.length = Seconds(12.0);
  RehearsalTank tank(scene);
  const auto outcome = outcomeIn(tank);
  ASSERT_TRUE(outcome);
  EXPECT_TRUE(outcome->right);
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
  const auto axis = longAxisOf(outline);
  ASSERT_TRUE(axis);
  const LaidOutBody body = laidOut(*picture, outline, *axis);
  const LaidOutBody round = body.turnedRound();
  EXPECT_LT(alikeness(body, round), 0.9) << "its ends differ";
  EXPECT_GT(alikeness(body, round.turnedRound()), 0.999);
  // A place stays where it is in the picture.
  const PixelPoint before = body.inPicture(150.0, 40.0);
  const auto [column, row] = body.onBody(before);
  EXPECT_NEAR(column, 150.0, 1e-6);
  EXPECT_NEAR(row, 40.0, 1e-6);
  const PixelPoint after = round.inPicture(LaidOutBody::kColumns - 1 - 150.0, LaidOutBody::kRows - 1 - 40.0);
  EXPECT_NEAR(length(before - after).value(), 0.0, 1e-6);
}

}  // namespace
}  // namespace fin
