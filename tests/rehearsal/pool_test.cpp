// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <vector>

#include "core/rehearsal/pool.h"
#include "core/rehearsal/rehearse.h"
#include "core/signals/series.h"
#include "core/tracking/background/sway.h"
#include "core/tracking/body/watch_body.h"
#include "core/tracking/marks/follow.h"
#include "core/tracking/row_times.h"
#include "support/small_scene.h"

namespace fin {
namespace {

/// A pool, the ends of the lure in it followed as a pass follows them.
struct FollowedInPool {
  RehearsalPool pool;
  Track track;
  std::vector<MarkSample> sway;

  FollowedInPool(const RehearsalScene& scene, const PoolDefects& defects) : pool(scene, defects) {
    const PassRequest request = requestFor(pool.tank(), {});
    std::vector<MarkSeed> seeds = request.marks;
    for (MarkSeed& seed : seeds) seed.at = pool.markAt(seed.name, seed.frame);
    FilmingFrameSource filming(pool, length(seeds[0].at - seeds[1].at).value(), 400'000'000);
    auto followed = followMarks(filming, {seeds, request.firstFrame, *request.lastFrame, {}});
    if (!followed) {
      ADD_FAILURE() << followed.error().message;
      return;
    }
    track = std::move(*followed);
    EXPECT_TRUE(watchBody(filming, {seeds, {}, false, turnsOf(request)}, track));
    sway = findSway(filming, track).value();
  }

