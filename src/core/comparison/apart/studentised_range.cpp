// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/apart/studentised_range.h"

#include <algorithm>
#include <boost/math/quadrature/gauss.hpp>
#include <boost/math/tools/roots.hpp>
#include <cmath>

namespace fin {
namespace {

using Rule = boost::math::quadrature::gauss<double, 30>;

constexpr double kNothingBeyond = 9.0;  ///< standard deviations: nothing that counts lies beyond

double density(double z) {
  constexpr double kOverRootTwoPi = 0.39894228040143267794;
  return kOverRootTwoPi * std::exp(-0.5 * z * z);
}
/// x to a whole power.
double power(double x, std::size_t n) {
  double out = 1.0;
  for (; n > 0; n /= 2, x *= x) {
    if (n % 2 == 1) out *= x;
  }
  return out;
}
double upTo(double z) {
  return 0.5 * std::erfc(-z * 0.70710678118654752440);
}

template <class Function>
double inPanels(const Function& function, double from, double to, int panels) {
  double sum = 0.0;
  const double wide = (to - from) / panels;
  for (int i = 0; i < panels; ++i) sum += Rule::integrate(function, from + i * wide, from + (i + 1) * wide);
  return sum;
}

/// The chance that the gap itself exceeds w.
double gapExceeds(double w, std::size_t groups) {
  // 1 − H by the largest value z: all others lie below it, and not all within w of it.
  const std::size_t others = groups - 1;
  const auto at = [w, others](double z) {
    const double below = upTo(z);
    return density(z) * (power(below, others) - power(below - upTo(z - w), others));
  };
  return static_cast<double>(groups) * inPanels(at, -kNothingBeyond, kNothingBeyond, 2);
}

}  // namespace

double chanceOfRange(double q, std::size_t groups, double degrees) {
  if (!(q > 0.0)) return 1.0;
  const double half = 0.5 * degrees;
  const double log0 = std::log(2.0) + half * std::log(half) - std::lgamma(half);
  const auto at = [&](double u) {
    return std::exp(log0 + (degrees - 1.0) * std::log(u) - half * u * u) * gapExceeds(q * u, groups);
  };
  // Where the standard deviation can lie at all.
  const double wide = kNothingBeyond / std::sqrt(2.0 * degrees);
  return std::min(1.0, inPanels(at, std::max(1e-12, 1.0 - wide), 1.0 + wide, 2));
}

double rangeExceededWith(double chance, std::size_t groups, double degrees) {
  const auto off = [&](double q) { return std::log(chanceOfRange(q, groups, degrees) / chance); };
  std::uintmax_t most = 60;
  const auto near = [](double a, double b) { return std::abs(a - b) < 1e-7 * std::abs(a); };
  const auto [low, high] = boost::math::tools::bracket_and_solve_root(off, 4.0, 1.6, false, near, most);
  return 0.5 * (low + high);
}

}  // namespace fin
