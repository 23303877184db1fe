// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/periodic_fit.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <random>

#include "core/signals/block_mean.h"
#include "core/signals/line_fit.h"
#include "core/signals/rhythm.h"

namespace fin {
namespace {

constexpr double kWholeTurn = 2.0 * std::numbers::pi;

struct Wave {
  double frequency_Hz = 4.0;
  double noise = 0.0;
  double second = 0.0;  ///< amplitude of the second harmonic; the first has 1
  double slow = 0.0;    ///< amplitude of a wander at 0.4 Hz
  std::size_t n = 400;
  double rate_Hz = 120.0;
  unsigned seed = 1;
};

Series waveOf(const Wave& w) {
  std::mt19937 random(w.seed);
  std::normal_distribution<double> noise(0.0, 1.0);
  Series s;
  for (std::size_t i = 0; i < w.n; ++i) {
    const double t = static_cast<double>(i) / w.rate_Hz;
    const double phase = kWholeTurn * w.frequency_Hz * t + 0.7;
    s.add(t, std::sin(phase) + w.second * std::cos(2.0 * phase) + w.slow * std::sin(kWholeTurn * 0.4 * t) +
                 w.noise * noise(random));
  }
  return s;
}

/// Cramér–Rao bound of the frequency of a real sinusoid of amplitude 1 (Rife & Boorstyn 1974).
double bound_Hz(const Wave& w) {
  const auto n = static_cast<double>(w.n);
  return w.rate_Hz / kWholeTurn * std::sqrt(24.0 * w.noise * w.noise / (n * (n * n - 1.0)));
}

class NoiseLevels : public testing::TestWithParam<double> {};

TEST_P(NoiseLevels, FrequencyComesNearTheCramerRaoBound) {
  Wave wave{.noise = GetParam()};
  constexpr unsigned kTries = 60;
  double power = 0.0;
  double claimed = 0.0;
  for (unsigned seed = 1; seed <= kTries; ++seed) {
    wave.seed = seed;
    const auto fit = fitPeriodic(waveOf(wave), {.harmonics = 1});
    ASSERT_TRUE(fit);
    power += std::pow(fit->frequency_Hz - wave.frequency_Hz, 2) / kTries;
    claimed += fit->frequencySd_Hz / kTries;
  }
  // Sixty tries know a standard deviation to 9 %; 1.5 is the handbook's goal.
  EXPECT_LT(std::sqrt(power), 1.5 * bound_Hz(wave));
  EXPECT_NEAR(claimed / std::sqrt(power), 1.0, 0.35);
}

INSTANTIATE_TEST_SUITE_P(Signals, NoiseLevels, testing::Values(0.07, 0.22, 0.7));

TEST(PeriodicFit, KeepsTheFundamentalOnALopsidedWobble) {
  for (double second : {0.3, 0.8, 1.4}) {
    const auto fit = fitPeriodic(waveOf({.noise = 0.1, .second = second}), {});
    ASSERT_TRUE(fit);
    EXPECT_NEAR(fit->frequency_Hz, 4.0, 0.02) << second;
  }
}

TEST(PeriodicFit, DoesNotReportHalfTheFrequency) {
  const auto fit = fitPeriodic(waveOf({.frequency_Hz = 6.2, .noise = 0.2}), {});
  ASSERT_TRUE(fit);
  EXPECT_NEAR(fit->frequency_Hz, 6.2, 0.03);
}

TEST(PeriodicFit, SurvivesHolesInTheTrack) {
  const Series whole = waveOf({.frequency_Hz = 5.3, .noise = 0.15});
  Series holed;
  for (std::size_t i = 0; i < whole.size(); ++i) {
    if (i % 100 < 60 && i % 7 != 3) holed.add(whole.t_s[i], whole.y[i]);
  }
  const auto fit = fitPeriodic(holed, {});
  ASSERT_TRUE(fit);
  EXPECT_NEAR(fit->frequency_Hz, 5.3,
              4.0 * bound_Hz({.noise = 0.15, .n = holed.size(), .rate_Hz = 60.0}) + 0.01);
}

TEST(PeriodicFit, CallsWhiteNoiseLikelyChance) {
  Wave quiet{.noise = 1.0};
  Series s = waveOf(quiet);
  for (std::size_t i = 0; i < s.size(); ++i) s.y[i] -= std::sin(kWholeTurn * 4.0 * s.t_s[i] + 0.7);
  const auto fit = fitPeriodic(s, {});
  ASSERT_TRUE(fit);
  EXPECT_GT(fit->chance, 0.01);
}

TEST(Rhythm, IsFoundBesideAWanderThreeTimesAsStrong) {
  const auto rhythm =
      findRhythm(waveOf({.frequency_Hz = 6.0, .noise = 0.1, .slow = 3.0, .n = 800}), 0.2, 57.0);
  ASSERT_TRUE(rhythm);
  EXPECT_NEAR(rhythm->fit.frequency_Hz, 6.0, 0.03);
  EXPECT_GE(rhythm->cycles.size(), 38U);
  for (double swing : peakToPeak(rhythm->detrended, rhythm->cycles)) EXPECT_NEAR(swing, 2.0, 0.45);
}

/// Norris, calibration of ozone monitors: NIST Statistical Reference Datasets, linear regression, 36
/// observations (1979). Certified there: slope 1.00211681802045, residual standard deviation
/// 0.884796396144373; standard deviation of the slope 0.429796848199937e-3.
const std::vector<std::pair<double, double>> kNorris = {
    {0.2, 0.1},     {337.4, 338.8}, {118.2, 118.1}, {884.6, 888.0}, {10.1, 9.2},    {226.5, 228.1},
    {666.3, 668.5}, {996.3, 998.5}, {448.6, 449.1}, {777.0, 778.9}, {558.2, 559.2}, {0.4, 0.3},
    {0.6, 0.1},     {775.5, 778.1}, {666.9, 668.8}, {338.0, 339.3}, {447.5, 448.9}, {11.6, 10.8},
    {556.0, 557.7}, {228.1, 228.3}, {995.8, 998.0}, {887.6, 888.8}, {120.2, 119.6}, {0.3, 0.3},
    {0.3, 0.6},     {556.8, 557.6}, {339.1, 339.3}, {887.2, 888.0}, {999.0, 998.5}, {779.0, 778.9},
    {11.1, 10.2},   {118.3, 117.6}, {229.2, 228.9}, {669.1, 668.4}, {448.9, 449.2}, {0.5, 0.2}};

TEST(LineFit, GivesTheCertifiedFiguresOfNorris) {
  auto points = kNorris;
  std::sort(points.begin(), points.end());
  Series s;
  for (const auto& [x, y] : points) s.add(x, y);
  const auto fit = fitLine(s);
  ASSERT_TRUE(fit);
  EXPECT_NEAR(fit->slope, 1.00211681802045, 1e-13);
  EXPECT_NEAR(fit->at(0.0), -0.262323073774029, 1e-11);
  EXPECT_NEAR(fit->residualSd, 0.884796396144373, 1e-12);
  // Its residuals hang together a little: never surer than the certified interval, t of 34 degrees 2.03224.
  EXPECT_GE(fit->slopeU95, 2.03224 * 0.429796848199937e-3);
  EXPECT_LE(fit->slopeU95, 2.0 * 2.03224 * 0.429796848199937e-3);
}

TEST(PeriodicFit, GivesBackAHarmonicSeriesAtUnevenTimes) {
  // Times that no grid holds: the golden ratio's multiples, sorted.
  std::vector<double> times;
  for (int i = 1; i <= 240; ++i) times.push_back(3.0 * std::fmod(i * 0.6180339887498949, 1.0));
  std::sort(times.begin(), times.end());
  const double f = 4.7321;
  Series s;
  for (const double t : times) {
    const double phase = 2.0 * std::numbers::pi * f * t;
    s.add(t, 12.5 + 8.0 * std::sin(phase + 0.4) + 2.0 * std::cos(2.0 * phase) + 0.5 * std::sin(3.0 * phase));
  }
  const auto fit = fitPeriodic(s, {});
  ASSERT_TRUE(fit);
  EXPECT_NEAR(fit->frequency_Hz, f, 1e-6 * f);
  EXPECT_NEAR(fit->mean, 12.5, 1e-5);
  ASSERT_GE(fit->amplitudes.size(), 3U);
  EXPECT_NEAR(fit->amplitudes[0], 8.0, 1e-4);
  EXPECT_NEAR(fit->amplitudes[1], 2.0, 1e-4);
  EXPECT_NEAR(fit->amplitudes[2], 0.5, 1e-4);
  EXPECT_NEAR(fit->explained, 1.0, 1e-9);
}

TEST(LineFit, CountsASwayAsFewerIndependentSamples) {
  Series straight;
  Series swaying;
  std::mt19937 random(3);
  std::normal_distribution<double> noise(0.0, 0.5);
  for (int i = 0; i < 300; ++i) {
    const double t = i / 100.0;
    straight.add(t, 7.0 * t + noise(random));
    swaying.add(t, 7.0 * t + 0.7 * std::sin(kWholeTurn * 0.8 * t));
  }
  const auto a = fitLine(straight);
  const auto b = fitLine(swaying);
  ASSERT_TRUE(a && b);
  // Plain least squares: sd · √(12 / n) / span.
  EXPECT_NEAR(a->slopeU95, 1.97 * 0.5 * std::sqrt(12.0 / 300.0) / 3.0, 0.02);
  EXPECT_GT(b->slopeU95, 3.0 * a->slopeU95);
  EXPECT_NEAR(b->slope, 7.0, b->slopeU95);
  EXPECT_FALSE(fitLine(straight.between(0.0, 0.011)));
}

TEST(BlockMean, GivesTheIntervalOfTheBlocks) {
  Series s;
  for (int i = 0; i < 40; ++i) s.add(i, i / 10 % 2 == 0 ? 1.0 : 3.0);
  const Mean mean = blockMean(s, 4);
  EXPECT_DOUBLE_EQ(mean.value, 2.0);
  // Blocks 1, 3, 1, 3: sd 1.1547, n 4, t(3) = 3.182446.
  EXPECT_NEAR(mean.u95, 3.182446 * 1.154701 / 2.0, 1e-4);
}

}  // namespace
}  // namespace fin
