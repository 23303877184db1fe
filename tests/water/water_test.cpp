// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/water/water.h"

#include <gtest/gtest.h>

#include <cmath>

namespace fin {
namespace {

WaterState water(double salinity, double temperature) {
  return {GramsPerKilogram(salinity), Celsius(temperature)};
}

TEST(Water, HasThePublishedDensities) {
  // UNESCO Technical Papers in Marine Science 38 (1981).
  EXPECT_NEAR(density(water(0.0, 5.0))->value(), 999.96675, 1e-5);
  EXPECT_NEAR(density(water(35.0, 5.0))->value(), 1027.67547, 1e-5);
  EXPECT_NEAR(density(water(35.0, 25.0))->value(), 1023.34306, 1e-5);
}

TEST(Water, HasThePublishedViscosity) {
  // Fresh water at 20 °C: 1.002 mPa·s (IAPWS); the correlation is good to 1.5 %.
  EXPECT_NEAR(*viscosity_Pa_s(water(0.0, 20.0)), 1.002e-3, 0.002e-3);
  EXPECT_GT(*viscosity_Pa_s(water(35.0, 20.0)), *viscosity_Pa_s(water(0.0, 20.0)));
}

TEST(Water, RefusesWhatTheFormulasDoNotHold) {
  EXPECT_EQ(density(water(0.0, 60.0)).error().where, "temperature");
  EXPECT_EQ(density(water(50.0, 10.0)).error().where, "salinity");
  EXPECT_FALSE(density(water(std::nan(""), 10.0)));
}

TEST(Water, NeedsAsMuchSaltAsMakesTheMixtureRight) {
  const CubicMetres volume(4.32);
  const auto salt = saltToAdd(water(1.0, 11.0), volume, GramsPerKilogram(6.0));
  ASSERT_TRUE(salt);
  const double before = density(water(1.0, 11.0))->value() * volume.value();
  EXPECT_NEAR((0.001 * before + salt->value()) / (before + salt->value()), 0.006, 1e-12);
  EXPECT_FALSE(saltToAdd(water(6.0, 11.0), volume, GramsPerKilogram(1.0)));
  EXPECT_EQ(saltToAdd(water(1.0, 11.0), CubicMetres(-2.0), GramsPerKilogram(6.0)).error().where, "volume");
}

TEST(Water, ComesDownByAsMuchFreshWaterAsMakesItRight) {
  const auto fresh = freshWaterToAdd(water(6.0, 11.0), CubicMetres(1.0), GramsPerKilogram(4.0));
  ASSERT_TRUE(fresh);
  const double before = density(water(6.0, 11.0))->value();
  EXPECT_NEAR(0.006 * before / (before + fresh->value()), 0.004, 1e-12);
  EXPECT_FALSE(freshWaterToAdd(water(6.0, 11.0), CubicMetres(1.0), GramsPerKilogram(0.0)));
}

TEST(Water, WeighsWithItsTank) {
  const auto filled = filledWeight(water(0.0, 5.0), CubicMetres(2.0), Kilograms(120.0));
  EXPECT_NEAR(filled->value(), 2.0 * 999.96675 + 120.0, 1e-3);
}

}  // namespace
}  // namespace fin
