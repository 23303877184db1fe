// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/publishing/film_plan.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace fin {
namespace {

constexpr double kLongest_s = 3600.0;

/// Frames of a clip that a pass may show.
struct Part {
  std::size_t first = 0;
  std::size_t last = 0;
};

Result<Part> partOf(const FilmPass& pass, const std::vector<double>& t, std::size_t index) {
  constexpr double kSlack_s = 1e-9;
  const auto first = std::lower_bound(t.begin(), t.end(), pass.from_s.value_or(-1e300) - kSlack_s);
  const auto end = std::upper_bound(t.begin(), t.end(), pass.to_s.value_or(1e300) + kSlack_s);
  if (first >= end)
    return failure(ErrorCode::BadRequest,
                   fmt::format("passes[{}]: its clip has no frame between from_s and to_s", index), "passes");
  return Part{static_cast<std::size_t>(first - t.begin()), static_cast<std::size_t>(end - t.begin() - 1)};
}

/// The last frame stands as long as the one before it did, but no longer than the pass is wanted.
double endOf(const FilmPass& pass, const std::vector<double>& t, Part part) {
  const double last_s = part.last > 0 ? t[part.last] - t[part.last - 1] : 0.0;
  return std::min(t[part.last] + last_s, pass.to_s.value_or(1e300));
}

std::size_t nearest(const std::vector<double>& t, Part part, double at_s) {
  const auto begin = t.begin() + static_cast<std::ptrdiff_t>(part.first);
  const auto end = t.begin() + static_cast<std::ptrdiff_t>(part.last) + 1;
  auto after = std::lower_bound(begin, end, at_s);
  if (after == end) return part.last;
  if (after != begin && at_s - *(after - 1) <= *after - at_s) --after;
  return static_cast<std::size_t>(after - t.begin());
}

FilmedFrames framesOf(const FilmPass& pass, const std::vector<double>& t, Part part, const FilmPlan& plan) {
  FilmedFrames out{.from_s = t[part.first], .to_s = endOf(pass, t, part)};
  out.frames.reserve(plan.pictures);
  for (std::size_t k = 0; k < plan.pictures; ++k) {
    const double at_s = pass.instant() + plan.timeOf(k);
    const std::size_t frame = nearest(t, part, at_s);
    if (k > 0) {
      const std::size_t before = out.frames.back();
      // Its first frame is no repeat where it was only held before.
      const bool waits = at_s - plan.step_s < out.from_s || at_s >= out.to_s;
      if (frame == before) {
        ++out.repeated;
        out.held += waits ? 1 : 0;
      } else {
        out.skipped += frame - before - 1;
      }
    }
    out.frames.push_back(frame);
  }
  return out;
}

}  // namespace

Result<FilmPlan> planFilm(const FilmScript& script, std::span<const std::vector<double>> times_s) {
  FilmPlan out;
  std::vector<Part> parts;
  double ends_s = -1e300;
  out.begins_s = 1e300;
  for (std::size_t i = 0; i < script.passes.size(); ++i) {
    const FilmPass& pass = script.passes[i];
    const auto part = partOf(pass, times_s[i], i);
    if (!part) return tl::unexpected(part.error());
    parts.push_back(*part);
    out.begins_s = std::min(out.begins_s, times_s[i][part->first] - pass.instant());
    ends_s = std::max(ends_s, endOf(pass, times_s[i], *part) - pass.instant());
  }
  const double film_s = (ends_s - out.begins_s) * script.slowness;
  if (film_s > kLongest_s)
    return failure(ErrorCode::BadRequest,
                   fmt::format("the film would last {:.0f} minutes; choose a shorter part or less slowness",
                               film_s / 60.0),
                   "slowness");
  out.step_s = 1.0 / (script.rate_Hz * script.slowness);
  out.pictures = static_cast<std::size_t>(std::max(1.0, std::round(film_s * script.rate_Hz)));
  for (std::size_t i = 0; i < parts.size(); ++i)
    out.passes.push_back(framesOf(script.passes[i], times_s[i], parts[i], out));
  return out;
}

std::string framesInWords(const FilmedFrames& frames, double filmedAt_Hz) {
  std::string out = fmt::format("filmed at {:.0f} a second", filmedAt_Hz);
  const std::size_t shown = frames.frames.size() - frames.held;
  const std::size_t repeated = frames.repeated - frames.held;
  if (shown > 1 && repeated > 0)
    out += fmt::format(", {:.0f} of 100 pictures repeat the one before",
                       100.0 * static_cast<double>(repeated) / static_cast<double>(shown));
  if (frames.skipped > 0)
    out += fmt::format(", {} of {} frames left out", frames.skipped, frames.skipped + shown - repeated);
  return out;
}

}  // namespace fin
