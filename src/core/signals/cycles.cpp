// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/cycles.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "core/signals/running_mean.h"

namespace fin {
namespace {

constexpr double kSmoothing_cycles = 0.2;
constexpr double kSmoothingLopsided_cycles = 0.5;
constexpr double kStrongSecond = 0.6;
constexpr double kHysteresis = 0.2;  ///< of the amplitude
constexpr double kLargestGap_cycles = 0.25;
constexpr double kParabola_cycles = 0.1;

/// Times at which the signal, having been below −h, rises through 0 and goes on above h.
std::vector<double> upwardCrossings(const Series& s, double h) {
  std::vector<double> out;
  bool armed = false;
  double crossing = 0.0;
  bool crossed = false;
  for (std::size_t i = 1; i < s.size(); ++i) {
    if (s.y[i - 1] < -h) armed = true;
    if (armed && s.y[i - 1] < 0.0 && s.y[i] >= 0.0) {
      crossing = s.t_s[i - 1] - s.y[i - 1] * (s.t_s[i] - s.t_s[i - 1]) / (s.y[i] - s.y[i - 1]);
      crossed = true;
    }
    if (crossed && s.y[i] > h) {
      out.push_back(crossing);
      armed = crossed = false;
    }
  }
  return out;
}

double powerOf(const Series& s) {
  double power = 0.0;
  for (double v : s.y) power += v * v / static_cast<double>(s.size());
  return power;
}

double largestGap(const Series& s, const Cycle& c) {
  double largest = 0.0;
  double last = c.from_s;
  for (double t : s.between(c.from_s, c.to_s).t_s) {
    largest = std::max(largest, t - last);
    last = t;
  }
  return std::max(largest, c.to_s - last);
}

/// Value at the top (sign +1) or bottom (−1) of a parabola around an extreme sample.
double extreme(const Series& s, double at_s, double raw, double half_s, double sign) {
  const Series near = s.between(at_s - half_s, at_s + half_s);
  if (near.size() < 4) return raw;
  Eigen::MatrixXd a(static_cast<Eigen::Index>(near.size()), 3);
  Eigen::VectorXd y(a.rows());
  for (Eigen::Index i = 0; i < a.rows(); ++i) {
    const double x = (near.t_s[static_cast<std::size_t>(i)] - at_s) / half_s;
    a.row(i) << 1.0, x, x * x;
    y[i] = near.y[static_cast<std::size_t>(i)];
  }
  const Eigen::Vector3d p = a.colPivHouseholderQr().solve(y);
  if (sign * p[2] >= 0.0) return p[0];
  const double top = std::clamp(-0.5 * p[1] / p[2], -1.0, 1.0);
  return p[0] + p[1] * top + p[2] * top * top;
}

}  // namespace

std::vector<Cycle> wholeCycles(const Series& detrended, const PeriodicFit& fit) {
  const double period = 1.0 / fit.frequency_Hz;
  // An uneven rhythm leaves the fit's amplitudes too small: what the fit does not hold is the fundamental's.
  const double second = fit.amplitudes.size() > 1 ? fit.amplitudes[1] : 0.0;
  const double rest = std::sqrt(std::max(2.0 * powerOf(detrended) - second * second, 0.0));
  const bool lopsided = second > kStrongSecond * std::max(fit.amplitudes.front(), rest);
  const Series smooth =
      runningMean(detrended, period * (lopsided ? kSmoothingLopsided_cycles : kSmoothing_cycles));
  const double amplitude = std::max(fit.amplitudes.front(), std::sqrt(2.0 * powerOf(smooth)));
  const std::vector<double> starts = upwardCrossings(smooth, kHysteresis * amplitude);
  std::vector<Cycle> cycles;
  for (std::size_t i = 1; i < starts.size(); ++i) {
    const Cycle c{starts[i - 1], starts[i]};
    if (largestGap(detrended, c) <= kLargestGap_cycles * period) cycles.push_back(c);
  }
  return cycles;
}

std::vector<double> peakToPeak(const Series& series, const std::vector<Cycle>& cycles) {
  std::vector<double> out;
  for (const Cycle& c : cycles) {
    const Series inside = series.between(c.from_s, c.to_s);
    if (inside.empty()) continue;
    const auto [low, high] = std::minmax_element(inside.y.begin(), inside.y.end());
    const double half = kParabola_cycles * c.length_s();
    const double tLow = inside.t_s[static_cast<std::size_t>(low - inside.y.begin())];
    const double tHigh = inside.t_s[static_cast<std::size_t>(high - inside.y.begin())];
    out.push_back(extreme(series, tHigh, *high, half, 1.0) - extreme(series, tLow, *low, half, -1.0));
  }
  return out;
}

}  // namespace fin
