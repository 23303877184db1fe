// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/agreement.h"

#include <algorithm>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>
#include <map>
#include <numeric>
#include <random>

#include "core/comparison/points.h"
#include "core/readings/scaling.h"

namespace fin {
namespace {

constexpr std::size_t kFewestPairs = 3;
constexpr std::size_t kMostExact = 8;  ///< 40320 orders
constexpr unsigned kOrdersDrawn = 10000;
constexpr double kEqual = 1e-9;  ///< of correlations: sums in another order

double product(const std::vector<double>& a, const std::vector<double>& b) {
  return std::inner_product(a.begin(), a.end(), b.begin(), 0.0);
}
std::vector<double> aboutMean(std::vector<double> values) {
  const double mean = meanOf(values);
  for (double& v : values) v -= mean;
  return values;
}

struct Moments {
  double meanX = 0.0, meanY = 0.0, xx = 0.0, yy = 0.0, xy = 0.0;
};
Moments momentsOf(const std::vector<ReadTwice>& pairs) {
  Moments out;
  const auto n = static_cast<double>(pairs.size());
  for (const ReadTwice& p : pairs) {
    out.meanX += p.x / n;
    out.meanY += p.y / n;
  }
  for (const ReadTwice& p : pairs) {
    out.xx += (p.x - out.meanX) * (p.x - out.meanX) / n;
    out.yy += (p.y - out.meanY) * (p.y - out.meanY) / n;
    out.xy += (p.x - out.meanX) * (p.y - out.meanY) / n;
  }
  return out;
}

}  // namespace

std::optional<Agreement> agreementOf(const std::vector<ReadTwice>& pairs, bool byRatio) {
  if (pairs.size() < kFewestPairs) return std::nullopt;
  byRatio &=
      std::all_of(pairs.begin(), pairs.end(), [](const ReadTwice& p) { return p.x > 0.0 && p.y > 0.0; });
  std::vector<double> differences;
  for (const ReadTwice& p : pairs) differences.push_back(byRatio ? std::log(p.x / p.y) : p.x - p.y);
  const auto n = static_cast<double>(pairs.size());
  const double sd = pooledScatter({differences})->sd;
  const double t = boost::math::quantile(boost::math::students_t(n - 1.0), 0.975);
  const double half = t * sd * std::sqrt(1.0 + 1.0 / n);
  const double mean = meanOf(differences);
  const auto told = [byRatio](double d) { return byRatio ? std::expm1(d) : d; };
  const Moments m = momentsOf(pairs);
  const double apart = m.xx + m.yy + (m.meanX - m.meanY) * (m.meanX - m.meanY);
  const auto within = std::count_if(pairs.begin(), pairs.end(), [](const ReadTwice& p) {
    return std::abs(p.x - p.y) <= std::hypot(p.xU95, p.yU95);
  });
  return Agreement{.n = pairs.size(),
                   .byRatio = byRatio,
                   .mean = told(mean),
                   .from = told(mean - half),
                   .to = told(mean + half),
                   .concordance = apart > 0.0 ? 2.0 * m.xy / apart : 1.0,
                   .within = static_cast<std::size_t>(within)};
}

std::vector<CamerasAgree> camerasAgree(const std::vector<ComparedPass>& passes, ReadingId reading) {
  using Read = std::map<PlannedPassId, std::pair<double, double>>;  // value and its u95
  std::map<std::string, Read> byCamera;
  for (const ComparedPass& pass : passes) {
    const auto number = numberIn(pass.readings, reading);
    if (!pass.planned || !number) continue;
    byCamera[pass.camera].try_emplace(*pass.planned, *number, pass.readings.find(reading)->u95.value_or(0.0));
  }
  std::vector<std::pair<std::string, Read>> cameras(byCamera.begin(), byCamera.end());
  std::stable_sort(cameras.begin(), cameras.end(),
                   [](const auto& a, const auto& b) { return a.second.size() > b.second.size(); });
  std::vector<CamerasAgree> out;
  for (std::size_t a = 0; a < cameras.size(); ++a) {
    for (std::size_t b = a + 1; b < cameras.size(); ++b) {
      std::vector<ReadTwice> pairs;
      for (const auto& [planned, first] : cameras[a].second) {
        const auto second = cameras[b].second.find(planned);
        if (second == cameras[b].second.end()) continue;
        pairs.push_back({first.first, second->second.first, first.second, second->second.second});
      }
      if (const auto agreement = agreementOf(pairs, scalingOf(reading) == Scaling::Ratio))
        out.push_back({cameras[a].first, cameras[b].first, *agreement});
    }
  }
  return out;
}

std::optional<RankAgreement> rankAgreement(const std::vector<double>& x, const std::vector<double>& y) {
  if (x.size() < kFewestPairs) return std::nullopt;
  const std::vector<double> places = aboutMean(placesOf(x));
  std::vector<double> others = aboutMean(placesOf(y));
  const double whole = std::sqrt(product(places, places) * product(others, others));
  if (!(whole > 0.0)) return std::nullopt;
  RankAgreement out{.correlation = product(places, others) / whole};
  const auto isAsStrong = [&] {
    return std::abs(product(places, others)) / whole >= std::abs(out.correlation) - kEqual;
  };
  double hits = 0.0, orders = 0.0;
  if (x.size() <= kMostExact) {
    std::vector<std::size_t> order(x.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    const std::vector<double> given = others;
    do {
      for (std::size_t i = 0; i < order.size(); ++i) others[i] = given[order[i]];
      hits += isAsStrong() ? 1.0 : 0.0;
      orders += 1.0;
    } while (std::next_permutation(order.begin(), order.end()));
  } else {
    std::mt19937 random(1);
    hits = orders = 1.0;
    for (unsigned k = 0; k < kOrdersDrawn; ++k) {
      std::shuffle(others.begin(), others.end(), random);
      hits += isAsStrong() ? 1.0 : 0.0;
      orders += 1.0;
    }
  }
  out.p = hits / orders;
  return out;
}

}  // namespace fin
