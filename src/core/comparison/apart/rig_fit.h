// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <optional>
#include <vector>

#include "core/units/result.h"

namespace fin {

/// One value of one rig, on the scale on which rigs are compared (readings/registry.h).
struct FitValue {
  std::size_t rig = 0;
  double y = 0.0;
  double ownSd = 0.0;                   ///< of it, without what all values share
  std::optional<int> block = {};        ///< of the day's sheet
  std::optional<double> logSpeed = {};  ///< natural logarithm, of the pull
  std::optional<double> hour = {};      ///< when
};

/// What two rigs differ by.
struct FittedPair {
  double difference = 0.0;
  double variance = 0.0;  ///< of it
  double degrees = 0.0;   ///< of freedom

  [[nodiscard]] double t() const;
};

/// What is not the rig's, as far as it is taken into account.
struct Adjusted {
  bool blocks = false;
  bool speed = false;
  bool hours = false;
};

/// A day's values of one reading as rigs, blocks of the sheet, pull speed and drift make them.
///
/// Model: least squares by a QR that pivots columns. A column for each rig; then, about their own means,
/// blocks, the logarithm of the pull speed where six degrees of freedom are left beside it, and hours where
/// nothing was blocked. With three rigs blocks stay out where they scatter less than passes do. A rig's
/// variance is drawn towards that of all, with the weight of four degrees of freedom (G. Smyth, Linear models
/// and empirical Bayes methods, 2004, with its prior weight fixed); it is no less than what values are unsure
/// by themselves, unless their scatter refutes that, nor than rounding to whole steps. Two rigs are compared
/// as B. Welch, 1947, has it, without blocks. Rigs that no block joins are not compared. Checked against
/// worked examples. It misleads where the drift of a day is far from even and nothing was blocked.
class RigFit {
 public:
  /// `step` is the least difference between counts; 0 for what is not counted. Errors: BadRequest with what
  /// is missing: fewer than two rigs with two values, fewer than two degrees of freedom, no scatter at all.
  static Result<RigFit> of(std::vector<FitValue> values, std::size_t rigs, double step = 0.0);

  [[nodiscard]] double mean(std::size_t rig) const { return means_[rig]; }
  /// Of two rigs' means; of one rig's mean where they are the same.
  [[nodiscard]] double covariance(std::size_t i, std::size_t j) const;
  [[nodiscard]] FittedPair pair(std::size_t i, std::size_t j) const;
  [[nodiscard]] bool joined(std::size_t i, std::size_t j) const { return island_[i] == island_[j]; }
  /// How much each value counts in a rig's mean, in the order in which they were given.
  [[nodiscard]] const std::vector<double>& weights(std::size_t rig) const { return weights_[rig]; }

  [[nodiscard]] double degrees() const { return degrees_; }
  [[nodiscard]] double variance() const { return variance_; }
  /// Steadied, of a single value of a rig.
  [[nodiscard]] double varianceOf(std::size_t rig) const { return rigVariances_[rig]; }
  /// How many degrees of freedom a rig's own values bring.
  [[nodiscard]] double ownDegrees(std::size_t rig) const { return ownDegrees_[rig]; }
  [[nodiscard]] double degreesOf(std::size_t rig) const { return rigDegrees_[rig]; }
  [[nodiscard]] const Adjusted& adjusted() const { return adjusted_; }

 private:
  RigFit() = default;
  void fit();
  [[nodiscard]] double blockMeanSquare() const;
  void findIslands();
  void steadyVariances(double step);
  [[nodiscard]] std::size_t countOf(std::size_t rig) const;

  std::vector<FitValue> values_;
  std::size_t rigs_ = 0;
  Adjusted adjusted_;
  std::vector<double> means_;
  std::vector<std::vector<double>> weights_;  ///< [rig][value]
  std::vector<std::size_t> island_;
  std::vector<double> squares_, ownDegrees_, rigVariances_, rigDegrees_;
  double degrees_ = 0.0;
  double residual_ = 0.0;  ///< sum of squares
  double variance_ = 0.0;
  bool welch_ = false;
};

}  // namespace fin
