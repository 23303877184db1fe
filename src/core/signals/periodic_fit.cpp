// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/signals/periodic_fit.h"

#include <Eigen/Dense>
#include <algorithm>
#include <boost/math/tools/minima.hpp>
#include <cmath>
#include <numbers>
#include <optional>

#include "core/signals/periodogram.h"
#include "core/signals/serial_correlation.h"

namespace fin {
namespace {

constexpr double kTwoPi = 2.0 * std::numbers::pi;
constexpr std::size_t kPeaksTried = 5;
constexpr double kLeastFundamental = 0.12;  ///< of the strongest harmonic
constexpr double kResidualMustFall = 0.6;   ///< for a lower frequency to be taken

/// Least squares of a harmonic series at one frequency.
class HarmonicProblem {
 public:
  HarmonicProblem(const Series& series, int harmonics, double highest_Hz)
      : series_(series),
        harmonics_(harmonics),
        highest_Hz_(highest_Hz),
        middle_s_(0.5 * (series.t_s.front() + series.t_s.back())),
        y_(Eigen::Map<const Eigen::VectorXd>(series.y.data(), static_cast<Eigen::Index>(series.size()))) {}

  struct Solution {
    Eigen::VectorXd parameters;  // mean, then cosine and sine of each harmonic
    Eigen::VectorXd residuals;
    double rss = 0.0;
  };

  [[nodiscard]] int harmonicsAt(double frequency_Hz) const {
    return std::clamp(static_cast<int>(highest_Hz_ / frequency_Hz), 1, harmonics_);
  }

  [[nodiscard]] Eigen::MatrixXd design(double frequency_Hz) const {
    const int k = harmonicsAt(frequency_Hz);
    Eigen::MatrixXd a(y_.size(), 2 * k + 1);
    for (Eigen::Index i = 0; i < y_.size(); ++i) {
      const double phase = kTwoPi * frequency_Hz * (series_.t_s[static_cast<std::size_t>(i)] - middle_s_);
      a(i, 0) = 1.0;
      for (int h = 1; h <= k; ++h) {
        a(i, 2 * h - 1) = std::cos(h * phase);
        a(i, 2 * h) = std::sin(h * phase);
      }
    }
    return a;
  }

  [[nodiscard]] Solution solve(double frequency_Hz) const {
    const Eigen::MatrixXd a = design(frequency_Hz);
    Solution s;
    s.parameters = (a.transpose() * a).ldlt().solve(a.transpose() * y_);
    s.residuals = y_ - a * s.parameters;
    s.rss = s.residuals.squaredNorm();
    return s;
  }

  /// The frequency near a start where the residual is least.
  [[nodiscard]] double refine(double start_Hz, double reach_Hz) const {
    const auto rss = [this](double f) { return solve(f).rss; };
    return boost::math::tools::brent_find_minima(rss, start_Hz - reach_Hz, start_Hz + reach_Hz, 40).first;
  }

  /// Variance of the frequency for unit residual variance: the full problem's covariance.
  [[nodiscard]] double frequencyVariance(double frequency_Hz, const Solution& s) const {
    const Eigen::MatrixXd a = design(frequency_Hz);
    Eigen::MatrixXd full(a.rows(), a.cols() + 1);
    full.leftCols(a.cols()) = a;
    for (Eigen::Index i = 0; i < a.rows(); ++i) {
      const double t = series_.t_s[static_cast<std::size_t>(i)] - middle_s_;
      double slope = 0.0;
      for (Eigen::Index h = 1; 2 * h < a.cols(); ++h) {
        slope += kTwoPi * static_cast<double>(h) * t *
                 (s.parameters[2 * h] * a(i, 2 * h - 1) - s.parameters[2 * h - 1] * a(i, 2 * h));
      }
      full(i, a.cols()) = slope;
    }
    const Eigen::MatrixXd normal = full.transpose() * full;
    Eigen::VectorXd pick = Eigen::VectorXd::Zero(normal.cols());
    pick[normal.cols() - 1] = 1.0;
    return normal.ldlt().solve(pick)[normal.cols() - 1];
  }

