// SPDX-License-Identifier: GPL-3.0-or-later
// How often rigs that are alike are called apart, and how far two must lie apart to be told from each other
// four times in five: by the fit of the day, and by Welch's tests with Holm's step-down, as it was before.
#include <fmt/format.h>

#include <boost/math/distributions/students_t.hpp>
#include <cmath>
#include <functional>
#include <map>
#include <random>

#include "core/comparison/apart/passes_needed.h"
#include "core/comparison/apart/rig_fit.h"
#include "core/comparison/apart/studentised_range.h"
#include "core/comparison/spread.h"

namespace {

using namespace fin;

constexpr int kDays = 4000;
constexpr int kDaysWithLooks = 20000;  ///< good to 0.3 %
constexpr double kLevel = 0.05;

struct Day {
  std::size_t rigs = 8;
  std::size_t passes = 3;
  double mostVariance = 1.0;  ///< of the last rig, of the first's; in between by equal steps
  double block = 0.0;         ///< standard deviation of what a block adds to all of its passes
  double drift = 0.0;         ///< from the first pass to the last, in standard deviations of a pass
  double ahead = 0.0;         ///< of the first rig over the others
};

std::vector<FitValue> draw(const Day& day, std::mt19937_64& random) {
  std::normal_distribution<double> normal;
  std::vector<FitValue> out;
  for (std::size_t b = 0; b < day.passes; ++b) {
    const double ofBlock = day.block * normal(random);
    std::vector<std::size_t> order(day.rigs);
    for (std::size_t i = 0; i < day.rigs; ++i) order[i] = i;
    std::shuffle(order.begin(), order.end(), random);
    for (std::size_t k = 0; k < day.rigs; ++k) {
      const std::size_t rig = order[k];
      const double share = day.rigs < 2 ? 0.0 : static_cast<double>(rig) / static_cast<double>(day.rigs - 1);
      const double sd = std::sqrt(1.0 + share * (day.mostVariance - 1.0));
      const double at = static_cast<double>(b * day.rigs + k) / static_cast<double>(day.rigs * day.passes);
      out.push_back({.rig = rig,
                     .y = (rig == 0 ? day.ahead : 0.0) + ofBlock + day.drift * at + sd * normal(random),
                     .block = static_cast<int>(b)});
    }
  }
  return out;
}

/// Whether two rigs are apart: of all pairs, the first with each other one, or any.
using Told =
    std::function<std::vector<std::pair<std::size_t, std::size_t>>(const std::vector<FitValue>&, const Day&)>;

/// Bounds of the studentised range by twentieths of a degree of freedom: a simulation asks for millions.
double bound(std::size_t rigs, double degrees, double tail) {
  static std::map<std::tuple<std::size_t, long, double>, double> known;
  const long key = std::lround(20.0 * degrees);
  const auto [at, fresh] = known.try_emplace({rigs, key, tail}, 0.0);
  if (fresh) {
    const double nu = std::max(0.05 * static_cast<double>(key), 1.0);
    at->second = rigs == 2 ? boost::math::quantile(boost::math::students_t(nu), 1.0 - tail)
                           : StudentisedRange(rigs).exceededWith(tail, nu) / std::sqrt(2.0);
  }
  return at->second;
}

std::vector<std::pair<std::size_t, std::size_t>> byFit(const std::vector<FitValue>& values, const Day& day,
                                                       double share = 1.0) {
  std::vector<std::pair<std::size_t, std::size_t>> out;
  const auto fit = RigFit::of(values, day.rigs);
  if (!fit) return out;
  for (std::size_t i = 0; i < day.rigs; ++i) {
    for (std::size_t j = i + 1; j < day.rigs; ++j) {
      const FittedPair pair = fit->pair(i, j);
      if (std::abs(pair.t()) > bound(day.rigs, pair.degrees, 0.5 * kLevel * share)) out.emplace_back(i, j);
    }
  }
  return out;
}

std::vector<std::pair<std::size_t, std::size_t>> byWelch(const std::vector<FitValue>& values,
                                                         const Day& day) {
  std::vector<std::pair<std::size_t, std::size_t>> pairs, out;
  std::vector<double> p;
  for (std::size_t i = 0; i < day.rigs; ++i) {
    for (std::size_t j = i + 1; j < day.rigs; ++j) {
      std::vector<FitValue> two;
      for (const FitValue& v : values) {
        if (v.rig == i || v.rig == j) two.push_back({.rig = v.rig == i ? 0UL : 1UL, .y = v.y});
      }
      const FittedPair pair = RigFit::of(two, 2)->pair(0, 1);
      p.push_back(2.0 * boost::math::cdf(boost::math::complement(boost::math::students_t(pair.degrees),
                                                                 std::abs(pair.t()))));
      pairs.emplace_back(i, j);
    }
  }
  const std::vector<double> adjusted = holm(p);
  for (std::size_t k = 0; k < p.size(); ++k) {
    if (adjusted[k] < kLevel) out.push_back(pairs[k]);
  }
  return out;
}

double falseAlarms(const Day& day, const Told& told, int days) {
  std::mt19937_64 random(11);
  int alarms = 0;
  for (int k = 0; k < days; ++k) alarms += told(draw(day, random), day).empty() ? 0 : 1;
  return static_cast<double>(alarms) / days;
}

/// Looking at 3, 4, 6 and 8 passes, each with its share: apart once is apart.
double falseAlarmsWithLooks(Day day, int days) {
  std::mt19937_64 random(12);
  day.passes = kLooks.back().passes;
  int alarms = 0;
  for (int k = 0; k < days; ++k) {
    const std::vector<FitValue> all = draw(day, random);
    bool any = false;
    for (const Look& look : kLooks) {
      const std::vector<FitValue> sofar(all.begin(),
                                        all.begin() + static_cast<std::ptrdiff_t>(look.passes * day.rigs));
      any = any || !byFit(sofar, day, look.share).empty();
    }
    alarms += any ? 1 : 0;
  }
  return static_cast<double>(alarms) / days;
}

/// In standard deviations of a pass; none where twenty are not enough.
std::string smallestTold(Day day, const Told& told, int days) {
  double low = 0.0, high = 60.0;
  const auto enough = [&](double ahead) {
    std::mt19937_64 random(13);
    day.ahead = ahead;
    int seen = 0;
    for (int k = 0; k < days; ++k) {
      for (const auto& [i, j] : told(draw(day, random), day)) seen += i == 0 && j == 1 ? 1 : 0;
    }
    return seen >= 0.8 * days;
  };
  if (!enough(high)) return "never";
  while (high - low > 0.05) (enough(0.5 * (low + high)) ? high : low) = 0.5 * (low + high);
  return fmt::format("{:.1f}", high);
}

}  // namespace

