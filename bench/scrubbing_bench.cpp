// SPDX-License-Identifier: GPL-3.0-or-later
// Steps and jumps on the bench, as ratios to reading on: what a hand that scrubs has to wait for.
//   FIN_BENCH_CLIP=FILE fin_bench --benchmark_filter=scrubbing     another clip than the rehearsed one
#include <benchmark/benchmark.h>

#include <algorithm>
#include <chrono>
#include <cstdlib>
#include <filesystem>
#include <random>

#include "core/footage/clip.h"
#include "core/rehearsal/rehearse.h"

namespace {

using Clock = std::chrono::steady_clock;

template <class Work>
double seconds(const Work& work) {
  const auto from = Clock::now();
  work();
  return std::chrono::duration<double>(Clock::now() - from).count();
}

std::filesystem::path clipFile() {
  if (const char* given = std::getenv("FIN_BENCH_CLIP")) return given;
  const auto file = std::filesystem::temp_directory_path() / "agile-fin-scrub.mp4";
  fin::RehearsalScene scene;
  scene.length = fin::Seconds(8.0);
  (void)fin::filmRehearsal(scene, file);
  return file;
}

void scrubbing(benchmark::State& state) {
  const auto clip = fin::Clip::open(clipFile());
  if (!clip) return state.SkipWithError(clip.error().message.c_str());
  const std::size_t frames = (*clip)->index().frameCount();
  const std::size_t stretch = std::min<std::size_t>(frames, 240);
  double on = 0.0;
  double back = 0.0;
  double jump = 0.0;
  double worst = 0.0;
  std::mt19937 random(3);
  std::uniform_int_distribution<std::size_t> any(0, frames - 1);
  for (auto _ : state) {
    auto source = *fin::Clip::reader(*clip, {256U << 20U, 0});
    on += seconds([&] {
            for (std::size_t n = 0; n < stretch; ++n) benchmark::DoNotOptimize(source->frame(n));
          }) /
          static_cast<double>(stretch);
    back += seconds([&] {
              for (std::size_t n = stretch; n-- > 0;) benchmark::DoNotOptimize(source->frame(n));
            }) /
            static_cast<double>(stretch);
    for (int i = 0; i < 40; ++i) {
      const double one = seconds([&] { benchmark::DoNotOptimize(source->frame(any(random))); });
      jump += one / 40.0;
      worst = std::max(worst, one);
    }
  }
  const auto rounds = static_cast<double>(state.iterations());
  state.counters["ms_on"] = 1000.0 * on / rounds;
  state.counters["back_over_on"] = back / on;
  state.counters["jump_over_on"] = jump / on;
  state.counters["worst_jump_ms"] = 1000.0 * worst;
}
BENCHMARK(scrubbing)->Iterations(2)->Unit(benchmark::kMillisecond);

}  // namespace
