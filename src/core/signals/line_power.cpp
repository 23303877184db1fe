// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/line_power.h"

#include <Eigen/Dense>
#include <algorithm>
#include <boost/math/distributions/fisher_f.hpp>
#include <cmath>
#include <numbers>

#include "core/signals/interpolation.h"
#include "core/signals/line_fit.h"
#include "core/signals/serial_correlation.h"

namespace fin {
namespace {

constexpr double kTurn_rad = 2.0 * std::numbers::pi;
constexpr double kNearest_bins = 2.5;  ///< the window's own line is two wide
constexpr int kNeighbours = 5;         ///< on either side
constexpr double kTracked_cycles = 3.0;

double upperTail(double f, double above, double below) {
  if (!(f > 0.0) || below < 1.0) return 1.0;
  return boost::math::cdf(boost::math::complement(boost::math::fisher_f(above, below), f));
}

Eigen::Map<const Eigen::VectorXd> valuesOf(const Series& series) {
  return {series.y.data(), static_cast<Eigen::Index>(series.size())};
}

/// A mean, and a pair for every rate; with sides one more pair for the first.
Eigen::MatrixXd sines(const Series& series, std::span<const double> rates_Hz, std::span<const double> sides) {
  const auto pairs = static_cast<Eigen::Index>(rates_Hz.size()) + (sides.empty() ? 0 : 1);
  Eigen::MatrixXd a(static_cast<Eigen::Index>(series.size()), 1 + 2 * pairs);
  for (Eigen::Index i = 0; i < a.rows(); ++i) {
    const double t = series.t_s[static_cast<std::size_t>(i)] - series.t_s.front();
    a(i, 0) = 1.0;
    Eigen::Index column = 1;
    for (const double rate : rates_Hz) {
      a(i, column++) = std::cos(kTurn_rad * rate * t);
      a(i, column++) = std::sin(kTurn_rad * rate * t);
    }
    if (sides.empty()) continue;
    a(i, column++) = sides[static_cast<std::size_t>(i)] * a(i, 1);
    a(i, column) = sides[static_cast<std::size_t>(i)] * a(i, 2);
  }
  return a;
}

struct Solved {
  Eigen::VectorXd parameters;
  Eigen::VectorXd residuals;
};

Solved solve(const Eigen::MatrixXd& a, const Series& series) {
  Solved out;
  out.parameters = (a.transpose() * a).ldlt().solve(a.transpose() * valuesOf(series));
  out.residuals = valuesOf(series) - a * out.parameters;
  return out;
}

/// A series over a phase, freed of its straight line, under a Hann window.
class Windowed {
 public:
  Windowed(const Series& series, const Series& phase) {
    const auto line = fitLine(series);
    const double begin = phase.y.front();
    cycles_ = phase.y.back() - begin;
    for (std::size_t i = 0; i < series.size(); ++i) {
      const double t = series.t_s[i];
      if (t < phase.t_s.front() || t > phase.t_s.back()) continue;
      const double at = valueAt(phase, t);
      const double weight = 0.5 - 0.5 * std::cos(kTurn_rad * (at - begin) / cycles_);
      at_.push_back(at);
      value_.push_back(weight * (series.y[i] - (line ? line->at(t) : 0.0)));
      weight_ += weight;
    }
  }

  /// Square of half of peak to peak.
  [[nodiscard]] double power(double order) const {
    double c = 0.0;
    double s = 0.0;
    for (std::size_t i = 0; i < at_.size(); ++i) {
      c += value_[i] * std::cos(kTurn_rad * order * at_[i]);
      s += value_[i] * std::sin(kTurn_rad * order * at_[i]);
    }
    return weight_ > 0.0 ? 4.0 * (c * c + s * s) / (weight_ * weight_) : 0.0;
  }
  /// Mean of the orders beside one, those near whole ones left out.
  [[nodiscard]] double besides(double order) const {
    double sum = 0.0;
    int n = 0;
    for (int k = 0; k < 2 * kNeighbours; ++k) {
      const double away = (kNearest_bins + 1.2 * (k / 2)) / cycles_;
      const double at = order + (k % 2 == 0 ? away : -away);
      const bool ofALine = std::abs(at - std::round(at)) < kNearest_bins / cycles_;
      if (at <= 0.0 || ofALine) continue;
      sum += power(at);
      ++n;
    }
    counted_ = n;
    return n > 0 ? sum / n : 0.0;
  }
  [[nodiscard]] int counted() const { return counted_; }

