// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/rhythm.h"

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/signals/periodogram.h"
#include "core/signals/running_mean.h"

namespace fin {
namespace {

constexpr double kHumpBelow = 0.70;  ///< a hump reaches from here to there, of its own frequency
constexpr double kHumpAbove = 1.40;
constexpr std::size_t kHumpsTried = 6;
constexpr double kHumpsApart = 1.2;
constexpr int kHarmonicsCounted = 3;
constexpr double kSearchBelow = 0.6;  ///< of the hump's frequency, for the finish

/// Power of a spectrum between two frequencies, as the sum over its grid.
double powerBetween(const Spectrum& s, double from_Hz, double to_Hz) {
  double sum = 0.0;
  for (std::size_t i = 0; i < s.frequency_Hz.size(); ++i) {
    if (s.frequency_Hz[i] >= from_Hz && s.frequency_Hz[i] < to_Hz) sum += s.power[i];
  }
  return sum;
}

/// The middles of the strongest humps, no two closer than a fifth.
std::vector<double> humps(const Spectrum& spectrum) {
  std::vector<double> out;
  for (std::size_t peak : spectrumPeaks(spectrum, spectrum.power.size())) {
    const double f = spectrum.frequency_Hz[peak];
    const bool fresh = std::none_of(out.begin(), out.end(), [f](double known) {
      return std::max(f, known) < kHumpsApart * std::min(f, known);
    });
    if (fresh) out.push_back(f);
    if (out.size() == kHumpsTried) break;
  }
  return out;
}

/// Share of a trace, freed of its mean over one cycle of f, that lies in the humps at f and its harmonics.
double shareOf(const Series& trace, double f, double lowest_Hz, double highest_Hz) {
  const Spectrum s = periodogram(withoutRunningMean(trace, 1.0 / f), lowest_Hz, highest_Hz, 3.0);
  const double all = powerBetween(s, 0.0, highest_Hz);
  if (all <= 0.0) return 0.0;
  double held = 0.0;
  double upTo = 0.0;
  for (int h = 1; h <= kHarmonicsCounted; ++h) {
    const double from = std::max(kHumpBelow * f * h, upTo);
    const double to = h == 1 ? kHumpAbove * f : (h + 0.3) * f;
    held += powerBetween(s, from, to);
    upTo = to;
  }
  return held / all;
}

std::optional<double> strongestHump(const Series& trace, double lowest_Hz, double highest_Hz) {
  const Spectrum spectrum =
      periodogram(withoutRunningMean(trace, trace.span_s()), lowest_Hz, highest_Hz, 3.0);
  std::optional<double> best;
  double bestShare = 0.0;
  for (double f : humps(spectrum)) {
    const double share = shareOf(trace, f, lowest_Hz, highest_Hz);
    if (share > bestShare) {
      bestShare = share;
      best = f;
    }
  }
  return best;
}

}  // namespace

Result<Rhythm> findRhythm(const Series& trace, double lowest_Hz, double highest_Hz) {
  if (trace.size() < 8 || trace.span_s() <= 0.0 || lowest_Hz >= highest_Hz) {
    return failure(ErrorCode::Unsupported, "too few frames for a rhythm");
  }
  const auto hump = strongestHump(trace, lowest_Hz, highest_Hz);
  if (!hump) return failure(ErrorCode::Unsupported, "no rhythm lies within the measurable range");
  Rhythm rhythm;
  PeriodicFitOptions options;
  options.lowest_Hz = std::max(lowest_Hz, kSearchBelow * *hump);
  options.highest_Hz = highest_Hz;
  double period_s = 1.0 / *hump;
  for (int round = 0; round < 2; ++round) {
    rhythm.detrended = withoutRunningMean(trace, period_s);
    const auto fit = fitPeriodic(rhythm.detrended, options);
    if (!fit) return tl::unexpected(fit.error());
    rhythm.fit = *fit;
    period_s = 1.0 / fit->frequency_Hz;
  }
  rhythm.detrended = withoutRunningMean(trace, period_s);
  rhythm.cycles = wholeCycles(rhythm.detrended, rhythm.fit);
  return rhythm;
}

}  // namespace fin
