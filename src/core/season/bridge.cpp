// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/bridge.h"

#include <algorithm>
#include <boost/math/distributions/fisher_f.hpp>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>

#include "core/comparison/spread.h"

namespace fin {
namespace {

namespace bm = boost::math;

constexpr std::size_t kFewest = 2;

/// A mean, and what it scatters by.
struct Sample {
  double n = 0.0;
  double mean = 0.0;
  double variance = 0.0;  ///< of one value

  [[nodiscard]] double ofMean() const { return variance / n; }
};
Sample sampleOf(std::vector<double> values, bool byRatio) {
  if (byRatio) {
    for (double& v : values) v = std::log(v);
  }
  const auto scatter = pooledScatter({values});
  const double sd = scatter ? scatter->sd : 0.0;
  return {static_cast<double>(values.size()), meanOf(values), sd * sd};
}

bool above(const std::vector<double>& values) {
  return std::all_of(values.begin(), values.end(), [](double v) { return v > 0.0; });
}
bool byRatio(const std::vector<const BridgedDay*>& days, Scaling scaling) {
  return scaling == Scaling::Ratio && std::all_of(days.begin(), days.end(), [](const BridgedDay* day) {
           return above(day->rig) && above(day->control);
         });
}

std::optional<History::Test> welchOver(const std::vector<Sample>& samples) {
  const auto k = static_cast<double>(samples.size());
  if (samples.size() < 2) return std::nullopt;
  double weights = 0.0, mean = 0.0;
  for (const Sample& s : samples) {
    if (!(s.variance > 0.0)) return std::nullopt;
    weights += 1.0 / s.ofMean();
    mean += s.mean / s.ofMean();
  }
  mean /= weights;
  double between = 0.0, unsure = 0.0;
  for (const Sample& s : samples) {
    const double weight = 1.0 / s.ofMean();
    between += weight * (s.mean - mean) * (s.mean - mean) / (k - 1.0);
    unsure += std::pow(1.0 - weight / weights, 2) / (s.n - 1.0);
  }
  History::Test out{.df1 = k - 1.0, .df2 = (k * k - 1.0) / (3.0 * unsure)};
  out.f = between / (1.0 + 2.0 * (k - 2.0) / (k * k - 1.0) * unsure);
  out.p = bm::cdf(bm::complement(bm::fisher_f(out.df1, out.df2), out.f));
  return out;
}

}  // namespace

Result<DayChange> changeBetween(const BridgedDay& first, const BridgedDay& second, Scaling scaling) {
  if (first.rig.size() < kFewest || second.rig.size() < kFewest)
    return failure(ErrorCode::BadRequest, "a day has fewer than two passes of it");
  DayChange out{.byRatio = byRatio({&first, &second}, scaling)};
  out.bridged = first.control.size() >= kFewest && second.control.size() >= kFewest;
  std::vector<std::pair<double, Sample>> samples{{1.0, sampleOf(second.rig, out.byRatio)},
                                                 {-1.0, sampleOf(first.rig, out.byRatio)}};
  if (out.bridged) {
    samples.emplace_back(-1.0, sampleOf(second.control, out.byRatio));
    samples.emplace_back(1.0, sampleOf(first.control, out.byRatio));
  }
  double change = 0.0, variance = 0.0, unsure = 0.0;
  for (const auto& [sign, sample] : samples) {
    change += sign * sample.mean;
    variance += sample.ofMean();
    unsure += sample.ofMean() * sample.ofMean() / (sample.n - 1.0);
  }
  if (!(variance > 0.0)) return failure(ErrorCode::BadRequest, "its passes do not scatter at all");
  const bm::students_t t(variance * variance / unsure);
  const double half = bm::quantile(t, 0.975) * std::sqrt(variance);
  const auto told = [&out](double d) { return out.byRatio ? std::expm1(d) : d; };
  out.change = told(change);
  out.from = told(change - half);
  out.to = told(change + half);
  out.p = 2.0 * bm::cdf(bm::complement(t, std::abs(change) / std::sqrt(variance)));
  return out;
}

History historyOf(const std::vector<BridgedDay>& days, Scaling scaling) {
  std::vector<const BridgedDay*> all;
  for (const BridgedDay& day : days) all.push_back(&day);
  const bool ratio = byRatio(all, scaling);
  History out;
  std::vector<Sample> samples;
  for (const BridgedDay& day : days) {
    const Sample sample = day.rig.empty() ? Sample{} : sampleOf(day.rig, ratio);
    out.days.push_back({ratio && !day.rig.empty() ? std::exp(sample.mean) : sample.mean, day.rig.size()});
    if (day.rig.size() >= kFewest) samples.push_back(sample);
  }
  out.test = welchOver(samples);
  std::vector<double> p;
  for (std::size_t a = 0; a < days.size(); ++a) {
    for (std::size_t b = a + 1; b < days.size(); ++b) {
      const auto change = changeBetween(days[a], days[b], scaling);
      if (!change) continue;
      out.pairs.push_back({a, b, *change});
      p.push_back(change->p);
    }
  }
  const std::vector<double> adjusted = holm(p);
  for (std::size_t k = 0; k < out.pairs.size(); ++k) out.pairs[k].change.p = adjusted[k];
  return out;
}

}  // namespace fin
