// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/publishing/filmed_pass.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "core/calibration/clip_clock.h"
#include "core/measuring/main_trace.h"
#include "core/publishing/make_film.h"

namespace fin {
namespace {

constexpr double kEvery_s = 0.25;
constexpr std::size_t kMostSteps = 40;
constexpr std::size_t kMostReadings = 8;
constexpr double kLoop_s = 2.0;  ///< of true time
constexpr double kLoopSlowness = 5.0;
constexpr int kLoopWidth_px = 640;
constexpr int kLoopHeight_px = 480;

std::string spelled(ReadingId id) {
  std::string out(toString(id));
  std::replace(out.begin(), out.end(), '_', ' ');
  if (!out.empty()) out.front() = static_cast<char>(std::toupper(static_cast<unsigned char>(out.front())));
  return out;
}

/// With as many decimals as two figures of its uncertainty have.
std::string withU95(double value, std::optional<double> u95) {
  if (!u95 || *u95 <= 0.0) return fmt::format("{:.4g}", value);
  const int decimals = std::clamp(1 - static_cast<int>(std::floor(std::log10(*u95))), 0, 6);
  return fmt::format("{:.{}f} ± {:.{}f}", value, decimals, *u95, decimals);
}

FilmWords plainReading(const Reading& reading) {
  if (const auto* word = std::get_if<std::string>(&reading.value)) return {0.0, spelled(reading.id), *word};
  return {0.0, spelled(reading.id),
          withU95(std::get<double>(reading.value), reading.u95) + " " + reading.unit};
}

FilmTrace plainTrace(const PassRequest& request, const PassResult& result) {
  const MainTrace trace = mainTraceOf(request, result);
  FilmTrace out{fmt::format("{}, {}", toString(trace.what), trace.unit()),
                trace.series.t_s,
                {},
                trace.what == MainTrace::What::Depth};
  for (const double y : trace.series.y) out.y.push_back(trace.shown(y));
  return out;
}

Track firstOf(const Track& track, std::size_t frames) {
  Track out = track;
  out.frameCount = frames;
  for (MarkTrack& mark : out.marks) mark.samples.resize(frames);
  if (!out.background.empty()) out.background.resize(frames);
  if (!out.outline.empty()) out.outline.resize(frames);
  if (!out.brightness.empty()) out.brightness.resize(frames);
  return out;
}

std::vector<ReadingId> shownOf(const PassResult& result) {
  std::vector<ReadingId> out;
  for (const Reading& reading : result.readings.readings) {
    if (out.size() < kMostReadings && !reading.stretch) out.push_back(reading.id);
  }
  return out;
}

void addWords(std::vector<FilmWords>& to, const ReadingSet& readings, const std::vector<ReadingId>& shown,
              double at_s, bool last, const FilmLanguage& language) {
  for (const ReadingId id : shown) {
    const Reading* reading = readings.find(id);
    if (reading == nullptr || (!last && std::holds_alternative<std::string>(reading->value))) continue;
    FilmWords words = language.reading(*reading);
    words.from_s = at_s;
    to.push_back(std::move(words));
  }
}

}  // namespace

std::vector<FilmLure> lureOn(const Track& track) {
  std::vector<FilmLure> out;
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    PixelPoint sum;
    int count = 0;
    const auto add = [&](bool seen, PixelPoint at) {
      if (!seen) return;
      sum = sum + at;
      ++count;
    };
    for (const MarkTrack& mark : track.marks) add(mark.samples[i].seen, mark.samples[i].at);
    if (track.marks.empty() && i < track.outline.size()) add(track.outline[i].seen, track.outline[i].centre);
    if (count > 0) out.push_back({track.firstFrame + i, sum * (1.0 / count)});
  }
  return out;
}

std::optional<double> lureLength_px(const PassRequest& request, const Track& track) {
  if (const auto placed = bodyLength_px(request)) return placed;
  std::vector<double> lengths;
  for (const OutlineSample& sample : track.outline) {
    if (sample.seen) lengths.push_back(sample.length_px);
  }
  if (lengths.empty()) return std::nullopt;
  const auto middle = lengths.begin() + static_cast<std::ptrdiff_t>(lengths.size() / 2);
  std::nth_element(lengths.begin(), middle, lengths.end());
  return *middle;
}