int main() {
  const Told fit = [](const auto& values, const Day& day) { return byFit(values, day); };
  const Told welch = [](const auto& values, const Day& day) { return byWelch(values, day); };
  fmt::print("Rigs that are alike, called apart (wanted: 5 % at most), {} days each\n", kDays);
  fmt::print("{:>5} {:>7} {:>10} {:>12} {:>14} {:>14} {:>14}\n", "rigs", "passes", "alike", "variance 4:1",
             "blocks, 3 sd", "drift, 5 sd", "four looks");
  for (const std::size_t rigs : {3UL, 4UL, 8UL, 10UL}) {
    for (const std::size_t passes : {2UL, 3UL, 4UL}) {
      const auto rate = [&](Day day) {
        day.rigs = rigs;
        day.passes = passes;
        return 100.0 * falseAlarms(day, fit, kDays);
      };
      Day looked;
      looked.rigs = rigs;
      fmt::print(
          "{:>5} {:>7} {:>8.1f} % {:>10.1f} % {:>12.1f} % {:>12.1f} % {:>14}\n", rigs, passes, rate({}),
          rate({.mostVariance = 4.0}), rate({.block = 3.0}), rate({.drift = 5.0}),
          passes == 3 ? fmt::format("{:.1f} %", 100.0 * falseAlarmsWithLooks(looked, kDaysWithLooks)) : "");
    }
  }
  fmt::print("\nSmallest difference told with 80 %, in standard deviations of a pass: before, now\n");
  for (const std::size_t rigs : {4UL, 8UL}) {
    for (const std::size_t passes : {2UL, 3UL, 4UL}) {
      const Day day{.rigs = rigs, .passes = passes};
      fmt::print("{:>5} {:>7} {:>10} {:>10}\n", rigs, passes, smallestTold(day, welch, 400),
                 smallestTold(day, fit, 1500));
    }
  }
}
