// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/spread.h"

#include <algorithm>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>
#include <map>
#include <numeric>

#include "core/comparison/apart/letters.h"
#include "core/comparison/apart/on_scale.h"
#include "core/comparison/apart/passes_needed.h"
#include "core/comparison/apart/studentised_range.h"
#include "core/units/estimate.h"

namespace fin {
namespace {

namespace bm = boost::math;

constexpr double kLevel = 0.05;
constexpr double kTail = 0.5 * kLevel;
constexpr std::size_t kMostFurther = 100;

double tExceededWith(double chance, double degrees) {
  return bm::quantile(bm::complement(bm::students_t(degrees), chance));
}

/// The square of what a weighted sum of values is unsure by through known lengths that they share, as a
/// half-width.
double sharedSquare(const OnScale& values, const std::vector<double>& weights) {
  std::map<std::string, double> byDay;
  for (std::size_t k = 0; k < weights.size(); ++k)
    byDay[values.cameraDays[k]] += weights[k] * values.shared[k];
  double out = 0.0;
  for (const auto& [day, sum] : byDay) out += sum * sum;
  return out;
}

/// A rig by itself: Student's t over its passes, together with the smallest half-width of its single values;
/// with one pass that pass's own.
RigMean byItself(const ComparedRig& rig) {
  RigMean out{.rig = rig.rig, .passes = rig.values.size()};
  std::vector<double> values;
  double shared = rig.values.front().u95, own = 0.0;
  for (const ComparedValue& v : rig.values) {
    values.push_back(v.value);
    shared = std::min(shared, v.u95);
    own += v.u95 * v.u95 / (kNormal95 * kNormal95);
  }
  out.mean = meanOf(values);
  double u95 = shared;
  if (const auto scatter = pooledScatter({values})) {
    const auto n = static_cast<double>(values.size());
    const double variance = std::max(scatter->sd * scatter->sd, own / n);
    u95 = std::hypot(tExceededWith(kTail, n - 1.0) * std::sqrt(variance / n), shared);
  }
  out.from = out.mean - u95;
  out.to = out.mean + u95;
  return out;
}

/// All that is said of a day's rigs by one fit.
class Comparison {
 public:
  Comparison(const std::vector<const ComparedRig*>& rigs, const OnScale& values, const RigFit& fit,
             const CompareOptions& options, double worth)
      : rigs_(rigs),
        values_(values),
        fit_(fit),
        tail_(kTail * options.share),
        worth_(worth),
        needed_(rigs.size()) {
    if (rigs.size() > 2) {
      range_.emplace(rigs.size());
      bound_.emplace(*range_, tail_);
    }
    // Beforehand by the level of all looks together; at a look by what it may spend.
    order_.resize(rigs.size());
    std::iota(order_.begin(), order_.end(), std::size_t{0});
    std::stable_sort(order_.begin(), order_.end(),
                     [&](std::size_t i, std::size_t j) { return fit.mean(i) > fit.mean(j); });
    for (std::size_t a = 0; a < order_.size(); ++a) {
      for (std::size_t b = a + 1; b < order_.size(); ++b) {
        if (fit.joined(order_[a], order_[b])) addPair(a, b, options);
      }
    }
  }

  [[nodiscard]] Spread spread() {
    Spread out{.pairs = std::move(pairs_), .scaling = values_.scaling, .adjusted = fit_.adjusted()};
    for (const std::size_t i : order_) out.rigs.push_back(meanOf(i));
    std::vector<std::pair<std::size_t, std::size_t>> apart;
    for (std::size_t k = 0; k < out.rigs.size(); ++k) out.rigs[k].placeTo = out.rigs.size();
    for (const RigPair& pair : out.pairs) {
      if (!pair.apart) continue;
      apart.emplace_back(pair.a, pair.b);
      ++out.rigs[pair.b].placeFrom;
      --out.rigs[pair.a].placeTo;
    }
    for (const auto& [above, below] : notMost_) {
      out.rigs[below].mayBeMost = false;
      out.rigs[above].mayBeLeast = false;
    }
    const auto letters = lettersFor(out.rigs.size(), apart);
    for (std::size_t k = 0; k < out.rigs.size(); ++k) out.rigs[k].letters = letters[k];
    return out;
  }

 private:
  [[nodiscard]] bool two() const { return rigs_.size() == 2; }

  RigMean meanOf(std::size_t i) const {
    const double t = tExceededWith(kTail, fit_.degreesOf(i) > 0.0 ? fit_.degreesOf(i) : fit_.degrees());
    const double shared = sharedSquare(values_, fit_.weights(i));
    const double half = std::sqrt(t * t * fit_.covariance(i, i) + shared);
    RigMean out{.rig = rigs_[i]->rig,
                .passes = rigs_[i]->values.size(),
                .mean = values_.back(fit_.mean(i)),
                .from = values_.back(fit_.mean(i) - half),
                .to = values_.back(fit_.mean(i) + half)};
    if (half > 0.0 && values_.oneCameraDay())
      out.lengthU95 = std::copysign(out.u95() * std::sqrt(shared) / half, values_.lengths);
    return out;
  }

  /// Of a pair, by how many standard errors it must differ.
  [[nodiscard]] double bound(double degrees) {
    return two() ? tExceededWith(tail_, degrees) : (*bound_)(degrees) / std::sqrt(2.0);
  }
  [[nodiscard]] double chance(double t, double degrees) const {
    const double one = two() ? bm::cdf(bm::complement(bm::students_t(degrees), t))
                             : range_->chance(std::sqrt(2.0) * t, degrees);
    return std::min(1.0, 2.0 * one * kTail / tail_);
  }