Result<FilmScript> loopOf(const PassRequest& request, const Track& track, const JobControl& job) {
  const auto clip = openClip(request, {.job = {job.stop, {}}});
  if (!clip) return tl::unexpected(clip.error());
  const auto clock = ClipClock::create((*clip)->index(), request.captureRate);
  if (!clock) return tl::unexpected(clock.error());
  FilmScript out{
      .slowness = kLoopSlowness, .width_px = kLoopWidth_px, .height_px = kLoopHeight_px, .bare = true};
  const double begins_s = clock->timeOf(track.firstFrame).value();
  const double ends_s =
      clock->timeOf(track.firstFrame + track.frameCount - std::min<std::size_t>(track.frameCount, 1)).value();
  const double middle_s = 0.5 * (begins_s + ends_s);
  out.passes.push_back({.clip = request.clip,
                        .captureRate = request.captureRate,
                        .byField = request.byField,
                        .from_s = std::max(begins_s, middle_s - 0.5 * kLoop_s),
                        .lure = lureOn(track),
                        .length_px = lureLength_px(request, track)});
  const double to_s = std::min(ends_s, middle_s + 0.5 * kLoop_s);
  if (to_s > *out.passes.front().from_s) out.passes.front().to_s = to_s;
  return out;
}

Result<void> writeLoop(const FilmScript& loop, const std::filesystem::path& name, const JobControl& job) {
  const char* endings[] = {".mp4", ".webm"};
  for (int i = 0; i < 2; ++i) {
    std::filesystem::path file = name;
    file += endings[i];
    if (auto made = makeFilm(loop, file, partOf(job, 0.5 * i, 0.5 * (i + 1))); !made)
      return tl::unexpected(made.error());
  }
  return {};
}

FilmLanguage plainFilmLanguage() {
  return {plainReading, plainTrace};
}

FilmPass filmedPass(const PassRequest& request, const PassResult& result, const FilmLanguage& language,
                    FilmPass said) {
  if (said.clip.empty()) said.clip = request.clip;
  if (!said.captureRate) said.captureRate = request.captureRate;
  said.byField |= request.byField;
  if (said.caption.empty()) said.caption = request.rigName;
  if (said.lure.empty()) said.lure = lureOn(result.track);
  if (!said.length_px) said.length_px = lureLength_px(request, result.track);
  if (!said.mmPerPixel) {
    if (const auto scale = scaleOf(request, request.scalePlane); scale && *scale)
      said.mmPerPixel = (*scale)->mmPerPixel();
  }
  if (request.quiet && !said.quietFrom_s) {
    said.quietFrom_s = request.quiet->from.value();
    said.quietTo_s = request.quiet->to.value();
  }
  if (!result.time_s.empty()) {
    if (!said.from_s) said.from_s = result.time_s.front();
    if (!said.to_s) said.to_s = result.time_s.back();
  }
  if (!said.trace) {
    FilmTrace trace = language.trace(request, result);
    if (!trace.y.empty()) said.trace = std::move(trace);
  }
  return said;
}

Result<std::vector<FilmWords>> readingsAsTheyArise(const PassRequest& request, const PassResult& result,
                                                   const std::shared_ptr<const Clip>& clip,
                                                   const FilmLanguage& language, const JobControl& job) {
  std::vector<FilmWords> out;
  const std::vector<ReadingId> shown = shownOf(result);
  if (shown.empty() || result.time_s.empty()) return out;
  const double from_s = result.time_s.front(), to_s = result.time_s.back();
  const bool atTheEndOnly = request.protocol == Protocol::Sound || hasStretches(request);
  const auto steps =
      atTheEndOnly ? 0 : std::min(kMostSteps, static_cast<std::size_t>((to_s - from_s) / kEvery_s));
  for (std::size_t k = 1; k < steps; ++k) {
    if (job.cancelled()) return failure(ErrorCode::Cancelled, "reading was stopped");
    const double at_s = from_s + (to_s - from_s) * static_cast<double>(k) / static_cast<double>(steps);
    const auto frames = static_cast<std::size_t>(
        std::upper_bound(result.time_s.begin(), result.time_s.end(), at_s) - result.time_s.begin());
    PassRequest part = request;
    part.lastFrame = result.track.firstFrame + frames - 1;
    const auto read = readPass(part, *clip, firstOf(result.track, frames), {job.stop, {}});
    if (read) addWords(out, read->readings, shown, at_s, false, language);
    job.report(static_cast<double>(k) / static_cast<double>(steps));
  }
  addWords(out, result.readings, shown, to_s, true, language);
  return out;
}

}  // namespace fin
