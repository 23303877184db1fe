// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/catches/rates.h"

#include <algorithm>
#include <boost/math/distributions/chi_squared.hpp>
#include <boost/math/distributions/gamma.hpp>
#include <boost/math/distributions/students_t.hpp>
#include <boost/math/special_functions/digamma.hpp>
#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>

namespace fin {
namespace {

namespace bm = boost::math;

constexpr double kEachTail = 0.025;
constexpr std::size_t kFewestRigs = 5;  ///< whose spread can be fitted
constexpr std::size_t kFewestDays = 4;  ///< for wear
constexpr double kLeastLogA = -12.0;
constexpr double kMostLogA = 10.0;

struct Totals {
  double hours = 0.0;
  double count = 0.0;
};
Totals totalsOf(const std::vector<RigEffort>& rigs) {
  Totals out;
  for (const RigEffort& rig : rigs) {
    out.hours += rig.hours;
    out.count += static_cast<double>(rig.count);
  }
  return out;
}

template <class Function>
double rootBetween(const Function& f, double from, double to) {
  std::uintmax_t steps = 200;
  const auto [low, high] = bm::tools::toms748_solve(f, from, to, bm::tools::eps_tolerance<double>(48), steps);
  return 0.5 * (low + high);
}

/// The mean rate that is likeliest where the shape is a: Σn/μ = Σ(a + n)T/(a + μT).
double meanFor(double a, const std::vector<RigEffort>& rigs, const Totals& totals) {
  const auto slope = [&](double logMu) {
    const double mu = std::exp(logMu);
    double out = totals.count;
    for (const RigEffort& rig : rigs)
      out -= (a + static_cast<double>(rig.count)) * mu * rig.hours / (a + mu * rig.hours);
    return out;
  };
  const double middle = std::log(totals.count / totals.hours);
  return std::exp(rootBetween(slope, middle - 10.0, middle + 10.0));
}

/// How the log-likelihood grows with the shape, the mean at its likeliest.
double slopeByShape(double a, const std::vector<RigEffort>& rigs, const Totals& totals) {
  const double mu = meanFor(a, rigs, totals);
  double out = 0.0;
  for (const RigEffort& rig : rigs) {
    const auto n = static_cast<double>(rig.count);
    const double whole = a + mu * rig.hours;
    out += bm::digamma(a + n) - bm::digamma(a) + std::log(a / whole) + 1.0 - (a + n) / whole;
  }
  return out;
}

bool scattersByMoreThanChance(const std::vector<RigEffort>& rigs, const Totals& totals) {
  const double mu = totals.count / totals.hours;
  double excess = 0.0;
  for (const RigEffort& rig : rigs) {
    const auto n = static_cast<double>(rig.count);
    excess += std::pow(n - mu * rig.hours, 2) - n;
  }
  return excess > 0.0;
}

std::vector<Rate> drawnIn(double a, double b, const std::vector<RigEffort>& rigs) {
  std::vector<Rate> out;
  for (const RigEffort& rig : rigs) {
    const double shape = a + static_cast<double>(rig.count);
    const bm::gamma_distribution<> rate(shape, 1.0 / (b + rig.hours));
    out.push_back({shape / (b + rig.hours), bm::quantile(rate, kEachTail),
                   bm::quantile(bm::complement(rate, kEachTail))});
  }
  return out;
}

}  // namespace

Result<Rate> exactRate(std::size_t count, double amount) {
  if (!(amount > 0.0) || !std::isfinite(amount))
    return failure(ErrorCode::BadRequest, "a rate wants an amount above nought");
  const auto n = static_cast<double>(count);
  Rate out{.value = n / amount};
  if (count > 0) out.from = bm::quantile(bm::chi_squared(2.0 * n), kEachTail) / (2.0 * amount);
  out.to = bm::quantile(bm::complement(bm::chi_squared(2.0 * n + 2.0), kEachTail)) / (2.0 * amount);
  return out;
}

Result<ShrunkRates> shrunkRates(const std::vector<RigEffort>& rigs) {
  if (std::any_of(rigs.begin(), rigs.end(), [](const RigEffort& r) { return !(r.hours > 0.0); }))
    return failure(ErrorCode::BadRequest, "a rig that was not in the water has no rate");
  const Totals totals = totalsOf(rigs);
  ShrunkRates out;
  if (totals.count == 0.0) {
    for (const RigEffort& rig : rigs) out.rates.push_back(*exactRate(0, rig.hours));
    return out;
  }
  if (rigs.size() < kFewestRigs) {
    out.how = ShrunkRates::How::FewRigs;
    out.a = 1.0;
    out.b = totals.hours / totals.count;
  } else if (!scattersByMoreThanChance(rigs, totals)) {
    out.how = ShrunkRates::How::NoSpread;
    out.rates.assign(rigs.size(), *exactRate(static_cast<std::size_t>(totals.count), totals.hours));
    return out;
  } else {
    out.how = ShrunkRates::How::Fitted;
    const auto slope = [&](double logA) { return slopeByShape(std::exp(logA), rigs, totals); };
    // The likelihood may still rise where the shape is as good as endless.
    const bool endless = slope(kMostLogA) > 0.0;
    out.a = std::exp(endless ? kMostLogA : rootBetween(slope, kLeastLogA, kMostLogA));
    out.b = out.a / meanFor(out.a, rigs, totals);
  }
  out.rates = drawnIn(out.a, out.b, rigs);
  return out;
}

Result<Slope> slopeOver(const std::vector<std::pair<double, double>>& hoursAndValues) {
  const auto n = static_cast<double>(hoursAndValues.size());
  if (hoursAndValues.size() < kFewestDays)
    return failure(ErrorCode::Unsupported, "a slope wants four days and more");
  double x = 0.0, y = 0.0;
  for (const auto& [hours, value] : hoursAndValues) {
    x += hours / n;
    y += value / n;
  }
  double xx = 0.0, xy = 0.0, yy = 0.0;
  for (const auto& [hours, value] : hoursAndValues) {
    xx += (hours - x) * (hours - x);
    xy += (hours - x) * (value - y);
    yy += (value - y) * (value - y);
  }
  if (!(xx > 0.0)) return failure(ErrorCode::Unsupported, "it was fished for the same hours on all days");
  const double slope = xy / xx;
  const double rest = std::max(0.0, yy - slope * xy);
  const double half =
      bm::quantile(bm::complement(bm::students_t(n - 2.0), kEachTail)) * std::sqrt(rest / (n - 2.0) / xx);
  return Slope{slope, slope - half, slope + half};
}

}  // namespace fin
