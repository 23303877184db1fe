// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/apart/rig_fit.h"

#include <Eigen/QR>
#include <algorithm>
#include <boost/math/distributions/chi_squared.hpp>
#include <cmath>
#include <map>
#include <set>

namespace fin {
namespace {

constexpr double kPriorDegrees = 4.0;
constexpr double kFewestDegrees = 2.0;
constexpr double kDegreesForSpeed = 6.0;  ///< left beside it
constexpr double kNoScatter = 1e-24;      ///< of the squares: what is left is rounding
constexpr double kRefuted = 0.05;         ///< chance of so little scatter

/// About its own mean.
void addColumn(Eigen::MatrixXd& x, const Eigen::VectorXd& column) {
  x.conservativeResize(Eigen::NoChange, x.cols() + 1);
  x.col(x.cols() - 1) = column.array() - column.mean();
}

Eigen::MatrixXd designOf(const std::vector<FitValue>& values, std::size_t rigs, const Adjusted& adjusted) {
  const auto n = static_cast<Eigen::Index>(values.size());
  Eigen::MatrixXd x = Eigen::MatrixXd::Zero(n, static_cast<Eigen::Index>(rigs));
  for (Eigen::Index k = 0; k < n; ++k) x(k, static_cast<Eigen::Index>(values[k].rig)) = 1.0;
  const auto column = [&](const auto& of) -> Eigen::VectorXd {
    Eigen::VectorXd out(n);
    for (Eigen::Index k = 0; k < n; ++k) out[k] = of(values[k]);
    return out;
  };
  if (adjusted.blocks) {
    std::set<int> blocks;
    for (const FitValue& v : values) blocks.insert(*v.block);
    for (auto block = std::next(blocks.begin()); block != blocks.end(); ++block)
      addColumn(x, column([&](const FitValue& v) { return *v.block == *block ? 1.0 : 0.0; }));
  }
  if (adjusted.speed) addColumn(x, column([](const FitValue& v) { return *v.logSpeed; }));
  if (adjusted.hours) addColumn(x, column([](const FitValue& v) { return *v.hour; }));
  return x;
}

struct Solved {
  Eigen::VectorXd residuals;
  Eigen::VectorXd leverage;
  Eigen::MatrixXd inverse;  ///< columns by values: what each value counts for
  double degrees = 0.0;
};

Solved solve(const Eigen::MatrixXd& x, const Eigen::VectorXd& y) {
  const Eigen::CompleteOrthogonalDecomposition<Eigen::MatrixXd> qr(x);
  Solved out;
  out.inverse = qr.pseudoInverse();
  out.residuals = y - x * (out.inverse * y);
  out.leverage = (x * out.inverse).diagonal();
  out.degrees = static_cast<double>(x.rows() - qr.rank());
  return out;
}

Eigen::VectorXd yOf(const std::vector<FitValue>& values) {
  Eigen::VectorXd y(static_cast<Eigen::Index>(values.size()));
  for (std::size_t k = 0; k < values.size(); ++k) y[static_cast<Eigen::Index>(k)] = values[k].y;
  return y;
}

template <class Has>
bool all(const std::vector<FitValue>& values, const Has& has) {
  return std::all_of(values.begin(), values.end(), has);
}
template <class Of>
bool differ(const std::vector<FitValue>& values, const Of& of) {
  return std::any_of(values.begin(), values.end(),
                     [&](const FitValue& v) { return of(v) != of(values.front()); });
}

}  // namespace

double FittedPair::t() const {
  return variance > 0.0 ? difference / std::sqrt(variance) : 0.0;
}

Result<RigFit> RigFit::of(std::vector<FitValue> values, std::size_t rigs, double step) {
  RigFit out;
  out.values_ = std::move(values);
  out.rigs_ = rigs;
  std::size_t repeated = 0;
  for (std::size_t i = 0; i < rigs; ++i) repeated += out.countOf(i) >= 2 ? 1 : 0;
  if (repeated < 2)
    return failure(ErrorCode::BadRequest,
                   "two rigs with two passes each are needed to see how passes differ");
  const auto& v = out.values_;
  const bool two = rigs == 2;
  const bool blocked = all(v, [](const FitValue& f) { return f.block.has_value(); }) &&
                       differ(v, [](const FitValue& f) { return f.block; });
  out.adjusted_.blocks = !two && blocked;
  out.adjusted_.hours = !two && !blocked && all(v, [](const FitValue& f) { return f.hour.has_value(); }) &&
                        differ(v, [](const FitValue& f) { return f.hour; });
  out.fit();
  if (out.adjusted_.blocks && rigs == 3 && out.blockMeanSquare() < out.variance_) {
    out.adjusted_.blocks = false;
    out.fit();
  }
  if (out.degrees_ > kDegreesForSpeed && !two &&
      all(v, [](const FitValue& f) { return f.logSpeed.has_value(); }) &&
      differ(v, [](const FitValue& f) { return f.logSpeed; })) {
    out.adjusted_.speed = true;
    out.fit();
  }
  if (out.degrees_ < kFewestDegrees)
    return failure(ErrorCode::BadRequest,
                   "too few passes to see how they differ: one more of each rig is needed");
  out.welch_ = two;
  out.steadyVariances(step);
  if (!std::all_of(out.rigVariances_.begin(), out.rigVariances_.end(), [](double s) { return s > 0.0; }))
    return failure(ErrorCode::BadRequest, "all passes read the same, and nothing says how unsure they are");
  out.findIslands();
  return out;
}

std::size_t RigFit::countOf(std::size_t rig) const {
  return static_cast<std::size_t>(
      std::count_if(values_.begin(), values_.end(), [rig](const FitValue& v) { return v.rig == rig; }));
}

void RigFit::fit() {
  const Solved solved = solve(designOf(values_, rigs_, adjusted_), yOf(values_));
  degrees_ = solved.degrees;
  residual_ = solved.residuals.squaredNorm();
  if (residual_ < kNoScatter * yOf(values_).squaredNorm()) residual_ = 0.0;
  variance_ = degrees_ > 0.0 ? residual_ / degrees_ : 0.0;
  means_.assign(rigs_, 0.0);
  weights_.assign(rigs_, std::vector<double>(values_.size()));
  squares_.assign(rigs_, 0.0);
  ownDegrees_.assign(rigs_, 0.0);
  for (std::size_t k = 0; k < values_.size(); ++k) {
    const auto at = static_cast<Eigen::Index>(k);
    squares_[values_[k].rig] += residual_ > 0.0 ? solved.residuals[at] * solved.residuals[at] : 0.0;
    ownDegrees_[values_[k].rig] += 1.0 - solved.leverage[at];
    for (std::size_t i = 0; i < rigs_; ++i) {
      weights_[i][k] = solved.inverse(static_cast<Eigen::Index>(i), at);
      means_[i] += weights_[i][k] * values_[k].y;
    }
  }
}

/// By how much more the residuals scatter without blocks, for each degree of freedom that these take.
double RigFit::blockMeanSquare() const {
  Adjusted without = adjusted_;
  without.blocks = false;
  const Solved solved = solve(designOf(values_, rigs_, without), yOf(values_));
  return (solved.residuals.squaredNorm() - residual_) / std::max(solved.degrees - degrees_, 1.0);
}

/// Rigs are joined by the blocks that they were filmed in.
void RigFit::findIslands() {
  island_.assign(rigs_, 0);
  if (!adjusted_.blocks) return;
  for (std::size_t i = 0; i < rigs_; ++i) island_[i] = i;
  std::map<int, std::size_t> first;  // block → a rig in it
  for (const FitValue& v : values_) {
    const auto [known, fresh] = first.try_emplace(*v.block, v.rig);
    if (fresh || island_[known->second] == island_[v.rig]) continue;
    const std::size_t gone = island_[v.rig], into = island_[known->second];
    std::replace(island_.begin(), island_.end(), gone, into);
  }
}

void RigFit::steadyVariances(double step) {
  rigVariances_.assign(rigs_, 0.0);
  rigDegrees_.assign(rigs_, 0.0);
  const double refuted = residual_ / boost::math::quantile(boost::math::chi_squared(degrees_), kRefuted);
  for (std::size_t i = 0; i < rigs_; ++i) {
    double own = 0.0;
    for (const FitValue& v : values_) own += v.rig == i ? v.ownSd * v.ownSd : 0.0;
    own /= static_cast<double>(std::max<std::size_t>(countOf(i), 1));
    const double rounding = step * step / 12.0;
    if (welch_) {
      const double d = static_cast<double>(countOf(i)) - 1.0;
      rigVariances_[i] = std::max({d > 0.0 ? squares_[i] / d : 0.0, own, rounding});
      rigDegrees_[i] = d;
      continue;
    }
    const double steadied = (kPriorDegrees * variance_ + squares_[i]) / (kPriorDegrees + ownDegrees_[i]);
    const double floor = variance_ > 0.0 ? std::min(own, refuted) : own;
    rigVariances_[i] = std::max({steadied, floor, rounding});
    rigDegrees_[i] = std::min(kPriorDegrees + ownDegrees_[i], degrees_);
  }
}

double RigFit::covariance(std::size_t i, std::size_t j) const {
  double out = 0.0;
  for (std::size_t k = 0; k < values_.size(); ++k)
    out += weights_[i][k] * weights_[j][k] * rigVariances_[values_[k].rig];
  return out;
}

FittedPair RigFit::pair(std::size_t i, std::size_t j) const {
  std::vector<double> parts(rigs_, 0.0);
  for (std::size_t k = 0; k < values_.size(); ++k) {
    const double a = weights_[i][k] - weights_[j][k];
    parts[values_[k].rig] += a * a * rigVariances_[values_[k].rig];
  }
  FittedPair out{.difference = means_[i] - means_[j]};
  double squares = 0.0;
  for (std::size_t r = 0; r < rigs_; ++r) {
    out.variance += parts[r];
    if (parts[r] > 0.0) squares += parts[r] * parts[r] / rigDegrees_[r];
  }
  out.degrees = out.variance * out.variance / squares;
  if (!welch_) out.degrees = std::min(out.degrees, degrees_);
  return out;
}

}  // namespace fin
