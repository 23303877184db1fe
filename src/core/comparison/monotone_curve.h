// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <vector>

namespace fin {

/// A smooth curve through points that does not swing beyond them: piecewise cubic Hermite with limited slopes
/// (F. Fritsch & J. Butland, A method for constructing local monotone piecewise cubic interpolants, 1984: the
/// weighted harmonic mean of the neighbours' slopes, nought at a turn). Nothing outside of the points. Two or
/// three points are allowed, which libraries refuse.
class MonotoneCurve {
 public:
  /// At least two points; x rising.
  MonotoneCurve(std::vector<double> x, std::vector<double> y);

  [[nodiscard]] double at(double x) const;
  /// The lowest x at which the curve rises through y; none where it does not.
  [[nodiscard]] std::optional<double> firstRiseThrough(double y) const;

 private:
  std::vector<double> x_;
  std::vector<double> y_;
  std::vector<double> slope_;
};

}  // namespace fin