  /// Distances from the truth of what counts as surely seen, and the share of the frames within 3 px.
  struct Told {
    double within = 0.0;
    double falselySure = 0.0;
  };
  [[nodiscard]] Told told() const {
    Told out;
    double frames = 0.0;
    for (const MarkTrack& mark : track.marks) {
      for (std::size_t i = 0; i < track.frameCount; ++i) {
        const MarkSample& s = mark.samples[i];
        const double off = s.seen ? length(s.at - pool.markAt(mark.name, track.firstFrame + i)).value() : 1e9;
        frames += 1.0;
        out.within += off <= 3.0 ? 1.0 : 0.0;
        out.falselySure += s.seen && off > 3.0 && s.quality >= kDoubtfulBelow ? 1.0 : 0.0;
      }
    }
    return {out.within / frames, out.falselySure / frames};
  }
};

struct Defect {
  const char* name;
  PoolDefects defects;
  double within = 0.95;  ///< of the frames within 3 px at least
};

void PrintTo(const Defect& d, std::ostream* out) {
  *out << d.name;
}

class InAPool : public testing::TestWithParam<Defect> {};

TEST_P(InAPool, TheEndsAreHeldAndNothingFalseIsSure) {
  const FollowedInPool::Told told = FollowedInPool(test::smallPull(), GetParam().defects).told();
  EXPECT_GE(told.within, GetParam().within);
  EXPECT_LE(told.falselySure, 0.005);
}

INSTANTIATE_TEST_SUITE_P(
    Defects, InAPool,
    testing::Values(Defect{"caustics", {.caustics = 0.35}}, Defect{"haze", {.haze = 0.5}},
                    Defect{"flicker", {.flicker = 0.12, .flicker_Hz = 37.0}},
                    Defect{"exposure", {.exposureStep = 0.3}},
                    Defect{"white balance", {.whiteBalanceDrift = 0.2}}, Defect{"sway", {.sway_px = 3.0}},
                    Defect{"leader", {.leader = true}},  // A leaf hides it for some frames.
                    Defect{"leaf", {.leaf = true}, 0.85}, Defect{"mirror", {.mirrorAbove_px = 80.0}},
                    Defect{"second lure", {.secondLure = true}},
                    Defect{"all of it",
                           {.caustics = 0.2,
                            .haze = 0.3,
                            .flicker = 0.05,
                            .flicker_Hz = 37.0,
                            .exposureStep = 0.15,
                            .whiteBalanceDrift = 0.1,
                            .sway_px = 2.0,
                            .leader = true},
                           0.9}),
    [](const auto& scene) {
      std::string name = scene.param.name;
      std::erase(name, ' ');
      return name;
    });

TEST(Sway, IsToldFromLightThatDancesAndIsTakenOut) {
  const FollowedInPool swayed(test::smallPull(), {.caustics = 0.1, .sway_px = 2.5});
  ASSERT_EQ(swayed.sway.size(), swayed.track.frameCount);
  // A place is a place against another one: what all frames are off by alike does not matter.
  std::vector<double> x, y;
  for (std::size_t i = 0; i < swayed.sway.size(); ++i) {
    const PixelPoint off = swayed.sway[i].at - swayed.pool.swayAt(swayed.track.firstFrame + i);
    x.push_back(off.x_px);
    y.push_back(off.y_px);
  }
  constexpr double kLeft_px = 0.75;  // of 1.4 that it swayed: few details in so small a picture
  EXPECT_LT(robustSpread(x), kLeft_px);
  EXPECT_LT(robustSpread(y), kLeft_px);
  EXPECT_NEAR(swayOf_px(swayed.sway), 2.5, 0.8);

  const FollowedInPool still(test::smallPull(), {.caustics = 0.35});
  EXPECT_TRUE(still.sway.empty()) << "dancing light alone is no sway";
}

TEST(Sway, OfACameraThatIsCarriedAlongIsKnownOnlyAbout) {
  RehearsalScene scene = test::smallPull();
  scene.ruler_mm = 0.0;  // so small, its lines come to lie on each other
  const FollowedInPool carried(scene, {.carried_px = 60.0});
  ASSERT_TRUE(wasCarried(carried.sway));
  EXPECT_NEAR(carried.sway.back().at.x_px, -60.0, 6.0);
  EXPECT_NEAR(carried.sway.back().at.y_px, 0.0, 3.0);
  EXPECT_FALSE(wasCarried(FollowedInPool(scene, {.caustics = 0.35}).sway)) << "dancing light";
  EXPECT_FALSE(wasCarried({{true, {}, 1.0}, {true, {3.0, 0.0}, 1.0}})) << "a hand that shakes";
}

TEST(Sway, LeavesPlacesAgainstTheTank) {
  Track track{0, 2, {{MarkName::Nose, {{true, {10.0, 20.0}, 1.0}, {true, {14.0, 19.0}, 1.0}}}}};
  track.outline = {{.seen = true, .centre = {5.0, 5.0}}, {.seen = true, .centre = {8.0, 4.0}}};
  track.background = {{true, {0.0, 0.0}, 1.0}, {true, {3.0, -1.0}, 1.0}};
  const Track still = steadied(track);
  EXPECT_EQ(still.marks[0].samples[1].at, (PixelPoint{11.0, 20.0}));
  EXPECT_EQ(still.outline[1].centre, (PixelPoint{5.0, 5.0}));
  EXPECT_TRUE(still.background.empty());
}

TEST(RowTimes, BringMarksToTheTimesOfTheirFrames) {
  const Seconds readout(0.012);
  const FollowedInPool rolled(test::smallFall(), {.rollingShutter = readout});
  std::vector<double> times;
  for (std::size_t i = 0; i < rolled.track.frameCount; ++i)
    times.push_back(rolled.pool.timeOf(rolled.track.firstFrame + i).value());
  const RehearsalCamera::Setup& camera = rolled.pool.tank().scene().camera;
  const Track brought = atFrameTimes(rolled.track, times, {readout, camera.width_px, camera.height_px, 0});
  // A fall of 150 mm/s at 0.8 px/mm, three fifths of the way down the picture: 0.85 px.
  const auto below = [&](const Track& track) {
    std::vector<double> off;
    for (std::size_t i = 0; i < track.frameCount; ++i) {
      const MarkSample& s = track.find(MarkName::Nose)->samples[i];
      const PixelPoint truth = rolled.pool.markAt(MarkName::Nose, track.firstFrame + i);
      if (s.seen && truth.y_px > 100.0 && truth.y_px < 220.0) off.push_back(s.at.y_px - truth.y_px);
    }
    return median(off);
  };
  EXPECT_NEAR(below(rolled.track), 0.86, 0.25);
  EXPECT_NEAR(below(brought), 0.0, 0.15);
}

TEST(RowTimes, RunTheWayTheCameraWasHeld) {
  const PixelPoint topLeft{0.0, 0.0};
  const auto late = [&](int turned) {
    return RowTimes{Seconds(0.01), 640, 480, turned}.lateAt(topLeft).value();
  };
  EXPECT_DOUBLE_EQ(late(0), 0.0) << "upright, the upper row is read first";
  EXPECT_DOUBLE_EQ(late(90), 0.01) << "turned a quarter to the right, its first row lies at the right";
  EXPECT_DOUBLE_EQ(late(180), 0.01);
  EXPECT_DOUBLE_EQ(late(270), 0.0);
}

}  // namespace
}  // namespace fin