  [[nodiscard]] const Eigen::VectorXd& y() const { return y_; }

 private:
  const Series& series_;
  int harmonics_;
  double highest_Hz_;
  double middle_s_;
  Eigen::VectorXd y_;
};

std::vector<double> amplitudesOf(const HarmonicProblem::Solution& s) {
  std::vector<double> out;
  for (Eigen::Index h = 1; 2 * h < s.parameters.size(); ++h) {
    out.push_back(std::hypot(s.parameters[2 * h - 1], s.parameters[2 * h]));
  }
  return out;
}

struct Candidate {
  double frequency_Hz;
  double rss;
};

std::optional<Candidate> tryFrequency(const HarmonicProblem& problem, double start_Hz, double reach_Hz,
                                      const PeriodicFitOptions& options) {
  if (start_Hz - reach_Hz < options.lowest_Hz || start_Hz > options.highest_Hz) return std::nullopt;
  const double f = problem.refine(start_Hz, reach_Hz);
  const auto solution = problem.solve(f);
  const std::vector<double> a = amplitudesOf(solution);
  if (a.front() < kLeastFundamental * *std::max_element(a.begin(), a.end())) return std::nullopt;
  return Candidate{f, solution.rss};
}

std::optional<Candidate> bestCandidate(const HarmonicProblem& problem, const Spectrum& spectrum,
                                       double width_Hz, const PeriodicFitOptions& options) {
  std::optional<Candidate> best;
  for (std::size_t peak : spectrumPeaks(spectrum, kPeaksTried)) {
    const auto c = tryFrequency(problem, spectrum.frequency_Hz[peak], 0.5 * width_Hz, options);
    if (c && (!best || c->rss < best->rss)) best = c;
  }
  if (!best) return best;
  for (double divisor : {2.0, 3.0}) {
    const auto lower = tryFrequency(problem, best->frequency_Hz / divisor, 0.5 * width_Hz / divisor, options);
    if (lower && lower->rss < kResidualMustFall * best->rss) return lower;
  }
  return best;
}

}  // namespace

Result<PeriodicFit> fitPeriodic(const Series& series, const PeriodicFitOptions& options) {
  if (series.size() < 8 || series.span_s() <= 0.0) {
    return failure(ErrorCode::Unsupported, "too few frames for a rhythm");
  }
  const double width = 1.0 / series.span_s();
  const Spectrum spectrum = periodogram(series, options.lowest_Hz, options.highest_Hz);
  const HarmonicProblem problem(series, options.harmonics, options.highest_Hz);
  const auto chosen = bestCandidate(problem, spectrum, width, options);
  if (!chosen) return failure(ErrorCode::Unsupported, "no rhythm lies within the measurable range");

  const double f = chosen->frequency_Hz;
  const auto solution = problem.solve(f);
  const auto n = static_cast<double>(series.size());
  const double freedom = std::max(n - static_cast<double>(solution.parameters.size()) - 1.0, 1.0);
  const double total = (problem.y().array() - problem.y().mean()).square().sum();
  PeriodicFit fit;
  fit.frequency_Hz = f;
  fit.mean = solution.parameters[0];
  fit.amplitudes = amplitudesOf(solution);
  fit.residualSd = std::sqrt(solution.rss / freedom);
  fit.explained = total > 0.0 ? 1.0 - solution.rss / total : 0.0;
  fit.frequencySd_Hz =
      fit.residualSd *
      std::sqrt(problem.frequencyVariance(f, solution) *
                correlationInflation(std::span(solution.residuals.data(),
                                               static_cast<std::size_t>(solution.residuals.size()))));
  fit.n = series.size();
  // Chance of so high a peak among M independent frequencies (Zechmeister & Kürster 2009, eq. 24).
  const double highest = *std::max_element(spectrum.power.begin(), spectrum.power.end());
  const double one = std::pow(1.0 - std::min(highest, 1.0), 0.5 * (n - 3.0));
  fit.chance = 1.0 - std::pow(1.0 - std::min(one, 1.0), (options.highest_Hz - options.lowest_Hz) / width);
  return fit;
}

}  // namespace fin