 private:
  std::vector<double> at_;
  std::vector<double> value_;
  double weight_ = 0.0;
  double cycles_ = 0.0;
  mutable int counted_ = 0;
};

}  // namespace

double frameNoise(const Series& series) {
  std::vector<double> bends;
  for (std::size_t i = 2; i + 2 < series.size(); ++i)
    bends.push_back(series.y[i - 2] - 4.0 * series.y[i - 1] + 6.0 * series.y[i] - 4.0 * series.y[i + 1] +
                    series.y[i + 2]);
  return bends.empty() ? 0.0 : robustSpread(bends) / std::sqrt(70.0);
}

double explainedBy(const Series& series, std::span<const double> rates_Hz, std::span<const double> sides) {
  const auto y = valuesOf(series);
  const double all = (y.array() - y.mean()).square().sum();
  return all > 0.0 ? 1.0 - solve(sines(series, rates_Hz, sides), series).residuals.squaredNorm() / all : 0.0;
}

LineTest testSignedLine(const Series& series, double rate_Hz, std::span<const double> sides) {
  const double rates[] = {rate_Hz, 2.0 * rate_Hz};
  const Solved plain = solve(sines(series, rates, {}), series);
  const Solved both = solve(sines(series, rates, sides), series);
  const std::vector<double> left(both.residuals.data(), both.residuals.data() + both.residuals.size());
  // Residuals that hang together count as fewer.
  const double inflation = correlationInflation(left);
  const double free = static_cast<double>(series.size()) / inflation - 7.0;
  const double rss = both.residuals.squaredNorm();
  LineTest out;
  const Eigen::Index last = both.parameters.size() - 2;
  double reach = 0.0;
  for (const double side : sides) reach = std::max(reach, std::abs(side));
  out.amplitude = reach * std::hypot(both.parameters[last], both.parameters[last + 1]);
  out.otherAmplitude = std::hypot(both.parameters[1], both.parameters[2]);
  if (free >= 1.0 && rss > 0.0)
    out.chance = upperTail(0.5 * (plain.residuals.squaredNorm() - rss) / (rss / free), 2.0, free);
  return out;
}

Series pulsePhase(const Series& series, double rate_Hz) {
  Series out;
  const double reach = 0.5 * kTracked_cycles / rate_Hz;
  double before = 0.0;
  for (double t = series.t_s.front(); t <= series.t_s.back(); t += 0.25 / rate_Hz) {
    const Series near =
        series.between(std::clamp(t - reach, series.t_s.front(), series.t_s.back() - 2.0 * reach),
                       std::clamp(t + reach, series.t_s.front() + 2.0 * reach, series.t_s.back()));
    if (near.size() < 8) continue;
    Eigen::MatrixXd a(static_cast<Eigen::Index>(near.size()), 4);
    for (Eigen::Index i = 0; i < a.rows(); ++i) {
      const double at = near.t_s[static_cast<std::size_t>(i)];
      a.row(i) << 1.0, at - t, std::cos(kTurn_rad * rate_Hz * at), std::sin(kTurn_rad * rate_Hz * at);
    }
    const Eigen::VectorXd p = (a.transpose() * a).ldlt().solve(a.transpose() * valuesOf(near));
    const double late = std::atan2(p[3], p[2]) / kTurn_rad;
    const double unwrapped = out.empty() ? late : before + std::remainder(late - before, 1.0);
    before = unwrapped;
    out.add(t, rate_Hz * t - unwrapped);
  }
  return out;
}

LineTest testLine(const Series& series, const Series& phase, double order) {
  if (phase.size() < 4) return {};
  const Windowed windowed(series, phase);
  const double power = windowed.power(order);
  const double beside = windowed.besides(order);
  LineTest out;
  out.amplitude = std::sqrt(power);
  out.otherAmplitude = std::sqrt(beside);
  if (beside > 0.0) out.chance = upperTail(power / beside, 2.0, 2.0 * windowed.counted());
  return out;
}

LineTest testHalfRate(const Series& series, const Series& phase) {
  LineTest out;
  if (phase.size() < 4) return out;
  const Windowed windowed(series, phase);
  double ratio = 0.0;
  double free = 0.0;
  for (const double order : {0.5, 1.5}) {
    const double beside = windowed.besides(order);
    if (!(beside > 0.0)) return out;
    const double power = windowed.power(order);
    ratio += 0.5 * power / beside;
    free += 2.0 * windowed.counted();
    out.amplitude = std::max(out.amplitude, std::sqrt(power));
  }
  out.chance = upperTail(ratio, 4.0, free);
  return out;
}

}  // namespace fin
