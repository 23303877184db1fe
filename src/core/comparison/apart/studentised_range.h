// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <boost/math/interpolators/cardinal_quintic_b_spline.hpp>
#include <cstddef>
#include <optional>

namespace fin {

/// The widest gap among `groups` independent standard normal values, over a common standard deviation (J.
/// Tukey, The problem of multiple comparisons, 1953): its chance to exceed q is 1 − ∫ f(u) H(qu) du, where H
/// is the distribution of the gap and f that of the standard deviation. By Gauss-Legendre rules in panels:
/// six times as many change it by less than 1e-6 of its value, also far out in the tail, where short series
/// are 12 % off. H is worked out once, as a quintic spline of its logarithm: to 1e-8 of it. Two groups and
/// more, one degree and more. Immutable.
class StudentisedRange {
 public:
  using Spline = boost::math::interpolators::cardinal_quintic_b_spline<double>;

  explicit StudentisedRange(std::size_t groups);

  /// The chance that it exceeds q.
  [[nodiscard]] double chance(double q, double degrees) const;
  /// The q that is exceeded with this chance, to 1e-7 of it; quickest where it lies near `near_q`.
  [[nodiscard]] double exceededWith(double chance, double degrees, double near_q = 4.0) const;
  [[nodiscard]] std::size_t groups() const { return groups_; }

 private:
  [[nodiscard]] double gapExceeds(double w) const;

  std::size_t groups_;
  Spline logGap_;
};

/// The q that is exceeded with one chance, asked for at many degrees of freedom: sixty rigs have 1770 pairs.
/// For more than a dozen groups it is splined over the degrees from 8 on, to 1e-6 of it. Immutable but for
/// what it remembers: for one thread at a time.
class RangeBound {
 public:
  /// `range` must outlive it.
  RangeBound(const StudentisedRange& range, double chance) : range_(range), chance_(chance) {}
  [[nodiscard]] double operator()(double degrees);

 private:
  const StudentisedRange& range_;
  double chance_;
  std::optional<StudentisedRange::Spline> logs_;
};

}  // namespace fin
