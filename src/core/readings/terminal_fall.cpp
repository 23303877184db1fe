// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/terminal_fall.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>

#include "core/signals/serial_correlation.h"

namespace fin {
namespace {

double logCosh(double x) {
  const double a = std::abs(x);
  return a + std::log1p(std::exp(-2.0 * a)) - std::log(2.0);
}

/// Depth and steady speed are linear once start and time constant are given.
class FallProblem {
 public:
  explicit FallProblem(const Series& depth) : depth_(depth) {}

  struct Solution {
    double speed = 0.0;
    double rss = 0.0;
  };

  [[nodiscard]] double shape(double t, double start, double tau) const {
    return t <= start ? 0.0 : tau * logCosh((t - start) / tau);
  }

  [[nodiscard]] Solution solve(double start, double tau) const {
    double g = 0.0, gg = 0.0, y = 0.0, gy = 0.0, yy = 0.0;
    for (std::size_t i = 0; i < depth_.size(); ++i) {
      const double s = shape(depth_.t_s[i], start, tau);
      g += s;
      gg += s * s;
      y += depth_.y[i];
      gy += s * depth_.y[i];
      yy += depth_.y[i] * depth_.y[i];
    }
    const auto n = static_cast<double>(depth_.size());
    const double spread = gg - g * g / n;
    const double covariance = gy - g * y / n;
    const double total = yy - y * y / n;
    if (spread <= 1e-12) return {0.0, total};
    return {covariance / spread, std::max(total - covariance * covariance / spread, 0.0)};
  }

  [[nodiscard]] const Series& depth() const { return depth_; }

