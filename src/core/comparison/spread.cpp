// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/spread.h"

#include <algorithm>
#include <boost/math/distributions/non_central_t.hpp>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>
#include <numeric>
#include <set>

#include "core/units/estimate.h"

namespace fin {
namespace {

namespace bm = boost::math;

constexpr double kLevel = 0.05;
constexpr double kPower = 0.8;
constexpr std::size_t kMostFurther = 100;

/// Of single values; no less than what they themselves are unsure by.
double varianceOf(const RigValues& rig) {
  const double mean = meanOf(rig.values);
  double sum = 0.0;
  for (const double v : rig.values) sum += (v - mean) * (v - mean);
  double own = 0.0;
  for (const double u : rig.u95) own += u * u / (kNormal95 * kNormal95);
  own /= static_cast<double>(std::max<std::size_t>(rig.u95.size(), 1));
  return std::max(sum / static_cast<double>(rig.values.size() - 1), own);
}

double intervalOf(const RigValues& rig) {
  const double shared = rig.u95.empty() ? 0.0 : *std::min_element(rig.u95.begin(), rig.u95.end());
  const auto n = static_cast<double>(rig.values.size());
  if (rig.values.size() < 2) return shared;
  const double t = bm::quantile(bm::students_t(n - 1.0), 1.0 - 0.5 * kLevel);
  return std::hypot(t * std::sqrt(varianceOf(rig) / n), shared);
}

/// Groups of which each is told apart from no member, by insertion and absorption.
std::vector<std::set<std::size_t>> groupsOf(std::size_t count,
                                            const std::vector<std::pair<std::size_t, std::size_t>>& apart) {
  std::set<std::size_t> all;
  for (std::size_t i = 0; i < count; ++i) all.insert(i);
  std::vector<std::set<std::size_t>> groups{all};
  for (const auto& [a, b] : apart) {
    std::vector<std::set<std::size_t>> next;
    for (const auto& group : groups) {
      if (!group.contains(a) || !group.contains(b)) {
        next.push_back(group);
        continue;
      }
      for (const std::size_t out : {a, b}) {
        next.push_back(group);
        next.back().erase(out);
      }
    }
    groups.clear();
    for (std::size_t i = 0; i < next.size(); ++i) {
      const bool absorbed = [&] {
        for (std::size_t j = 0; j < next.size(); ++j) {
          const bool within = std::includes(next[j].begin(), next[j].end(), next[i].begin(), next[i].end());
          if (i != j && within && (next[i] != next[j] || j < i)) return true;
        }
        return false;
      }();
      if (!absorbed) groups.push_back(next[i]);
    }
  }
  std::sort(groups.begin(), groups.end());
  return groups;
}

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

Welch welch(double meanA, double varianceA, double nA, double meanB, double varianceB, double nB) {
  const double a = varianceA / nA;
  const double b = varianceB / nB;
  const double difference = meanA - meanB;
  if (!(a + b > 0.0)) return {0.0, nA + nB - 2.0, difference == 0.0 ? 1.0 : 0.0};
  Welch out;
  out.t = difference / std::sqrt(a + b);
  out.degrees = (a + b) * (a + b) / (a * a / (nA - 1.0) + b * b / (nB - 1.0));
  out.p = 2.0 * bm::cdf(bm::complement(bm::students_t(out.degrees), std::abs(out.t)));
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

std::optional<std::size_t> passesNeeded(double difference, double variance, double level, std::size_t most) {
  if (difference == 0.0) return std::nullopt;
  if (!(variance > 0.0)) return 2;
  const double size = std::abs(difference) / std::sqrt(variance);
  const auto enough = [size, level](std::size_t n) {
    const auto each = static_cast<double>(n);
    const double degrees = 2.0 * each - 2.0;
    const double bound = bm::quantile(bm::students_t(degrees), 1.0 - 0.5 * level);
    const double away = size * std::sqrt(0.5 * each);
    // Where it lies far out, the power is one and the series for it are not needed.
    return away > 12.0 + bound || bm::cdf(bm::complement(bm::non_central_t(degrees, away), bound)) >= kPower;
  };
  if (most < 2 || !enough(most)) return std::nullopt;
  // More passes never tell less, so halving finds the least.
  std::size_t least = 2;
  while (least < most) {
    const std::size_t middle = least + (most - least) / 2;
    if (enough(middle)) {
      most = middle;
    } else {
      least = middle + 1;
    }
  }
  return least;
}

std::vector<std::string> lettersFor(std::size_t count,
                                    const std::vector<std::pair<std::size_t, std::size_t>>& apart) {
  std::vector<std::string> out(count);
  char letter = 'a';
  for (const auto& group : groupsOf(count, apart)) {
    for (const std::size_t i : group) out[i] += letter;
    ++letter;
  }
  return out;
}

Spread compare(const std::vector<RigValues>& rigs, FurtherPasses further) {
  std::vector<const RigValues*> order;
  for (const RigValues& rig : rigs) {
    if (!rig.values.empty()) order.push_back(&rig);
  }
  std::stable_sort(order.begin(), order.end(), [](const RigValues* a, const RigValues* b) {
    return meanOf(a->values) > meanOf(b->values);
  });
  Spread out;
  std::vector<std::size_t> tested;
  for (const RigValues* rig : order) {
    if (rig->values.size() >= 2) tested.push_back(out.rigs.size());
    if (rig->values.size() < 2) out.untested.push_back(rig->rig);
    out.rigs.push_back({rig->rig, rig->values.size(), meanOf(rig->values), intervalOf(*rig), {}});
  }
  std::vector<double> p;
  for (std::size_t i = 0; i < tested.size(); ++i) {
    for (std::size_t j = i + 1; j < tested.size(); ++j) {
      const RigValues& a = *order[tested[i]];
      const RigValues& b = *order[tested[j]];
      const RigMean& meanA = out.rigs[tested[i]];
      const RigMean& meanB = out.rigs[tested[j]];
      p.push_back(welch(meanA.mean, varianceOf(a), static_cast<double>(meanA.passes), meanB.mean,
                        varianceOf(b), static_cast<double>(meanB.passes))
                      .p);
      out.pairs.push_back({tested[i], tested[j], meanA.mean - meanB.mean, 1.0, false, {}});
    }
  }
  const std::vector<double> adjusted = holm(p);
  for (std::size_t k = 0; k < out.pairs.size(); ++k) {
    RigPair& pair = out.pairs[k];
    pair.p = adjusted[k];
    pair.apart = pair.p < kLevel;
    if (pair.apart || further == FurtherPasses::NotAsked) continue;
    const double variance = 0.5 * (varianceOf(*order[pair.a]) + varianceOf(*order[pair.b]));
    const std::size_t have = std::min(out.rigs[pair.a].passes, out.rigs[pair.b].passes);
    const double level = kLevel / static_cast<double>(out.pairs.size());
    if (const auto needed = passesNeeded(pair.difference, variance, level, have + kMostFurther))
      pair.morePasses = std::max<std::size_t>(*needed, have + 1) - have;
  }
  std::vector<std::pair<std::size_t, std::size_t>> apart;  // by place in `tested`
  const auto place = [&](std::size_t rig) {
    return static_cast<std::size_t>(std::find(tested.begin(), tested.end(), rig) - tested.begin());
  };
  for (const RigPair& pair : out.pairs) {
    if (pair.apart) apart.emplace_back(place(pair.a), place(pair.b));
  }
  const std::vector<std::string> letters = lettersFor(tested.size(), apart);
  for (std::size_t i = 0; i < tested.size(); ++i) out.rigs[tested[i]].letters = letters[i];
  return out;
}

}  // namespace fin
