// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/outline/outline.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <opencv2/core.hpp>

#include "core/footage/cached_frame_source.h"
#include "core/tracking/background/background.h"
#include "support/small_scene.h"

namespace fin {
namespace {

/// Roughly around the lure, or beside it.
OutlineSeed around(const RehearsalTank& tank, std::size_t frame, PixelPoint shift = {}) {
  OutlineSeed out = outlineFor(tank, frame);
  for (PixelPoint& p : out.polygon) p = p + shift;
  return out;
}

/// The window in which the whole lure is in the picture.
Track windowOf(const RehearsalTank& tank) {
  const PassRequest request = requestFor(tank, {});
  return {request.firstFrame, *request.lastFrame - request.firstFrame + 1, {}};
}

/// Median and worst relative error of the areas of whole silhouettes.
struct AreaErrors {
  double median = 0.0;
  double worst = 0.0;
  double seenShare = 0.0;
};
AreaErrors areaErrorsOf(const RehearsalTank& tank, const Track& track) {
  std::vector<double> errors;
  for (std::size_t i = 0; i < track.outline.size(); ++i) {
    const OutlineSample& s = track.outline[i];
    if (!s.seen || !s.whole) continue;
    errors.push_back(std::abs(s.area_px2 / tank.lureArea_px2(track.firstFrame + i) - 1.0));
  }
  if (errors.empty()) return {1.0, 1.0, 0.0};
  std::sort(errors.begin(), errors.end());
  return {errors[errors.size() / 2], errors.back(),
          static_cast<double>(errors.size()) / static_cast<double>(track.frameCount)};
}

TEST(Outline, HasTheLuresAreaInEveryFrame) {
  for (const double dancing : {0.0, 0.15}) {
    RehearsalScene scene = test::smallPull();
    scene.dancingLight = dancing;
    RehearsalTank tank(scene);
    Track track = windowOf(tank);
    ASSERT_TRUE(followOutline(tank, around(tank, track.firstFrame), {}, track));
    const AreaErrors errors = areaErrorsOf(tank, track);
    // A lure 14 pixels thick: 7 % of its area are less than half a pixel of its rim.
    EXPECT_LT(errors.median, dancing > 0.0 ? 0.13 : 0.07) << dancing;
    EXPECT_LT(errors.worst, 0.3) << dancing;
    EXPECT_GT(errors.seenShare, 0.95) << dancing;
  }
}

/// Another source's frames as a camera shows them whose white balance drifts from blue to yellow.
class Drifting : public FrameSource {
 public:
  explicit Drifting(FrameSource& source) : source_(source) {}
  [[nodiscard]] std::size_t frameCount() const override { return source_.frameCount(); }
  [[nodiscard]] Seconds timeOf(std::size_t frame) const override { return source_.timeOf(frame); }
  [[nodiscard]] Result<Picture> frame(std::size_t frame) override {
    const auto picture = source_.frame(frame);
    if (!picture) return picture;
    const double share = static_cast<double>(frame) / static_cast<double>(frameCount() - 1) - 0.5;
    cv::Mat out;
    cv::multiply(picture->rgb(), cv::Scalar(1.0 + 0.2 * share, 1.0, 1.0 - 0.2 * share), out);
    return Picture::fromMat(out);
  }