 private:
  const Series& depth_;
};

struct Shape {
  double start;
  double tau;
};

Shape coarse(const FallProblem& problem, double span) {
  const double first = problem.depth().t_s.front();
  Shape best{first, 0.1 * span};
  double least = problem.solve(best.start, best.tau).rss;
  for (int i = -20; i <= 40; ++i) {
    for (int j = 0; j < 28; ++j) {
      const Shape s{first + 0.02 * i * span, 0.004 * span * std::pow(1.2, j)};
      const auto solution = problem.solve(s.start, s.tau);
      if (solution.speed > 0.0 && solution.rss < least) {
        least = solution.rss;
        best = s;
      }
    }
  }
  return best;
}

/// Pattern search: halving steps until they are small against the spacing of the frames.
Shape fine(const FallProblem& problem, Shape s, double span) {
  double stepStart = 0.02 * span;
  double stepTau = 0.1;  // of tau
  double least = problem.solve(s.start, s.tau).rss;
  while (stepStart > 1e-5 * span) {
    bool better = false;
    for (const auto& [ds, dt] : {std::pair{1.0, 0.0},
                                 {-1.0, 0.0},
                                 {0.0, 1.0},
                                 {0.0, -1.0},
                                 {1.0, 1.0},
                                 {-1.0, -1.0},
                                 {1.0, -1.0},
                                 {-1.0, 1.0}}) {
      const Shape next{s.start + ds * stepStart, s.tau * (1.0 + dt * stepTau)};
      const auto solution = problem.solve(next.start, next.tau);
      if (solution.speed > 0.0 && solution.rss < least) {
        least = solution.rss;
        s = next;
        better = true;
      }
    }
    if (!better) {
      stepStart *= 0.5;
      stepTau *= 0.5;
    }
  }
  return s;
}

void addUncertainty(const FallProblem& problem, TerminalFall& fall) {
  const Series& d = problem.depth();
  const auto n = static_cast<Eigen::Index>(d.size());
  const auto model = [&](double t, double start, double tau, double speed) {
    return speed * problem.shape(t, start, tau);
  };
  Eigen::Matrix<double, Eigen::Dynamic, 4> j(n, 4);
  Eigen::VectorXd r(n);
  const double h = 1e-4 * fall.timeConstant_s;
  for (Eigen::Index i = 0; i < n; ++i) {
    const double t = d.t_s[static_cast<std::size_t>(i)];
    const double at = model(t, fall.start_s, fall.timeConstant_s, fall.steadySpeed);
    j(i, 0) = 1.0;
    j(i, 1) = problem.shape(t, fall.start_s, fall.timeConstant_s);
    j(i, 2) = (model(t, fall.start_s + h, fall.timeConstant_s, fall.steadySpeed) - at) / h;
    j(i, 3) = (model(t, fall.start_s, fall.timeConstant_s + h, fall.steadySpeed) - at) / h;
    r[i] = d.y[static_cast<std::size_t>(i)] - at;
  }
  r.array() -= r.mean();
  fall.residualSd = std::sqrt(r.squaredNorm() / std::max<double>(static_cast<double>(n) - 4.0, 1.0));
  const double variance =
      fall.residualSd * fall.residualSd * correlationInflation({r.data(), static_cast<std::size_t>(n)});
  const Eigen::Matrix4d normal = j.transpose() * j;
  const Eigen::Matrix4d covariance = normal.fullPivLu().inverse() * variance;
  fall.speedSd = std::sqrt(std::max(covariance(1, 1), 0.0));
  fall.timeConstantSd_s = std::sqrt(std::max(covariance(3, 3), 0.0));
}

}  // namespace

double TerminalFall::settled_s() const {
  return start_s + kSettledAt * timeConstant_s;
}
double TerminalFall::settleDistance() const {
  return kSettledDrop * steadySpeed * timeConstant_s;
}

Result<TerminalFall> fitTerminalFall(const Series& depth, double until_s) {
  const Series part = depth.empty() ? depth : depth.between(depth.t_s.front(), until_s);
  if (part.size() < 12) return failure(ErrorCode::Unsupported, "too few frames show the fall");
  const double span = part.span_s();
  const FallProblem problem(part);
  const Shape s = fine(problem, coarse(problem, span), span);
  TerminalFall fall;
  fall.start_s = s.start;
  fall.timeConstant_s = s.tau;
  fall.steadySpeed = problem.solve(s.start, s.tau).speed;
  if (fall.steadySpeed <= 0.0) return failure(ErrorCode::Unsupported, "the lure does not fall");
  addUncertainty(problem, fall);
  return fall;
}

std::optional<double> touchDown(const Series& depth, double window_s) {
  if (depth.span_s() < 3.0 * window_s) return std::nullopt;
  const auto depthAt = [&](double t) {
    const auto after = std::lower_bound(depth.t_s.begin(), depth.t_s.end(), t);
    if (after == depth.t_s.begin()) return depth.y.front();
    if (after == depth.t_s.end()) return depth.y.back();
    const auto i = static_cast<std::size_t>(after - depth.t_s.begin());
    const double share = (t - depth.t_s[i - 1]) / (depth.t_s[i] - depth.t_s[i - 1]);
    return depth.y[i - 1] + share * (depth.y[i] - depth.y[i - 1]);
  };
  const auto speedAfter = [&](double t) { return (depthAt(t + window_s) - depthAt(t)) / window_s; };
  std::vector<double> speeds;
  for (double t : depth.t_s) {
    if (t + window_s <= depth.t_s.back()) speeds.push_back(speedAfter(t));
  }
  std::vector<double> falling;
  const double fastest = *std::max_element(speeds.begin(), speeds.end());
  for (double v : speeds) {
    if (v > 0.3 * fastest) falling.push_back(v);
  }
  const double half = 0.5 * median(falling);
  // From the end back: as long as the speed stays low, the lure has landed.
  std::size_t landed = speeds.size();
  while (landed > 0 && speeds[landed - 1] < half) --landed;
  if (landed == speeds.size() || landed == 0) return std::nullopt;
  // The window that began here still held half its fall.
  return depth.t_s[landed] + 0.5 * window_s;
}

}  // namespace fin
