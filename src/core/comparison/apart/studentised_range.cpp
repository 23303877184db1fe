// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/apart/studentised_range.h"

#include <algorithm>
#include <boost/math/quadrature/gauss.hpp>
#include <boost/math/tools/roots.hpp>
#include <cmath>
#include <limits>
#include <vector>

namespace fin {
namespace {

using Rule = boost::math::quadrature::gauss<double, 30>;

constexpr double kStep = 0.05;     ///< of the spline
constexpr double kSplined = 16.0;  ///< as far as it goes: what lies beyond has a chance of 1e-28
constexpr double kHighest = 12.0;  ///< standard deviations: the largest value of a gap that is splined
constexpr std::size_t kFewGroups = 12;
constexpr double kFewDegrees = 8.0;
constexpr double kManyDegrees = 2000.0;
constexpr double kLogStep = 0.2;        ///< of the degrees' logarithm
constexpr double kNothingBeyond = 9.0;  ///< standard deviations: nothing that counts lies beyond

double density(double z) {
  constexpr double kOverRootTwoPi = 0.39894228040143267794;
  return kOverRootTwoPi * std::exp(-0.5 * z * z);
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
double directly(double w, std::size_t groups) {
  // By the largest value z: all others lie below it, and not all within w of it.
  const auto others = static_cast<double>(groups - 1);
  const auto at = [w, others](double z) {
    const double below = upTo(z), far = upTo(z - w);
    if (below <= 0.0 || far <= 0.0) return 0.0;
    const double within =
        far < below ? others * std::log1p(-far / below) : -std::numeric_limits<double>::infinity();
    return -density(z) * std::exp(others * std::log(below)) * std::expm1(within);
  };
  return static_cast<double>(groups) * inPanels(at, -kNothingBeyond, kHighest, 3);
}

std::vector<double> logarithms(std::size_t groups) {
  std::vector<double> out;
  for (double w = 0.0; w < kSplined + 0.5 * kStep; w += kStep) out.push_back(std::log(directly(w, groups)));
  return out;
}

/// At no gap: two groups have one in proportion, of more it takes all of them.
double slopeAtNothing(std::size_t groups) {
  constexpr double kOverRootPi = 0.56418958354775628695;
  return groups == 2 ? -kOverRootPi : 0.0;
}

}  // namespace

StudentisedRange::StudentisedRange(std::size_t groups)
    : groups_(groups),
      logGap_(logarithms(groups), 0.0, kStep,
              {slopeAtNothing(groups), std::numeric_limits<double>::quiet_NaN()}) {}

double StudentisedRange::gapExceeds(double w) const {
  if (w < kSplined - kStep) return std::exp(logGap_(w));
  // So far out hardly two pairs exceed it at once: their chances add up.
  const auto k = static_cast<double>(groups_);
  return 0.5 * k * (k - 1.0) * std::erfc(0.5 * w);
}

double StudentisedRange::chance(double q, double degrees) const {
  if (!(q > 0.0)) return 1.0;
  const double half = 0.5 * degrees;
  const double log0 = std::log(2.0) + half * std::log(half) - std::lgamma(half);
  const auto at = [&](double u) {
    return std::exp(log0 + (degrees - 1.0) * std::log(u) - half * u * u) * gapExceeds(q * u);
  };
  // Where the standard deviation can lie at all.
  const double wide = kNothingBeyond / std::sqrt(2.0 * degrees);
  return std::min(1.0, inPanels(at, std::max(1e-12, 1.0 - wide), 1.0 + wide, 2));
}

double StudentisedRange::exceededWith(double chance, double degrees, double near_q) const {
  const auto off = [&](double q) { return std::log(this->chance(q, degrees) / chance); };
  std::uintmax_t most = 60;
  const auto near = [](double a, double b) { return std::abs(a - b) < 1e-7 * std::abs(a); };
  const auto [low, high] = boost::math::tools::bracket_and_solve_root(off, near_q, 1.15, false, near, most);
  return 0.5 * (low + high);
}

double RangeBound::operator()(double degrees) {
  if (range_.groups() <= kFewGroups || degrees < kFewDegrees) return range_.exceededWith(chance_, degrees);
  if (!logs_) {
    std::vector<double> logs;
    double q = range_.exceededWith(chance_, kFewDegrees);
    for (double t = std::log(kFewDegrees); t < std::log(kManyDegrees) + 2.0 * kLogStep; t += kLogStep) {
      q = range_.exceededWith(chance_, std::exp(t), q);
      logs.push_back(std::log(q));
    }
    logs_.emplace(logs, std::log(kFewDegrees), kLogStep);
  }
  return std::exp((*logs_)(std::log(std::min(degrees, kManyDegrees))));
}

}  // namespace fin
