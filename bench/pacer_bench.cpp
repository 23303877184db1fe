// SPDX-License-Identifier: GPL-3.0-or-later
// How true the pacer's beats fall against the clock, in the program's own event loop.
#include <benchmark/benchmark.h>

#include <QCoreApplication>
#include <QEventLoop>
#include <algorithm>
#include <cmath>
#include <vector>

#include "app/controllers/pacer.h"

namespace {

constexpr std::size_t kBeats = 40;

void pacerJitter(benchmark::State& state) {
  double worst_ms = 0.0;
  double power = 0.0;
  double count = 0.0;
  for (auto _ : state) {
    fin::app::Pacer pacer;
    QEventLoop loop;
    const fin::Cadence cadence{2, fin::Seconds(0.12), fin::Seconds(0.23)};
    QObject::connect(&pacer, &fin::app::Pacer::beat, &loop, [&](std::size_t n) {
      const double off_ms = 1000.0 * std::abs((pacer.elapsed() - cadence.beat(n)).value());
      worst_ms = std::max(worst_ms, off_ms);
      power += off_ms * off_ms;
      count += 1.0;
      if (n >= kBeats) loop.quit();
    });
    pacer.start(cadence);
    loop.exec();
  }
  state.counters["worst_ms"] = worst_ms;
  state.counters["rms_ms"] = std::sqrt(power / count);
  state.counters["beats"] = count;
}
BENCHMARK(pacerJitter)->Iterations(1)->Unit(benchmark::kMillisecond);

}  // namespace

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QCoreApplication application(argc, argv);
  benchmark::Initialize(&argc, argv);
  benchmark::RunSpecifiedBenchmarks();
  return 0;
}
