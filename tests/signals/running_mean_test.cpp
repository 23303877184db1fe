// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/running_mean.h"

#include <gtest/gtest.h>

#include <cmath>
#include <functional>
#include <numbers>
#include <random>

#include "core/signals/periodogram.h"

namespace fin {
namespace {

constexpr double kFullCircle = 2.0 * std::numbers::pi;

/// Samples at uneven times, 120 a second in the mean.
Series sampled(const std::function<double(double)>& of, double length_s, unsigned seed = 3) {
  std::mt19937 random(seed);
  std::uniform_real_distribution<double> step(0.5 / 120.0, 1.5 / 120.0);
  Series s;
  for (double t = 0.0; t <= length_s; t += step(random)) s.add(t, of(t));
  return s;
}

TEST(RunningMean, IsTheIntegralOverItsWindow) {
  // Of a t² the mean over a window w about t is a (t² + w² / 12).
  const double window = 0.4;
  const Series mean = runningMean(sampled([](double t) { return 50.0 * t * t; }, 3.0), window);
  for (std::size_t i = 0; i < mean.size(); ++i) {
    const double t = mean.t_s[i];
    if (t < 0.5 * window || t > 3.0 - 0.6 * window) continue;
    EXPECT_NEAR(mean.y[i], 50.0 * (t * t + window * window / 12.0), 0.01) << t;
  }
}

TEST(RunningMean, LessensOtherRhythmsAsItsWindowSays) {
  // A sine of another rate comes through times sin(π f w) / (π f w).
  const double window = 0.25;
  for (const double rate : {1.0, 2.0, 6.0}) {
    const Series mean =
        runningMean(sampled([&](double t) { return std::sin(kFullCircle * rate * t); }, 4.0), window);
    const double through = std::sin(std::numbers::pi * rate * window) / (std::numbers::pi * rate * window);
    for (std::size_t i = 60; i + 60 < mean.size(); ++i)
      EXPECT_NEAR(mean.y[i], through * std::sin(kFullCircle * rate * mean.t_s[i]), 0.02) << rate;
  }
}

TEST(RunningMean, OfAShortSeriesIsItsLine) {
  const Series s = sampled([](double t) { return 4.0 - 9.0 * t; }, 0.2);
  const Series mean = runningMean(s, 1.0);
  const Series rest = withoutRunningMean(s, 1.0);
  ASSERT_EQ(mean.size(), s.size());
  for (std::size_t i = 0; i < s.size(); ++i) {
    EXPECT_NEAR(mean.y[i], s.y[i], 1e-9);
    EXPECT_NEAR(rest.y[i], 0.0, 1e-9);
  }
}

TEST(RunningMean, AndWhatIsLeftMakeTheSeriesAgain) {
  const Series s = sampled([](double t) { return t * t + std::sin(kFullCircle * 3.0 * t); }, 2.0);
  const Series mean = runningMean(s, 1.0 / 3.0);
  const Series rest = withoutRunningMean(s, 1.0 / 3.0);
  EXPECT_EQ(rest.t_s, s.t_s);
  for (std::size_t i = 0; i < s.size(); ++i) EXPECT_NEAR(mean.y[i] + rest.y[i], s.y[i], 1e-12);
}

TEST(Periodogram, IsTheShareThatALeastSquaresSineTakesAtUnevenTimes) {
  // Two sines at known rates: each takes its own share of the variance, a²/2 over their sum.
  const Series s = sampled(
      [](double t) {
        return 7.0 + 3.0 * std::sin(kFullCircle * 4.0 * t) + 1.5 * std::cos(kFullCircle * 9.0 * t);
      },
      6.0);
  const Spectrum spectrum = periodogram(s, 1.0, 14.0);
  const auto peaks = spectrumPeaks(spectrum, 2);
  ASSERT_EQ(peaks.size(), 2U);
  EXPECT_NEAR(spectrum.frequency_Hz[peaks[0]], 4.0, 0.03);
  EXPECT_NEAR(spectrum.frequency_Hz[peaks[1]], 9.0, 0.03);
  EXPECT_NEAR(spectrum.power[peaks[0]], 9.0 / (9.0 + 2.25), 0.03);
  EXPECT_NEAR(spectrum.power[peaks[1]], 2.25 / (9.0 + 2.25), 0.03);
  for (const double power : spectrum.power) {
    EXPECT_GE(power, 0.0);
    EXPECT_LE(power, 1.0);
  }
}

}  // namespace
}  // namespace fin
