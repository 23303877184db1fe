// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/water/weight_change.h"

#include <gtest/gtest.h>

#include <cmath>

namespace fin {
namespace {

constexpr WaterState kFresh{GramsPerKilogram(0.0), Celsius(11.0)};

WeightQuestion sevenGrams() {
  WeightQuestion q;
  q.fallRate = {.value = 210.0, .u95 = 4.0, .n = 60.0};
  q.measured.head = Grams(7.0);
  q.measured.hook = Grams(0.9);
  q.measured.bodyInWater = Grams(-0.6);
  q.measuredWater = q.changedWater = kFresh;
  q.changed = q.measured;
  return q;
}

TEST(WeightChange, TakesTheDisplacedWaterOffAWeight) {
  // Lead displaces 1/11.3 of its mass.
  EXPECT_NEAR(
      weightInWater(Grams(11.3), KilogramsPerCubicMetre(11300.0), KilogramsPerCubicMetre(1000.0)).value(),
      10.3, 1e-12);
}

TEST(WeightChange, GoesWithTheRootOfTheWeightInWater) {
  WeightQuestion q = sevenGrams();
  EXPECT_NEAR(changeWeight(q)->rate.value, 210.0, 1e-9) << "nothing was changed";
  // By hand: water of 999.7 kg/m³, lead keeps 0.91153, steel 0.87265 of its weight.
  q.changed.head = Grams(4.0);
  const double before = 7.0 * 0.91153 + 0.9 * 0.87265 - 0.6;
  const double after = 4.0 * 0.91153 + 0.9 * 0.87265 - 0.6;
  const auto answer = changeWeight(q);
  ASSERT_TRUE(answer);
  EXPECT_NEAR(answer->rate.value, 210.0 * std::sqrt(after / before), 0.02);
  EXPECT_EQ(answer->state, BuoyancyState::Sinks);
  // Cd·A = 2 W′ / (ρ v²) = 2 · 0.0065661 kg · 9.80665 / (999.7 · 0.21²) m² = 2921 mm².
  EXPECT_NEAR(answer->dragArea_mm2, 2921.0, 3.0);
  // 0.1 g of 6.57 and of 3.83 are 0.76 and 1.31 % of the rate; 4 mm/s of 210 come down by the root.
  const double rate = answer->rate.value;
  EXPECT_NEAR(answer->rate.u95, std::hypot(4.0 * rate / 210.0, 0.0076 * rate, 0.0131 * rate), 0.06);
}

TEST(WeightChange, FallsSlowerInSaltWater) {
  WeightQuestion q = sevenGrams();
  q.changedWater.salinity = GramsPerKilogram(35.0);
  const double rate = changeWeight(q)->rate.value;
  EXPECT_LT(rate, 208.5);
  EXPECT_GT(rate, 203.0);
}

TEST(WeightChange, SaysWhetherABaitRisesHoldsOrSinks) {
  WeightQuestion q = sevenGrams();
  q.measured.head = q.changed.head = Grams(0.0);
  q.measured.hook = Grams(1.4);
  q.measured.bodyInWater = Grams(-0.70);
  q.fallRate = {.value = 90.0, .u95 = 3.0};
  const auto hangingWith = [&](double hook) {
    q.changed = q.measured;
    q.changed.hook = Grams(hook);
    return *changeWeight(q);
  };
  EXPECT_EQ(hangingWith(1.4).state, BuoyancyState::Sinks);
  EXPECT_EQ(hangingWith(0.803).state, BuoyancyState::Holds);
  EXPECT_EQ(hangingWith(0.5).state, BuoyancyState::Rises);
  EXPECT_LT(hangingWith(0.5).rate.value, 0.0);
  EXPECT_GT(hangingWith(0.803).rate.u95, 20.0) << "a tenth of a gram decides";
}

TEST(WeightChange, FindsTheHeadForAWantedRate) {
  WeightQuestion q = sevenGrams();
  q.changedWater.salinity = GramsPerKilogram(6.0);
  const auto head = headForRate(q, MillimetresPerSecond(150.0));
  ASSERT_TRUE(head);
  q.changed.head = *head;
  EXPECT_NEAR(changeWeight(q)->rate.value, 150.0, 1e-9);
  q.measured.bodyInWater = Grams(20.0);
  q.changed = q.measured;
  EXPECT_EQ(headForRate(q, MillimetresPerSecond(20.0)).error().code, ErrorCode::Unsupported);
}

TEST(WeightChange, RefusesWeightsThatMakeNoSense) {
  WeightQuestion q = sevenGrams();
  q.measured.bodyInWater = Grams(-9.0);
  EXPECT_NE(changeWeight(q).error().message.find("would not have sunk"), std::string::npos);
  q = sevenGrams();
  q.changed.hook = Grams(-1.0);
  EXPECT_EQ(changeWeight(q).error().code, ErrorCode::BadRequest);
  q = sevenGrams();
  q.fallRate.value = 0.0;
  EXPECT_EQ(changeWeight(q).error().code, ErrorCode::BadRequest);
}

TEST(WeightChange, CountsDownToADepth) {
  // The rate comes up as tanh: after 1.832 τ it is at 95 %, 1.164 v τ down (physics of the fall).
  const double tau = 0.16;
  EXPECT_NEAR(countdown(Millimetres(1.164 * 210.0 * tau), MillimetresPerSecond(210.0), Seconds(tau)).value(),
              1.832 * tau, 1e-3);
  EXPECT_NEAR(countdown(Millimetres(1000.0), MillimetresPerSecond(250.0), Seconds(0.0)).value(), 4.0, 1e-12);
}

}  // namespace
}  // namespace fin