  void addPair(std::size_t a, std::size_t b, const CompareOptions& options) {
    const std::size_t i = order_[a], j = order_[b];
    const FittedPair fitted = fit_.pair(i, j);
    std::vector<double> contrast = fit_.weights(i);
    for (std::size_t k = 0; k < contrast.size(); ++k) contrast[k] -= fit_.weights(j)[k];
    const double q = bound(fitted.degrees);
    const double half = std::sqrt(q * q * fitted.variance + sharedSquare(values_, contrast));
    const double d = fitted.difference;
    RigPair pair{.a = a,
                 .b = b,
                 .difference = values_.told(d),
                 .from = values_.told(d - half),
                 .to = values_.told(d + half),
                 .p = chance(std::abs(d) * q / half, fitted.degrees),
                 .alikeWithin = values_.told(std::abs(d) + half)};
    pair.apart = pair.p < kLevel;
    pair.alike = pair.alikeWithin < worth_;
    // Against the best alone: fewer are in the way than where all are compared with all.
    const double others = static_cast<double>(rigs_.size() - 1);
    const double out = two() ? q : tExceededWith(1.0 - std::pow(1.0 - tail_, 1.0 / others), fitted.degrees);
    if (std::abs(d) * q / half > out) notMost_.emplace_back(a, b);
    if (options.furtherPasses && !pair.apart && !pair.alike)
      pair.morePasses = further(i, j, worth_ > 0.0 ? values_.untold(worth_) : d);
    pairs_.push_back(pair);
  }

  [[nodiscard]] std::optional<std::size_t> further(std::size_t i, std::size_t j, double d) {
    const std::size_t have = std::min(rigs_[i]->values.size(), rigs_[j]->values.size());
    const double sd = std::sqrt(0.5 * (fit_.varianceOf(i) + fit_.varianceOf(j)));
    const auto needed = needed_(d / sd, have + kMostFurther);
    if (!needed) return std::nullopt;
    return std::max(*needed, have + 1) - have;
  }

  const std::vector<const ComparedRig*>& rigs_;
  const OnScale& values_;
  const RigFit& fit_;
  double tail_;
  double worth_;  ///< having; 0 where it was not said
  PassesNeeded needed_;
  std::optional<StudentisedRange> range_;  ///< of more than two
  std::optional<RangeBound> bound_;
  std::vector<std::size_t> order_;  ///< by falling mean
  std::vector<RigPair> pairs_;
  std::vector<std::pair<std::size_t, std::size_t>> notMost_;  ///< the first lies above the second
};

}  // namespace

double meanOf(const std::vector<double>& values) {
  return std::accumulate(values.begin(), values.end(), 0.0) / static_cast<double>(values.size());
}

std::optional<PooledScatter> pooledScatter(const std::vector<std::vector<double>>& groups) {
  double squares = 0.0;
  PooledScatter out;
  for (const std::vector<double>& group : groups) {
    if (group.size() < 2) continue;
    const double mean = meanOf(group);
    for (const double v : group) squares += (v - mean) * (v - mean);
    out.degrees += static_cast<double>(group.size() - 1);
  }
  if (out.degrees < 1.0) return std::nullopt;
  out.sd = std::sqrt(squares / out.degrees);
  return out;
}

std::vector<double> holm(const std::vector<double>& p) {
  std::vector<std::size_t> order(p.size());
  std::iota(order.begin(), order.end(), std::size_t{0});
  std::sort(order.begin(), order.end(), [&](std::size_t i, std::size_t j) { return p[i] < p[j]; });
  std::vector<double> out(p.size());
  double largest = 0.0;
  for (std::size_t k = 0; k < order.size(); ++k) {
    largest = std::max(largest, std::min(1.0, static_cast<double>(p.size() - k) * p[order[k]]));
    out[order[k]] = largest;
  }
  return out;
}

Spread compare(const std::vector<ComparedRig>& rigs, ReadingId reading, const CompareOptions& options) {
  return compare(rigs, HowCompared{scalingOf(reading), stepOf(reading), lengthsIn(reading)}, options);
}

Spread compare(const std::vector<ComparedRig>& rigs, const HowCompared& how, const CompareOptions& options) {
  std::vector<const ComparedRig*> having;
  for (const ComparedRig& rig : rigs) {
    if (!rig.values.empty()) having.push_back(&rig);
  }
  const OnScale values = onScale(having, how.scaling, how.lengths);
  const auto fit = RigFit::of(values.values, having.size(), how.step);
  const double worth = values.scaling == how.scaling ? options.worth.value_or(0.0) : 0.0;
  Spread out;
  if (fit) {
    out = Comparison(having, values, *fit, options, worth).spread();
  } else {
    for (const ComparedRig* rig : having) out.rigs.push_back(byItself(*rig));
    std::stable_sort(out.rigs.begin(), out.rigs.end(),
                     [](const RigMean& a, const RigMean& b) { return a.mean > b.mean; });
    for (RigMean& rig : out.rigs) rig.placeTo = out.rigs.size();
    out.scaling = values.scaling;
    out.whyNoPairs = fit.error().message;
  }
  out.notByRatio = how.scaling == Scaling::Ratio && values.scaling != Scaling::Ratio;
  return out;
}

}  // namespace fin
