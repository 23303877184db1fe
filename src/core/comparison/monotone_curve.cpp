// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/monotone_curve.h"

#include <algorithm>
#include <cmath>

namespace fin {
namespace {

constexpr int kHalvings = 60;

}  // namespace

MonotoneCurve::MonotoneCurve(std::vector<double> x, std::vector<double> y)
    : x_(std::move(x)), y_(std::move(y)), slope_(x_.size(), 0.0) {
  const std::size_t n = x_.size();
  std::vector<double> step(n - 1);
  std::vector<double> secant(n - 1);
  for (std::size_t i = 0; i + 1 < n; ++i) {
    step[i] = x_[i + 1] - x_[i];
    secant[i] = (y_[i + 1] - y_[i]) / step[i];
  }
  for (std::size_t i = 1; i + 1 < n; ++i) {
    if (secant[i - 1] * secant[i] <= 0.0) continue;  // a turn is flat
    // Weighted harmonic mean of the neighbours' slopes.
    const double before = 2.0 * step[i] + step[i - 1];
    const double after = step[i] + 2.0 * step[i - 1];
    slope_[i] = (before + after) / (before / secant[i - 1] + after / secant[i]);
  }
  const auto endSlope = [](double h0, double h1, double s0, double s1) {
    double slope = ((2.0 * h0 + h1) * s0 - h0 * s1) / (h0 + h1);
    if (slope * s0 <= 0.0) slope = 0.0;
    if (s0 * s1 <= 0.0 && std::abs(slope) > 3.0 * std::abs(s0)) slope = 3.0 * s0;
    return slope;
  };
  slope_.front() = n > 2 ? endSlope(step[0], step[1], secant[0], secant[1]) : secant[0];
  slope_.back() = n > 2 ? endSlope(step[n - 2], step[n - 3], secant[n - 2], secant[n - 3]) : secant[0];
}

double MonotoneCurve::at(double x) const {
  const auto next = std::clamp<std::ptrdiff_t>(std::upper_bound(x_.begin(), x_.end(), x) - x_.begin(), 1,
                                               std::ssize(x_) - 1);
  const auto i = static_cast<std::size_t>(next - 1);
  const double h = x_[i + 1] - x_[i];
  const double t = std::clamp((x - x_[i]) / h, 0.0, 1.0);
  const double u = 1.0 - t;
  return u * u * (1.0 + 2.0 * t) * y_[i] + t * u * u * h * slope_[i] + t * t * (3.0 - 2.0 * t) * y_[i + 1] -
         t * t * u * h * slope_[i + 1];
}

std::optional<double> MonotoneCurve::firstRiseThrough(double y) const {
  for (std::size_t i = 0; i + 1 < x_.size(); ++i) {
    if (!(y_[i] < y && y_[i + 1] >= y)) continue;
    double low = x_[i];
    double high = x_[i + 1];
    for (int k = 0; k < kHalvings; ++k) {
      const double middle = 0.5 * (low + high);
      (at(middle) < y ? low : high) = middle;
    }
    return high;
  }
  return std::nullopt;
}

}  // namespace fin
