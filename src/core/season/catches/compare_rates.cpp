// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/catches/compare_rates.h"

#include <fmt/format.h>

#include <algorithm>
#include <boost/math/distributions/binomial.hpp>
#include <boost/math/distributions/poisson.hpp>
#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>
#include <limits>
#include <numeric>
#include <random>

namespace fin {
namespace {

namespace bm = boost::math;

constexpr double kTail = 0.025;
constexpr double kLevel = 0.05;
constexpr double kWantedPower = 0.8;
constexpr double kHalfHour = 0.5;
constexpr double kMostHours = 500.0;
constexpr double kCoarse_h = 8.0;
constexpr double kRipples = 0.04;         ///< of the power, as hours go up by half ones
constexpr double kAsLikely = 1.0 + 1e-9;  ///< so that equal chances count as equal
constexpr double kEndless = std::numeric_limits<double>::infinity();
constexpr double kMostLogRatio = 40.0;
constexpr std::size_t kMostOrders = 8;  ///< rigs of which all orders are looked at
constexpr std::size_t kDraws = 10000;

/// Chances of 0, 1, … of the fish for the first rig.
using Chances = std::vector<double>;

Chances binomial(std::size_t n, double share) {
  Chances out;
  const bm::binomial one(static_cast<double>(n), share);
  for (std::size_t k = 0; k <= n; ++k) out.push_back(bm::pdf(one, static_cast<double>(k)));
  return out;
}

Chances convolved(const Chances& a, const Chances& b) {
  Chances out(a.size() + b.size() - 1, 0.0);
  for (std::size_t i = 0; i < a.size(); ++i) {
    for (std::size_t k = 0; k < b.size(); ++k) out[i + k] += a[i] * b[k];
  }
  return out;
}

/// Two-sided: all that is no likelier than what came.
double noLikelier(const Chances& chances, std::size_t came) {
  double p = 0.0;
  for (const double chance : chances) {
    if (chance <= chances[came] * kAsLikely) p += chance;
  }
  return std::min(1.0, p);
}

/// Of the blocks, where the first rig's rate is `ratio` times the second's.
Chances chancesFor(const std::vector<EffortBlock>& blocks, double ratio) {
  Chances out{1.0};
  for (const EffortBlock& block : blocks) {
    const double share = ratio * block.hoursFirst / (ratio * block.hoursFirst + block.hoursSecond);
    out = convolved(out, binomial(block.first + block.second, share));
  }
  return out;
}

double meanOfChances(const Chances& chances) {
  double out = 0.0;
  for (std::size_t k = 0; k < chances.size(); ++k) out += static_cast<double>(k) * chances[k];
  return out;
}

/// The ratio at which a falling or rising function of its logarithm is nought.
template <class Function>
double ratioWhere(const Function& f) {
  std::uintmax_t steps = 300;
  const auto [low, high] =
      bm::tools::toms748_solve([&](double logRatio) { return f(std::exp(logRatio)); }, -kMostLogRatio,
                               kMostLogRatio, bm::tools::eps_tolerance<double>(48), steps);
  return std::exp(0.5 * (low + high));
}

/// Middles of places, equals sharing.
std::vector<double> ranksOf(const std::vector<double>& values) {
  std::vector<double> out;
  for (const double v : values) {
    double below = 0.0, equal = 0.0;
    for (const double other : values) {
      below += other < v ? 1.0 : 0.0;
      equal += other == v ? 1.0 : 0.0;
    }
    out.push_back(below + 0.5 * (equal + 1.0));
  }
  return out;
}

std::optional<double> correlation(const std::vector<double>& a, const std::vector<double>& b) {
  const auto n = static_cast<double>(a.size());
  const double meanA = std::accumulate(a.begin(), a.end(), 0.0) / n;
  const double meanB = std::accumulate(b.begin(), b.end(), 0.0) / n;
  double aa = 0.0, bb = 0.0, ab = 0.0;
  for (std::size_t i = 0; i < a.size(); ++i) {
    aa += (a[i] - meanA) * (a[i] - meanA);
    bb += (b[i] - meanB) * (b[i] - meanB);
    ab += (a[i] - meanA) * (b[i] - meanB);
  }
  if (!(aa > 0.0) || !(bb > 0.0)) return std::nullopt;
  return ab / std::sqrt(aa * bb);
}

/// With this many fish in all, the chance that an even split is refused if the first's share is `share`. An
/// even split is symmetric, so that what is no likelier are both tails.
double refused(std::size_t fish, double share) {
  const auto n = static_cast<double>(fish);
  if (fish == 0) return 0.0;
  const bm::binomial even(n, 0.5);
  double k = std::floor(bm::quantile(even, 0.5 * kLevel));  // a first guess
  while (k >= 0.0 && 2.0 * bm::cdf(even, k) > kLevel) k -= 1.0;
  while (k + 1.0 < 0.5 * n && 2.0 * bm::cdf(even, k + 1.0) <= kLevel) k += 1.0;
  if (k < 0.0) return 0.0;
  const bm::binomial real(n, share);
  return bm::cdf(real, k) + bm::cdf(bm::complement(real, n - k - 1.0));
}

/// How often two rigs are told apart after so many hours of each, by how many fish that makes.
class Power {
 public:
  Power(double firstRate, double secondRate) : both_(firstRate + secondRate), share_(firstRate / both_) {}
  double after(double hours) {
    const bm::poisson fish(both_ * hours);
    const auto least = static_cast<std::size_t>(bm::quantile(fish, kRare));
    const auto most = static_cast<std::size_t>(bm::quantile(bm::complement(fish, kRare)));
    double out = 0.0;
    for (std::size_t n = least; n <= most; ++n) out += bm::pdf(fish, static_cast<double>(n)) * refusedFor(n);
    return out;
  }

