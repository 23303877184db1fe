// SPDX-License-Identifier: GPL-3.0-or-later
// Following and reading a clip, as a ratio to only decoding it, with the error against the truth beside it.
#include <benchmark/benchmark.h>

#include <chrono>
#include <cmath>
#include <filesystem>

#include "core/measuring/measure.h"
#include "core/rehearsal/rehearse.h"

namespace {

using Clock = std::chrono::steady_clock;

double seconds(Clock::time_point from) {
  return std::chrono::duration<double>(Clock::now() - from).count();
}

fin::RehearsalScene scene() {
  fin::RehearsalScene out;
  out.camera.view = fin::View::Top;
  out.camera.focal_px = 1700.0;
  out.motion = fin::StraightPull{.start_mm = -480.0, .wobble_Hz = 5.2};
  out.length = fin::Seconds(3.0);
  return out;
}

double onlyDecoding(const std::shared_ptr<const fin::Clip>& clip, const fin::PassRequest& request) {
  const auto start = Clock::now();
  auto plain = *fin::Clip::reader(clip, {});
  for (std::size_t n = request.firstFrame; n <= *request.lastFrame; ++n)
    benchmark::DoNotOptimize(plain->frame(n));
  return seconds(start);
}

void readingOverDecoding(benchmark::State& state) {
  const auto file = std::filesystem::temp_directory_path() / "agile-fin-bench.mp4";
  const fin::RehearsalTank tank(scene());
  if (auto filmed = fin::filmRehearsal(scene(), file); !filmed)
    return state.SkipWithError("no clip could be filmed");
  const auto clip = *fin::Clip::open(file);
  const fin::PassRequest request = fin::requestFor(tank, file);
  double decoding = 0.0;
  double reading = 0.0;
  double error = 0.0;
  for (auto _ : state) {
    decoding += onlyDecoding(clip, request);
    const auto start = Clock::now();
    auto source = *fin::Clip::reader(clip, {});
    auto track = fin::followPass(request, *clip, *source);
    if (!track) return state.SkipWithError(track.error().message.c_str());
    double power = 0.0;
    double n = 0.0;
    for (const auto& mark : track->marks) {
      for (std::size_t i = 0; i < mark.samples.size(); ++i) {
        if (!mark.samples[i].seen) continue;
        power += std::pow(
            fin::length(mark.samples[i].at - tank.markAt(mark.name, track->firstFrame + i)).value(), 2);
        n += 1.0;
      }
    }
    benchmark::DoNotOptimize(fin::readPass(request, *clip, std::move(*track)));
    reading += seconds(start);
    error = std::sqrt(power / n);
  }
  state.counters["reading_over_decoding"] = reading / decoding;
  state.counters["frames_per_s"] =
      benchmark::Counter(static_cast<double>(*request.lastFrame - request.firstFrame + 1),
                         benchmark::Counter::kIsIterationInvariantRate);
  state.counters["rms_px"] = error;
  std::filesystem::remove(file);
}
/// Following two marks, or an outline alone, over only decoding.
void followingOverDecoding(benchmark::State& state) {
  const bool outline = state.range(0) != 0;
  const auto file = std::filesystem::temp_directory_path() / "agile-fin-bench.mp4";
  const fin::RehearsalTank tank(scene());
  if (auto filmed = fin::filmRehearsal(scene(), file); !filmed)
    return state.SkipWithError("no clip could be filmed");
  const auto clip = *fin::Clip::open(file);
  fin::PassRequest request = fin::requestFor(tank, file);
  if (outline) {
    request.outline = fin::outlineFor(tank, request.firstFrame);
    request.marks.clear();
  }
  double decoding = 0.0;
  double following = 0.0;
  for (auto _ : state) {
    decoding += onlyDecoding(clip, request);
    const auto start = Clock::now();
    auto source = *fin::Clip::reader(clip, {});
    const auto track = fin::followPass(request, *clip, *source);
    if (!track) return state.SkipWithError(track.error().message.c_str());
    following += seconds(start);
  }
  state.counters["following_over_decoding"] = following / decoding;
  std::filesystem::remove(file);
}
BENCHMARK(followingOverDecoding)
    ->ArgName("outline")
    ->Arg(0)
    ->Arg(1)
    ->Iterations(3)
    ->Unit(benchmark::kMillisecond);

BENCHMARK(readingOverDecoding)->Iterations(3)->Unit(benchmark::kMillisecond);

}  // namespace
