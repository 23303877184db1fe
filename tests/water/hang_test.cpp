// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/water/hang.h"

#include <gtest/gtest.h>

namespace fin {
namespace {

HangingLure neutralAt20() {
  return {.mass = Grams(10.0),
          .inWater = Grams(0.0),
          .weighedIn = {GramsPerKilogram(0.0), Celsius(20.0)},
          .dragArea_mm2 = 500.0};
}

TEST(Hang, SinksInTheColdAsItShrinksMoreThanTheWaterDoes) {
  HangingLure lure = neutralAt20();
  EXPECT_NEAR(*driftIn(lure, {GramsPerKilogram(0.0), Celsius(5.0)}), 26.9, 0.05);
  lure.expansion_K = 0.0;
  EXPECT_NEAR(*driftIn(lure, {GramsPerKilogram(0.0), Celsius(5.0)}), -26.3, 0.05);
}

TEST(Hang, HoldsBetweenTwoTemperatures) {
  const auto window = hangWindow(neutralAt20(), GramsPerKilogram(0.0), MillimetresPerSecond(10.0));
  ASSERT_TRUE(window);
  EXPECT_NEAR(window->from.value, 15.6, 0.05);
  EXPECT_NEAR(window->to.value, 31.3, 0.05);
  EXPECT_FALSE(hangWindow(neutralAt20(), GramsPerKilogram(35.0), MillimetresPerSecond(10.0)));
}

}  // namespace
}  // namespace fin
