// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/yaw_fit.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <numbers>
#include <unsupported/Eigen/NonLinearOptimization>
#include <unsupported/Eigen/NumericalDiff>

#include "core/signals/line_power.h"
#include "core/signals/serial_correlation.h"
#include "core/units/estimate.h"

namespace fin {
namespace {

constexpr double kTurn_rad = 2.0 * std::numbers::pi;
constexpr double kSamplesOfCycle = 28.0;
constexpr double kDriftShare = 0.05;  ///< of the length over half the view, as the distance changes
constexpr double kUsualHeading_rad = 20.0 / kNormal95 / kDegreesPerRadian;  ///< where none is stated
constexpr double kLever_rad = 2.0 / kDegreesPerRadian;  ///< of what lies before and behind the turning point
constexpr double kUpper = 0.15 / kNormal95;             ///< harmonics, of the fundamental
constexpr double kPose_px = 0.2;
constexpr double kSlidesOfRoll = 0.15;  ///< by which marks slide on a body that rolls, of its flank's swing
constexpr double kKnownFocal = 0.01;    ///< of it, standard deviation
constexpr double kGuessedFocal = 0.25;  ///< the usual lens of one camera is not that of another
constexpr double kPlaced_px = 0.8;      ///< by which both ends may be off, along the body
constexpr double kUneven = 0.08;        ///< of a cycle's length
constexpr int kMostSteps = 400;         ///< evaluations

// Where the parameters stand; phase knots from kKnots on.
enum Parameter {
  kWhole,
  kDrift1,
  kDrift2,
  kHeading,
  kSwing,
  kHarmonics,
  kPoses = kHarmonics + 4,
  kFocal = kPoses + 4,
  kKnots
};

/// A cubic B-spline with even knots.
struct Spline {
  double from_s = 0.0;
  double step_s = 1.0;
  Eigen::Index knots = 0;

  template <class Knots>
  [[nodiscard]] double at(double t, const Knots& knot) const {
    const double u = (t - from_s) / step_s;
    const auto k = std::clamp<Eigen::Index>(static_cast<Eigen::Index>(std::floor(u)), 0, knots - 4);
    const double s = u - static_cast<double>(k);
    const double r = 1.0 - s;
    return (r * r * r * knot[k] + (3.0 * s * s * s - 6.0 * s * s + 4.0) * knot[k + 1] +
            (3.0 * r * r * r - 6.0 * r * r + 4.0) * knot[k + 2] + s * s * s * knot[k + 3]) /
           6.0;
  }
};

double yawAt(const Eigen::VectorXd& x, double phase) {
  return x[kSwing] * (std::sin(phase) + x[kHarmonics] * std::cos(2.0 * phase) +
                      x[kHarmonics + 1] * std::sin(2.0 * phase) + x[kHarmonics + 2] * std::cos(3.0 * phase) +
                      x[kHarmonics + 3] * std::sin(3.0 * phase));
}

double peakToPeakOf(const Eigen::VectorXd& x) {
  double least = 0.0;
  double most = 0.0;
  for (int i = 0; i < 360; ++i) {
    const double yaw = yawAt(x, kTurn_rad * i / 360.0);
    least = std::min(least, yaw);
    most = std::max(most, yaw);
  }
  return most - least;
}

struct Sample {
  double t_s = 0.0;
  double length_px = 0.0;
  double sight_rad = 0.0;
};

/// Means of neighbouring samples, some 28 a cycle at most.
std::vector<Sample> thinned(const SightTrace& trace, double rate_Hz) {
  const auto stride =
      std::max<std::size_t>(1, static_cast<std::size_t>(trace.frameRate_Hz / rate_Hz / kSamplesOfCycle));
  std::vector<Sample> out;
  for (std::size_t i = 0; i + stride <= trace.frames(); i += stride) {
    Sample mean;
    for (std::size_t k = i; k < i + stride; ++k) {
      mean.t_s += trace.t_s[k];
      mean.length_px += trace.length_px[k];
      mean.sight_rad += trace.sight_rad[k];
    }
    const auto n = static_cast<double>(stride);
    out.push_back({mean.t_s / n, mean.length_px / n, mean.sight_rad / n});
  }
  return out;
}

class YawProblem {
 public:
  using Scalar = double;
  using InputType = Eigen::VectorXd;
  using ValueType = Eigen::VectorXd;
  using JacobianType = Eigen::MatrixXd;
  enum { InputsAtCompileTime = Eigen::Dynamic, ValuesAtCompileTime = Eigen::Dynamic };

