// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <vector>

namespace fin {

/// Samples at rising times, not necessarily evenly spaced; a gap is simply a larger step in time.
struct Series {
  std::vector<double> t_s;
  std::vector<double> y;

  [[nodiscard]] std::size_t size() const { return t_s.size(); }
  [[nodiscard]] bool empty() const { return t_s.empty(); }
  [[nodiscard]] double span_s() const { return empty() ? 0.0 : t_s.back() - t_s.front(); }
  void add(double time_s, double value) {
    t_s.push_back(time_s);
    y.push_back(value);
  }
  /// The samples with from ≤ t ≤ to.
  [[nodiscard]] Series between(double from_s, double to_s) const;
  /// Median step in time.
  [[nodiscard]] double spacing_s() const;
};

/// Median; 0 of nothing.
double median(std::vector<double> values);
/// 1.4826 · median absolute deviation: the standard deviation of what is roughly normal, outliers or not.
double robustSpread(const std::vector<double>& values);
/// Standard error of a median over that of a mean, for a normal spread: sqrt(pi / 2).
inline constexpr double kMedianOverMean = 1.2533;
/// Half width of the 95 % interval of the median of `values`, from their robust spread.
double medianU95(const std::vector<double>& values);

}  // namespace fin
