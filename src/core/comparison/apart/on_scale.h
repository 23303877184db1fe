// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

#include "core/comparison/apart/rig_fit.h"
#include "core/comparison/spread.h"

namespace fin {

/// The values of several rigs on the scale on which they are compared, repeats of one tying averaged.
struct OnScale {
  Scaling scaling = Scaling::Difference;
  std::vector<FitValue> values;
  std::vector<std::string> cameraDays;  ///< by value
  std::vector<double> shared;  ///< by value: half-width through the known length of its camera and day

  int lengths = 0;  ///< as lengthsIn()

  [[nodiscard]] bool oneCameraDay() const;
  /// A mean, back in the reading's unit.
  [[nodiscard]] double back(double y) const;
  /// A difference on the scale as it is told: a ratio less one; as it is; of shares percentage points, as
  /// they are about the middle (towards nothing and all there are fewer).
  [[nodiscard]] double told(double difference) const;
  /// The other way.
  [[nodiscard]] double untold(double told) const;
};

/// Ratios are left where a value is not above nought, or unsure by more than a quarter of itself. Repeats of
/// one tying are those of one rig in one block at one speed, unless it was tied on for each of them.
OnScale onScale(const std::vector<const ComparedRig*>& rigs, Scaling usual, int lengthsWithin);

}  // namespace fin