  YawProblem(const SightTrace& trace, double rate_Hz)
      : rate_Hz_(rate_Hz),
        samples_(thinned(trace, rate_Hz)),
        view_(trace.view),
        pose_px_(std::hypot(kPose_px, kSlidesOfRoll * trace.rollSwing_px)) {
    const double from = samples_.front().t_s;
    const double to = samples_.back().t_s;
    middle_s_ = 0.5 * (from + to);
    half_s_ = 0.5 * (to - from);
    const auto pieces =
        std::max<Eigen::Index>(1, static_cast<Eigen::Index>(std::ceil((to - from) * rate_Hz)));
    spline_ = {from, (to - from) / static_cast<double>(pieces) * (1.0 + 1e-9), pieces + 3};
    std::vector<double> lengths;
    for (const Sample& s : samples_) lengths.push_back(s.length_px);
    std::sort(lengths.begin(), lengths.end());
    longest_px_ = lengths[static_cast<std::size_t>(0.9 * static_cast<double>(lengths.size() - 1))];
    whole_px_ = view_.whole_px.value_or(longest_px_);
  }

  [[nodiscard]] int inputs() const { return static_cast<int>(kKnots + spline_.knots); }
  [[nodiscard]] int values() const {
    return static_cast<int>(samples_.size()) + kKnots + static_cast<int>(spline_.knots);
  }
  void believe(double noise_px) { noise_px_ = noise_px; }

  [[nodiscard]] double phaseAt(const Eigen::VectorXd& x, double t) const {
    return kTurn_rad * rate_Hz_ * (t - middle_s_) + spline_.at(t, x.tail(spline_.knots));
  }
  [[nodiscard]] double wholePx(const Eigen::VectorXd& x) const { return whole_px_ * std::exp(x[kWhole]); }

  [[nodiscard]] double modelAt(const Eigen::VectorXd& x, const Sample& s) const {
    const double phase = phaseAt(x, s.t_s);
    const double tau = (s.t_s - middle_s_) / half_s_;
    const double whole = wholePx(x) * (1.0 + x[kDrift1] * tau + x[kDrift2] * (tau * tau - 1.0 / 3.0));
    // A lens that is longer than taken for sees the body under a smaller angle.
    const double sight = std::atan(std::tan(s.sight_rad) * std::exp(-x[kFocal]));
    const double seen = std::cos(s.sight_rad) / std::cos(sight);
    return whole * seen * std::cos(x[kHeading] + sight + yawAt(x, phase)) + x[kPoses] * std::cos(phase) +
           x[kPoses + 1] * std::sin(phase) + x[kPoses + 2] * std::cos(2.0 * phase) +
           x[kPoses + 3] * std::sin(2.0 * phase);
  }