 private:
  double refusedFor(std::size_t fish) {
    if (known_.size() <= fish) known_.resize(fish + 1, -1.0);
    if (known_[fish] < 0.0) known_[fish] = refused(fish, share_);
    return known_[fish];
  }

  static constexpr double kRare = 1e-9;
  double both_;
  double share_;
  std::vector<double> known_;
};

}  // namespace

Result<RateRatio> compareRates(const RigEffort& first, const RigEffort& second) {
  if (!(first.hours > 0.0) || !(second.hours > 0.0))
    return failure(ErrorCode::BadRequest, "one of them was not in the water");
  return compareInBlocks({{first.hours, second.hours, first.count, second.count}});
}

Result<RateRatio> compareInBlocks(const std::vector<EffortBlock>& blocks) {
  std::vector<EffortBlock> telling;
  std::size_t came = 0, all = 0;
  for (const EffortBlock& block : blocks) {
    if (!(block.hoursFirst > 0.0) || !(block.hoursSecond > 0.0) || block.first + block.second == 0) continue;
    telling.push_back(block);
    came += block.first;
    all += block.first + block.second;
  }
  if (telling.empty()) return failure(ErrorCode::Unsupported, "neither of them caught anything");
  RateRatio out{.p = noLikelier(chancesFor(telling, 1.0), came)};
  const auto tail = [&](double ratio, std::size_t from, std::size_t to) {
    const Chances chances = chancesFor(telling, ratio);
    return std::accumulate(chances.begin() + static_cast<std::ptrdiff_t>(from),
                           chances.begin() + static_cast<std::ptrdiff_t>(to) + 1, 0.0);
  };
  const auto n = static_cast<double>(came);
  out.ratio = came == 0     ? 0.0
              : came == all ? kEndless
                            : ratioWhere([&](double r) { return meanOfChances(chancesFor(telling, r)) - n; });
  out.from = came == 0 ? 0.0 : ratioWhere([&](double r) { return tail(r, came, all) - kTail; });
  out.to = came == all ? kEndless : ratioWhere([&](double r) { return kTail - tail(r, 0, came); });
  return out;
}

std::optional<HoursNeeded> hoursToTell(double firstRate, double secondRate) {
  if (!(firstRate + secondRate > 0.0) || firstRate == secondRate) return std::nullopt;
  Power power(firstRate, secondRate);
  // Power grows with the hours but for ripples far smaller than the margin.
  double from = kCoarse_h;
  while (from <= kMostHours && power.after(from) < kWantedPower - kRipples) from += kCoarse_h;
  for (double hours = from - kCoarse_h + kHalfHour; hours <= kMostHours; hours += kHalfHour) {
    const double now = power.after(hours);
    if (now >= kWantedPower) return HoursNeeded{hours, now};
  }
  return std::nullopt;
}

Result<RankAgreementP> spearman(const std::vector<double>& a, const std::vector<double>& b, unsigned seed) {
  if (a.size() != b.size() || a.size() < 3)
    return failure(ErrorCode::BadRequest, "three rigs and more have an order to compare");
  const std::vector<double> ranksA = ranksOf(a);
  std::vector<double> ranksB = ranksOf(b);
  const auto rho = correlation(ranksA, ranksB);
  if (!rho) return failure(ErrorCode::Unsupported, "all are the same in one of the two");
  RankAgreementP out{.rho = *rho};
  const double least = std::abs(*rho) / kAsLikely;
  std::sort(ranksB.begin(), ranksB.end());
  double hits = 0.0, looked = 0.0;
  if (a.size() <= kMostOrders) {
    std::vector<std::size_t> order(a.size());
    std::iota(order.begin(), order.end(), 0U);
    std::vector<double> shuffled(a.size());
    do {
      for (std::size_t i = 0; i < order.size(); ++i) shuffled[i] = ranksB[order[i]];
      hits += std::abs(*correlation(ranksA, shuffled)) >= least ? 1.0 : 0.0;
      looked += 1.0;
    } while (std::next_permutation(order.begin(), order.end()));
    out.p = hits / looked;
    return out;
  }
  std::mt19937 random(seed);
  for (std::size_t draw = 0; draw < kDraws; ++draw) {
    std::shuffle(ranksB.begin(), ranksB.end(), random);
    hits += std::abs(*correlation(ranksA, ranksB)) >= least ? 1.0 : 0.0;
  }
  out.p = (1.0 + hits) / (1.0 + static_cast<double>(kDraws));
  return out;
}

std::string tooFewForTheWater(const std::vector<RigEffort>& rigs) {
  constexpr std::size_t kRigs = 6;
  constexpr std::size_t kFish = 10;
  constexpr double kHours = 20.0;
  std::size_t fish = 0;
  double hours = 0.0;
  for (const RigEffort& rig : rigs) {
    fish += rig.count;
    hours += rig.hours;
  }
  if (rigs.size() >= kRigs && fish >= kFish && hours >= kHours) return {};
  return fmt::format(
      "too few to tell: {} of {} rigs that were both measured and fished, {} of {} fish, {:.1f} of {:.0f} "
      "rod-hours",
      rigs.size(), kRigs, fish, kFish, hours, kHours);
}

}  // namespace fin
