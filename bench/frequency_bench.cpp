// SPDX-License-Identifier: GPL-3.0-or-later
// How near the frequency estimator comes to the Cramér–Rao bound, and how long it takes, at three noise
// levels.
#include <benchmark/benchmark.h>

#include <cmath>
#include <numbers>
#include <random>

#include "core/signals/periodic_fit.h"

namespace {

constexpr double kTurn = 2.0 * std::numbers::pi;
constexpr std::size_t kSamples = 480;
constexpr double kRate_Hz = 120.0;
constexpr double kTrue_Hz = 4.37;

/// Cramér–Rao bound for a sinusoid of amplitude 1 (Rife & Boorstyn 1974).
double bound_Hz(double noise) {
  const auto n = static_cast<double>(kSamples);
  return kRate_Hz / kTurn * std::sqrt(24.0 * noise * noise / (n * (n * n - 1.0)));
}

void frequencyOverBound(benchmark::State& state) {
  const double decibels = static_cast<double>(state.range(0));
  const double noise = std::sqrt(0.5 / std::pow(10.0, decibels / 10.0));
  std::mt19937 random(7);
  std::normal_distribution<double> normal(0.0, noise);
  std::uniform_real_distribution<double> anyPhase(0.0, kTurn);
  double power = 0.0;
  double inside = 0.0;
  double tries = 0.0;
  for (auto _ : state) {
    state.PauseTiming();
    const double phase = anyPhase(random);
    fin::Series s;
    for (std::size_t i = 0; i < kSamples; ++i) {
      const double t = static_cast<double>(i) / kRate_Hz;
      s.add(t, std::sin(kTurn * kTrue_Hz * t + phase) + normal(random));
    }
    state.ResumeTiming();
    const auto fit = fin::fitPeriodic(s, {});
    if (!fit) return state.SkipWithError(fit.error().message.c_str());
    const double error = fit->frequency_Hz - kTrue_Hz;
    power += error * error;
    inside += std::abs(error) <= 1.96 * fit->frequencySd_Hz ? 1.0 : 0.0;
    tries += 1.0;
  }
  state.counters["sd_over_bound"] = std::sqrt(power / tries) / bound_Hz(noise);
  state.counters["inside_u95"] = inside / tries;
}
BENCHMARK(frequencyOverBound)
    ->ArgName("dB")
    ->Arg(20)
    ->Arg(10)
    ->Arg(3)
    ->Iterations(400)
    ->Unit(benchmark::kMillisecond);

}  // namespace