  int operator()(const Eigen::VectorXd& x, Eigen::VectorXd& out) const {
    Eigen::Index row = 0;
    for (const Sample& s : samples_) out[row++] = (s.length_px - modelAt(x, s)) / noise_px_;
    const double placed = kPlaced_px / whole_px_;
    const double whole = view_.whole_px ? std::hypot(view_.wholeRelativeU95 / kNormal95, placed) : 0.3;
    out[row++] = x[kWhole] / whole;
    out[row++] = x[kDrift1] / kDriftShare;
    out[row++] = x[kDrift2] / kDriftShare;
    const double heading = view_.heading_rad ? view_.headingU95_rad / kNormal95 : kUsualHeading_rad;
    out[row++] = (x[kHeading] - view_.heading_rad.value_or(0.0)) / std::hypot(heading, kLever_rad);
    out[row++] = 0.0;
    for (int h = 0; h < 4; ++h) out[row++] = x[kHarmonics + h] / kUpper;
    for (int h = 0; h < 4; ++h) out[row++] = x[kPoses + h] / pose_px_;
    out[row++] = x[kFocal] / (view_.focal_px ? kKnownFocal : kGuessedFocal);
    // From knot to knot, a cycle apart, the phase goes on evenly but for the cycle's own length.
    out[row++] = x[kKnots] / 10.0;
    for (Eigen::Index k = 1; k < spline_.knots; ++k)
      out[row++] = (x[kKnots + k] - x[kKnots + k - 1]) / (kTurn_rad * kUneven);
    return 0;
  }

  [[nodiscard]] Eigen::VectorXd startAt(double swing_rad, double heading_rad, double phase_rad) const {
    Eigen::VectorXd x = Eigen::VectorXd::Zero(inputs());
    x[kSwing] = swing_rad;
    x[kHeading] = heading_rad;
    x.tail(spline_.knots).setConstant(phase_rad);
    return x;
  }
  [[nodiscard]] std::vector<double> residuals(const Eigen::VectorXd& x) const {
    std::vector<double> out;
    for (const Sample& s : samples_) out.push_back(s.length_px - modelAt(x, s));
    return out;
  }
  [[nodiscard]] const std::vector<Sample>& samples() const { return samples_; }
  [[nodiscard]] const Spline& spline() const { return spline_; }
  [[nodiscard]] double middle_s() const { return middle_s_; }

