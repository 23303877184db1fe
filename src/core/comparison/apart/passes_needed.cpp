// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/apart/passes_needed.h"

#include <boost/math/distributions/non_central_t.hpp>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>

#include "core/comparison/apart/studentised_range.h"

namespace fin {
namespace {

namespace bm = boost::math;

constexpr double kPower = 0.8;
constexpr double kOneSided = 0.025;
constexpr double kPowerIsOne = 12.0;  ///< beyond the bound: the power is one, and its series is not needed

double degreesWith(std::size_t passes, std::size_t rigs) {
  const auto n = static_cast<double>(passes), r = static_cast<double>(rigs);
  return rigs == 2 ? 2.0 * n - 2.0 : (n - 1.0) * (r - 1.0);
}

}  // namespace

double PassesNeeded::bound(std::size_t passes) {
  const auto [known, fresh] = bounds_.try_emplace(passes, 0.0);
  if (fresh) {
    const double degrees = degreesWith(passes, rigs_);
    known->second = rigs_ == 2 ? bm::quantile(bm::students_t(degrees), 1.0 - kOneSided)
                               : StudentisedRange(rigs_).exceededWith(kOneSided, degrees) / std::sqrt(2.0);
  }
  return known->second;
}

double PassesNeeded::power(double size, std::size_t passes) {
  const double away = std::abs(size) * std::sqrt(0.5 * static_cast<double>(passes));
  const double at = bound(passes);
  if (away > kPowerIsOne + at) return 1.0;
  const bm::non_central_t t(degreesWith(passes, rigs_), away);
  return bm::cdf(bm::complement(t, at)) + bm::cdf(t, -at);
}

std::optional<std::size_t> PassesNeeded::operator()(double size, std::size_t most) {
  if (size == 0.0 || most < 2 || power(size, most) < kPower) return std::nullopt;
  // More passes never tell less, so halving finds the least.
  std::size_t least = 2;
  while (least < most) {
    const std::size_t middle = least + (most - least) / 2;
    if (power(size, middle) >= kPower) {
      most = middle;
    } else {
      least = middle + 1;
    }
  }
  return least;
}

std::optional<Look> lookAt(std::size_t passes) {
  std::optional<Look> out;
  for (const Look& look : kLooks) {
    if (passes >= look.passes) out = look;
  }
  return out;
}

}  // namespace fin
