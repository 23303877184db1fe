// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/filming_check.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

namespace fin {
namespace {

const GramsPerKilogram kFresh(0.0);

FilmingFinding finding(const FilmingPlan& plan, const std::string& key) {
  const auto all = checkFilming(plan, kFresh);
  EXPECT_TRUE(all) << (all ? "" : all.error().message);
  const auto found =
      std::find_if(all->begin(), all->end(), [&](const FilmingFinding& f) { return f.key == key; });
  EXPECT_NE(found, all->end()) << key;
  return *found;
}

TEST(FilmingCheck, WorksOutPixelsPerMillimetre) {
  FilmingPlan plan;
  plan.air_mm = 1000.0;
  plan.water_mm = 1e-9;
  plan.fieldOfView_deg = 90.0;  // the view is as wide as twice the distance
  EXPECT_NEAR(finding(plan, "size").value, 1280.0 / 2000.0, 1e-6);
}

TEST(FilmingCheck, WantsTenFramesAWobble) {
  FilmingPlan plan;
  plan.wobble_Hz = 6.0;
  plan.captureRate_Hz = 60.0;
  EXPECT_EQ(finding(plan, "samples").fitness, Fitness::Good);
  plan.captureRate_Hz = 30.0;
  EXPECT_EQ(finding(plan, "samples").fitness, Fitness::Tight);
  plan.captureRate_Hz = 25.0;
  EXPECT_EQ(finding(plan, "samples").fitness, Fitness::Bad);
  EXPECT_NE(finding(plan, "samples").change.find("60"), std::string::npos);
}

TEST(FilmingCheck, WarnsOfBlurDepthPlaneAndFlicker) {
  FilmingPlan plan;
  plan.exposure_s = 1.0 / 120.0;  // 300 mm/s · 1/120 s = 2.5 mm of a 4 mm mark
  EXPECT_NE(finding(plan, "blur").fitness, Fitness::Good);
  EXPECT_NEAR(finding(plan, "depth").value, 1.164 * 250.0 * 0.2 + 90.0 + 300.0, 1e-9);
  plan.waterDepth_mm = 300.0;
  EXPECT_EQ(finding(plan, "depth").fitness, Fitness::Bad);
  plan.rulerOff_mm = 60.0;
  EXPECT_EQ(finding(plan, "plane").fitness, Fitness::Bad);
  EXPECT_EQ(finding(plan, "flicker").fitness, Fitness::Tight);
  plan.captureRate_Hz = 60.0;
  plan.exposure_s = 0.01;
  EXPECT_EQ(finding(plan, "flicker").fitness, Fitness::Good);
}

TEST(FilmingCheck, NamesWhatCannotBeMeant) {
  FilmingPlan plan;
  plan.waterDepth_mm = -900.0;
  EXPECT_EQ(checkFilming(plan, kFresh).error().where, "waterDepth_mm");
  plan = {};
  plan.exposure_s = 0.5;
  EXPECT_EQ(checkFilming(plan, kFresh).error().where, "exposure_s");
}

}  // namespace
}  // namespace fin