 private:
  double rate_Hz_;
  std::vector<Sample> samples_;
  SightView view_;
  double pose_px_;
  Spline spline_;
  double middle_s_ = 0.0;
  double half_s_ = 1.0;
  double longest_px_ = 0.0;
  double whole_px_ = 0.0;
  double noise_px_ = 1.0;
};

using Differentiated = Eigen::NumericalDiff<YawProblem>;

double improve(const YawProblem& problem, Eigen::VectorXd& x) {
  Differentiated differentiated(problem);
  Eigen::LevenbergMarquardt<Differentiated> solver(differentiated);
  solver.parameters.maxfev = kMostSteps;
  solver.parameters.xtol = 1e-6;
  solver.parameters.ftol = 1e-6;
  solver.minimize(x);
  return solver.fnorm;
}

/// Half of what an angle swings, what it heads and where in its cycle it is: one of several to begin with.
std::vector<Eigen::VectorXd> startsOf(const YawProblem& problem, const SightView& view) {
  std::vector<Eigen::VectorXd> out;
  const std::vector<double> headings =
      view.heading_rad ? std::vector{*view.heading_rad} : std::vector{0.02, 0.15};
  for (const double heading : headings) {
    for (const double swing : {8.0, 18.0}) {
      for (int quarter = 0; quarter < 4; ++quarter)
        out.push_back(problem.startAt(swing / kDegreesPerRadian, heading, kTurn_rad * quarter / 4.0));
    }
  }
  return out;
}

/// Of the starts that fit best already, each improved, the one that ends best.
Eigen::VectorXd bestOf(const YawProblem& problem, std::vector<Eigen::VectorXd> starts) {
  constexpr std::size_t kImproved = 4;
  Eigen::VectorXd left(problem.values());
  const auto misfit = [&](const Eigen::VectorXd& x) {
    problem(x, left);
    return left.norm();
  };
  std::sort(starts.begin(), starts.end(),
            [&](const auto& a, const auto& b) { return misfit(a) < misfit(b); });
  starts.resize(std::min(starts.size(), kImproved));
  for (Eigen::VectorXd& x : starts) improve(problem, x);
  return *std::min_element(starts.begin(), starts.end(),
                           [&](const auto& a, const auto& b) { return misfit(a) < misfit(b); });
}

/// The phase's slope over time, as weights on its knots: turns per second for a radian each.
Eigen::VectorXd slopeWeights(const YawProblem& problem) {
  Eigen::VectorXd weights = Eigen::VectorXd::Zero(problem.spline().knots);
  double squares = 0.0;
  for (const Sample& s : problem.samples()) squares += std::pow(s.t_s - problem.middle_s(), 2);
  for (Eigen::Index k = 0; k < weights.size(); ++k) {
    Eigen::VectorXd one = Eigen::VectorXd::Zero(weights.size());
    one[k] = 1.0;
    for (const Sample& s : problem.samples())
      weights[k] += (s.t_s - problem.middle_s()) * problem.spline().at(s.t_s, one) / squares / kTurn_rad;
  }
  return weights;
}

}  // namespace

Result<YawFit> fitYaw(const SightTrace& trace, double rate_Hz) {
  YawProblem problem(trace, rate_Hz);
  const Series length{trace.t_s, trace.length_px};
  problem.believe(std::max(2.0 * frameNoise(length), 0.3));
  Eigen::VectorXd best = bestOf(problem, startsOf(problem, trace.view));
  // How far to believe it, by what it leaves.
  const std::vector<double> left = problem.residuals(best);
  double squares = 0.0;
  for (const double r : left) squares += r * r;
  const double rms = std::sqrt(squares / static_cast<double>(left.size()));
  problem.believe(std::max(rms * std::sqrt(correlationInflation(left)), 0.05));
  improve(problem, best);

  Differentiated differentiated(problem);
  Eigen::MatrixXd slopes(problem.values(), problem.inputs());
  differentiated.df(best, slopes);
  Eigen::MatrixXd normal = slopes.transpose() * slopes;
  normal(kSwing, kSwing) += 1e-9;
  const Eigen::MatrixXd covariance =
      normal.ldlt().solve(Eigen::MatrixXd::Identity(normal.rows(), normal.cols()));

  YawFit out;
  for (const Sample& sample : problem.samples())
    out.yaw_deg.add(sample.t_s, kDegreesPerRadian * yawAt(best, problem.phaseAt(best, sample.t_s)));
  const Eigen::VectorXd weights = slopeWeights(problem);
  const Eigen::Index knots = weights.size();
  out.frequencySd_Hz =
      std::sqrt(std::max(0.0, weights.dot(covariance.bottomRightCorner(knots, knots) * weights)));
  out.peakToPeak_deg = kDegreesPerRadian * peakToPeakOf(best);
  Eigen::VectorXd gradient = Eigen::VectorXd::Zero(best.size());
  for (Eigen::Index i = kSwing; i < kPoses; ++i) {
    Eigen::VectorXd moved = best;
    moved[i] += 1e-4;
    gradient[i] = kDegreesPerRadian * (peakToPeakOf(moved) - peakToPeakOf(best)) / 1e-4;
  }
  out.peakToPeakU95_deg = kNormal95 * std::sqrt(std::max(0.0, gradient.dot(covariance * gradient)));
  out.heading_deg = kDegreesPerRadian * best[kHeading];
  out.whole_px = problem.wholePx(best);
  std::vector<double> steps;
  for (Eigen::Index k = 1; k < knots; ++k) {
    const Eigen::Index i = kKnots + k;
    steps.push_back(covariance(i, i) + covariance(i - 1, i - 1) - 2.0 * covariance(i, i - 1));
  }
  // In the middle of a crossing nothing is seen of them: the median tells.
  out.cycleNoise_percent = 100.0 * std::sqrt(std::max(0.0, median(steps))) / kTurn_rad;
  return out;
}

}  // namespace fin