 private:
  FrameSource& source_;
};

TEST(Outline, StaysOnTheLureWhileTheWhiteBalanceDrifts) {
  RehearsalTank tank(test::smallPull());
  Drifting drifting(tank);
  Track track = windowOf(tank);
  ASSERT_TRUE(followOutline(drifting, around(tank, track.firstFrame), {}, track));
  const AreaErrors errors = areaErrorsOf(tank, track);
  // As in light that dances, and a little for the colours' rounding.
  EXPECT_LT(errors.median, 0.13);
  EXPECT_LT(errors.worst, 0.35);
  EXPECT_GT(errors.seenShare, 0.9);
}

TEST(Outline, LiesWhereTheLureIsAndPointsAlongIt) {
  RehearsalTank tank(test::smallPull());
  Track track = windowOf(tank);
  const std::size_t seed = track.firstFrame + track.frameCount / 2;  // both ways from the middle
  ASSERT_TRUE(followOutline(tank, around(tank, seed), {}, track));
  for (std::size_t i = 0; i < track.frameCount; i += 11) {
    const OutlineSample& s = track.outline[i];
    ASSERT_TRUE(s.seen) << i;
    const PixelPoint nose = tank.markAt(MarkName::Nose, track.firstFrame + i);
    const PixelPoint tail = tank.markAt(MarkName::Tail, track.firstFrame + i);
    EXPECT_LT(length(s.centre - midpoint(nose, tail)).value(), 3.0) << i;
    const double axis = std::atan2(nose.y_px - tail.y_px, nose.x_px - tail.x_px);
    EXPECT_LT(std::abs(std::remainder(s.angle_rad - axis, 3.14159265)), 0.06) << i;
    EXPECT_GT(s.length_px, 2.0 * s.width_px) << i;
  }
}

TEST(Outline, IsTheSameInOneGoAndInLegsSideBySide) {
  RehearsalTank tank(test::smallPull());
  Track inOneGo = windowOf(tank);
  const OutlineSeed seed = around(tank, inOneGo.firstFrame + 20);
  ASSERT_TRUE(followOutline(tank, seed, {}, inOneGo));
  Track inLegs = windowOf(tank);
  CachedFrameSource kept(tank, std::size_t{1} << 30U);
  ASSERT_TRUE(followOutline(kept, seed, {}, inLegs));
  ASSERT_TRUE(kept.holds(inLegs.firstFrame, inLegs.firstFrame + inLegs.frameCount - 1));
  // A segment starts from what a scout saw, so that its first frames may differ by a little.
  std::size_t different = 0;
  for (std::size_t i = 0; i < inLegs.frameCount; ++i) {
    ASSERT_EQ(inLegs.outline[i].seen, inOneGo.outline[i].seen) << i;
    if (inLegs.outline[i].contours != inOneGo.outline[i].contours) ++different;
    EXPECT_LT(length(inLegs.outline[i].centre - inOneGo.outline[i].centre).value(), 1.5) << i;
  }
  EXPECT_LE(different, 5U);
}

TEST(Outline, StaysOnALureThatComesToRest) {
  RehearsalScene scene = test::smallFall();
  scene.length = Seconds(4.0);  // it lies on the bottom for more than half of them
  std::get<Sink>(scene.motion).bottom_mm = -90.0;
  RehearsalTank tank(scene);
  Track track{0, tank.frameCount(), {}};
  ASSERT_TRUE(followOutline(tank, around(tank, 0), {}, track));
  const AreaErrors errors = areaErrorsOf(tank, track);
  EXPECT_GT(errors.seenShare, 0.95);
  EXPECT_LT(errors.median, 0.08);
  EXPECT_LT(errors.worst, 0.25);
}

TEST(Outline, KnowsALureThatThePicturesEdgeCuts) {
  RehearsalScene scene = test::smallPull();
  scene.length = Seconds(3.0);
  RehearsalTank tank(scene);
  Track track = windowOf(tank);
  track.frameCount = tank.frameCount() - track.firstFrame;
  ASSERT_TRUE(followOutline(tank, around(tank, track.firstFrame), {}, track));
  const auto cut = std::count_if(track.outline.begin(), track.outline.end(),
                                 [](const OutlineSample& s) { return s.seen && !s.whole; });
  EXPECT_GT(cut, 5);
  EXPECT_FALSE(track.outline.back().seen) << "it has left the picture";
}

TEST(Outline, LeavesOutWhatIsHidden) {
  RehearsalTank tank(test::smallPull());
  Track track = windowOf(tank);
  // The left half of the picture, in all frames.
  const std::vector<HiddenRegion> hidden{
      {0, tank.frameCount(), {{0.0, 0.0}, {240.0, 0.0}, {240.0, 270.0}, {0.0, 270.0}}}};
  const std::size_t seed = track.firstFrame + track.frameCount * 3 / 4;
  ASSERT_TRUE(followOutline(tank, around(tank, seed), hidden, track));
  std::size_t seen = 0;
  for (const OutlineSample& s : track.outline) {
    seen += s.seen ? 1U : 0U;
    for (const auto& rim : s.contours) {
      for (const PixelPoint p : rim) ASSERT_GT(p.x_px, 239.0);
    }
  }
  EXPECT_GT(seen, track.frameCount / 3) << "where it is not hidden it is followed";
}

TEST(Outline, RefusesWhatCannotBeToldFromTheWall) {
  RehearsalTank tank(test::smallPull());
  Track track = windowOf(tank);
  track.frameCount -= 10;
  const auto onWall = followOutline(tank, around(tank, track.firstFrame, {40.0, 90.0}), {}, track);
  ASSERT_FALSE(onWall);
  EXPECT_EQ(onWall.error().code, ErrorCode::Lost);
  EXPECT_TRUE(track.outline.empty()) << "nothing half done is kept";
  EXPECT_FALSE(followOutline(tank, around(tank, track.firstFrame, {4000.0, 0.0}), {}, track));
  EXPECT_FALSE(followOutline(tank, around(tank, tank.frameCount() - 1), {}, track)) << "outside the window";
}

TEST(Outline, StopsWhenAskedAndKeepsNothing) {
  RehearsalTank tank(test::smallPull());
  Track track = windowOf(tank);
  std::stop_source stop;
  const JobControl job{stop.get_token(), [&](double share) {
                         if (share > 0.6) stop.request_stop();
                       }};
  const auto done = followOutline(tank, around(tank, track.firstFrame), {}, track, job);
  ASSERT_FALSE(done);
  EXPECT_EQ(done.error().code, ErrorCode::Cancelled);
  EXPECT_TRUE(track.outline.empty());
}

}  // namespace
}  // namespace fin
