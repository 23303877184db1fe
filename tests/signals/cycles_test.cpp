// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/cycles.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <random>

#include "core/signals/periodogram.h"
#include "core/signals/running_mean.h"

namespace fin {
namespace {

constexpr double kTurn = 2.0 * std::numbers::pi;

Series sine(double frequency_Hz, double amplitude, double seconds, double noise = 0.0) {
  std::mt19937 random(9);
  std::normal_distribution<double> grain(0.0, 1.0);
  Series s;
  for (int i = 0; i < static_cast<int>(seconds * 200.0); ++i) {
    const double t = i / 200.0;
    s.add(t, amplitude * std::sin(kTurn * frequency_Hz * t) + noise * grain(random));
  }
  return s;
}

PeriodicFit fitOf(double frequency_Hz, double amplitude) {
  PeriodicFit fit;
  fit.frequency_Hz = frequency_Hz;
  fit.amplitudes = {amplitude, 0.0, 0.0};
  return fit;
}

TEST(WholeCycles, RunFromOneUpwardCrossingToTheNext) {
  const auto cycles = wholeCycles(sine(4.0, 10.0, 2.9), fitOf(4.0, 10.0));
  // Crossings at 0.25, 0.5 … 2.75 s (the one at 0 has nothing below it before).
  ASSERT_EQ(cycles.size(), 10U);
  for (const Cycle& c : cycles) EXPECT_NEAR(c.length_s(), 0.25, 1e-3);
  EXPECT_NEAR(cycles.front().from_s, 0.25, 1e-3);
}

TEST(WholeCycles, AreNotMadeByNoise) {
  EXPECT_EQ(wholeCycles(sine(4.0, 10.0, 2.9, 1.5), fitOf(4.0, 10.0)).size(), 10U);
}

TEST(WholeCycles, LeaveOutACycleWithAHole) {
  const Series whole = sine(4.0, 10.0, 2.9);
  Series holed;
  for (std::size_t i = 0; i < whole.size(); ++i) {
    if (whole.t_s[i] < 1.05 || whole.t_s[i] > 1.2) holed.add(whole.t_s[i], whole.y[i]);
  }
  const auto cycles = wholeCycles(holed, fitOf(4.0, 10.0));
  EXPECT_EQ(cycles.size(), 9U);
  for (const Cycle& c : cycles) EXPECT_FALSE(c.from_s < 1.1 && c.to_s > 1.1);
}

TEST(PeakToPeak, ReadsBetweenTheFrames) {
  // 23 samples a cycle: the highest sample lies up to a degree of phase below the crest.
  const Series s = sine(8.7, 10.0, 1.5);
  const auto cycles = wholeCycles(s, fitOf(8.7, 10.0));
  ASSERT_GT(cycles.size(), 8U);
  for (double swing : peakToPeak(s, cycles)) EXPECT_NEAR(swing, 20.0, 0.1);
}

TEST(RunningMean, TakesAWholeCycleAwayAndLeavesASlopeAlone) {
  Series s = sine(5.0, 3.0, 3.0);
  for (std::size_t i = 0; i < s.size(); ++i) s.y[i] += 7.0 * s.t_s[i];
  const Series mean = runningMean(s, 0.2);
  for (std::size_t i = 40; i + 40 < mean.size(); ++i) EXPECT_NEAR(mean.y[i], 7.0 * mean.t_s[i], 0.02);
  // Past the last whole window the mean goes on along its own slope.
  EXPECT_NEAR(mean.y.front(), 0.0, 0.4);
}

TEST(Periodogram, GivesTheShareOfTheVariance) {
  // Zechmeister & Kürster 2009, eq. 4: p = 1 for a sinusoid without noise, and a half where noise has its
  // variance.
  const Spectrum clean = periodogram(sine(4.0, 2.0, 5.0), 1.0, 10.0);
  const std::size_t peak = spectrumPeaks(clean, 1).front();
  EXPECT_NEAR(clean.frequency_Hz[peak], 4.0, 0.02);
  EXPECT_NEAR(clean.power[peak], 1.0, 0.01);
  const Spectrum noisy = periodogram(sine(4.0, 2.0, 5.0, std::sqrt(2.0)), 1.0, 10.0);
  EXPECT_NEAR(noisy.power[spectrumPeaks(noisy, 1).front()], 0.5, 0.06);
}

}  // namespace
}  // namespace fin
