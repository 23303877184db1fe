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
  EXPECT_NEAR(finding(plan, "depth").value,
              std::log(std::cosh(std::atanh(0.95))) * 250.0 * 0.2 + 90.0 + 300.0, 1e-4);
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

/// One thing changed about a plan that is good, and what is said of it then.
struct PlanChange {
  const char* name;
  void (*change)(FilmingPlan&);
  const char* key;
  double value;  ///< worked out by hand
  Fitness fitness;
};

/// Good in every respect: a view of 1.28 m at one pixel a millimetre.
FilmingPlan goodPlan() {
  FilmingPlan plan;
  plan.air_mm = 640.0;
  plan.water_mm = 1e-9;
  plan.fieldOfView_deg = 90.0;
  plan.exposure_s = 1.0 / 1000.0;
  plan.mains_Hz = 0.0;
  plan.waterDepth_mm = 1000.0;
  return plan;
}

class FilmingFindings : public testing::TestWithParam<PlanChange> {};

TEST_P(FilmingFindings, AreWorkedOutAndSayWhatToChange) {
  FilmingPlan plan = goodPlan();
  const auto before = checkFilming(plan, kFresh);
  ASSERT_TRUE(before);
  for (const FilmingFinding& f : *before) EXPECT_EQ(f.fitness, Fitness::Good) << f.key;
  GetParam().change(plan);
  const FilmingFinding f = finding(plan, GetParam().key);
  EXPECT_NEAR(f.value, GetParam().value, 1e-6 * std::max(1.0, GetParam().value));
  EXPECT_EQ(f.fitness, GetParam().fitness) << f.verdict;
  EXPECT_EQ(f.change.empty(), f.fitness == Fitness::Good);
  EXPECT_FALSE(f.verdict.empty());
}

INSTANTIATE_TEST_SUITE_P(
    Planning, FilmingFindings,
    testing::Values(
        PlanChange{"Size", [](FilmingPlan& p) { p.bodyLength_mm = 45.0; }, "size", 1.0, Fitness::Tight},
        PlanChange{"TooSmall", [](FilmingPlan& p) { p.bodyLength_mm = 20.0; }, "size", 1.0, Fitness::Bad},
        PlanChange{"Samples", [](FilmingPlan& p) { p.wobble_Hz = 15.0; }, "samples", 8.0, Fitness::Tight},
        PlanChange{"Aliased", [](FilmingPlan& p) { p.wobble_Hz = 60.0; }, "samples", 2.0, Fitness::Bad},
        PlanChange{"Blur", [](FilmingPlan& p) { p.exposure_s = 1.0 / 150.0; }, "blur", 2.0, Fitness::Tight},
        PlanChange{"BlurOfAFall", [](FilmingPlan& p) { p.fallRate_mm_s = 3000.0; }, "blur", 3.0,
                   Fitness::Bad},
        PlanChange{"Cycles", [](FilmingPlan& p) { p.pullSpeed_mm_s = 1920.0; }, "cycles", 4.0,
                   Fitness::Tight},
        PlanChange{"Plane", [](FilmingPlan& p) { p.rulerOff_mm = -12.8; }, "plane", 2.0, Fitness::Tight},
        PlanChange{"Depth", [](FilmingPlan& p) { p.steadyPart_mm = 851.80245; }, "depth", 1000.0,
                   Fitness::Good},
        PlanChange{"Shallow", [](FilmingPlan& p) { p.waterDepth_mm = 420.0; }, "depth", 448.19755,
                   Fitness::Tight}),
    [](const auto& param) { return std::string(param.param.name); });

}  // namespace
}  // namespace fin
