// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/count_intervals.h"

#include <boost/math/distributions/beta.hpp>
#include <boost/math/distributions/chi_squared.hpp>
#include <cmath>

#include "core/units/estimate.h"

namespace fin {
namespace {

constexpr double kEitherSide = 0.025;

}  // namespace

CountInterval wilson(std::size_t k, std::size_t n) {
  constexpr double z = kNormal95;
  const auto trials = static_cast<double>(n);
  const double share = static_cast<double>(k) / trials;
  const double whole = 1.0 + z * z / trials;
  const double middle = (share + z * z / (2.0 * trials)) / whole;
  const double half = z * std::sqrt(share * (1.0 - share) / trials + z * z / (4.0 * trials * trials)) / whole;
  return {middle - half, middle + half};
}

CountInterval jeffreys(std::size_t k, std::size_t n) {
  const boost::math::beta_distribution<double> share(static_cast<double>(k) + 0.5,
                                                     static_cast<double>(n - k) + 0.5);
  return {boost::math::quantile(share, kEitherSide), boost::math::quantile(share, 1.0 - kEitherSide)};
}

CountInterval garwood(std::size_t k) {
  using ChiSquared = boost::math::chi_squared_distribution<double>;
  const double twice = 2.0 * static_cast<double>(k);
  return {k == 0 ? 0.0 : 0.5 * boost::math::quantile(ChiSquared(twice), kEitherSide),
          0.5 * boost::math::quantile(ChiSquared(twice + 2.0), 1.0 - kEitherSide)};
}

}  // namespace fin
