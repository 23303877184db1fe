// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/sound_alignment.h"

#include <algorithm>
#include <cmath>
#include <vector>

#include "core/signals/series.h"

namespace fin {
namespace {

constexpr std::size_t kCoarse = 6000;  ///< steps that all lags are tried over
constexpr double kElsewhere_s = 0.15;  ///< farther from the best lag a match is another one
constexpr double kLeastOverlap = 0.2;  ///< of the shorter recording

using Onsets = std::vector<double>;

Onsets onsetsOf(std::span<const float> level) {
  const double background = std::max(median({level.begin(), level.end()}), 1e-6);
  Onsets out(level.size(), 0.0);
  for (std::size_t i = 1; i < level.size(); ++i) {
    const double rise = std::log((level[i] + background) / (level[i - 1] + background));
    out[i] = std::max(rise, 0.0);
  }
  return out;
}

Onsets thinned(const Onsets& fine, std::size_t by) {
  Onsets out(fine.size() / by + 1, 0.0);
  for (std::size_t i = 0; i < fine.size(); ++i) out[i / by] = std::max(out[i / by], fine[i]);
  return out;
}

/// How well b, moved forward by `lag`, matches a.
double matchAt(const Onsets& a, const Onsets& b, std::ptrdiff_t lag) {
  const auto from = std::max<std::ptrdiff_t>(0, -lag);
  const auto to = std::min<std::ptrdiff_t>(std::ssize(a), std::ssize(b) - lag);
  double sum = 0.0;
  for (std::ptrdiff_t i = from; i < to; ++i)
    sum += a[static_cast<std::size_t>(i)] * b[static_cast<std::size_t>(i + lag)];
  return sum;
}

struct BestLag {
  std::ptrdiff_t lag = 0;
  double match = 0.0;
  double elsewhere = 0.0;
};

BestLag bestLag(const Onsets& a, const Onsets& b, std::ptrdiff_t from, std::ptrdiff_t to,
                std::ptrdiff_t apart) {
  std::vector<double> matches;
  for (std::ptrdiff_t lag = from; lag <= to; ++lag) matches.push_back(matchAt(a, b, lag));
  const auto best = std::max_element(matches.begin(), matches.end()) - matches.begin();
  BestLag out{from + best, matches[static_cast<std::size_t>(best)], 0.0};
  for (std::ptrdiff_t i = 0; i < std::ssize(matches); ++i) {
    if (std::abs(i - best) > apart)
      out.elsewhere = std::max(out.elsewhere, matches[static_cast<std::size_t>(i)]);
  }
  return out;
}

}  // namespace

Result<SoundAlignment> alignSound(std::span<const float> first, std::span<const float> second, Seconds step) {
  const Onsets a = onsetsOf(first);
  const Onsets b = onsetsOf(second);
  const std::size_t by = std::max<std::size_t>(1, std::max(a.size(), b.size()) / kCoarse);
  const Onsets coarseA = thinned(a, by);
  const Onsets coarseB = thinned(b, by);
  const auto overlap = static_cast<std::ptrdiff_t>(
      kLeastOverlap * static_cast<double>(std::min(coarseA.size(), coarseB.size())));
  const auto apart =
      static_cast<std::ptrdiff_t>(kElsewhere_s / step.value()) / static_cast<std::ptrdiff_t>(by) + 1;
  const BestLag rough =
      bestLag(coarseA, coarseB, overlap - std::ssize(coarseA), std::ssize(coarseB) - overlap, apart);
  const double peakRatio = rough.match / std::max(rough.elsewhere, 1e-9);
  if (rough.match <= 0.0 || peakRatio < kStandsOut) {
    return failure(
        ErrorCode::Unsupported,
        "these clips have no sound in common that stands out; knock once on the tank while both cameras "
        "run, or mark the same moment in each");
  }
  const auto around = rough.lag * static_cast<std::ptrdiff_t>(by);
  const auto reach = 2 * static_cast<std::ptrdiff_t>(by) + 1;
  const BestLag fine = bestLag(a, b, around - reach, around + reach, reach);
  const double before = matchAt(a, b, fine.lag - 1);
  const double after = matchAt(a, b, fine.lag + 1);
  const double bend = before - 2.0 * fine.match + after;
  const double part = bend < 0.0 ? 0.5 * (before - after) / bend : 0.0;
  return SoundAlignment{step * (static_cast<double>(fine.lag) + part), peakRatio};
}

}  // namespace fin
