// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string_view>
#include <vector>

#include "core/comparison/compared_passes.h"
#include "core/units/result.h"

namespace fin {

/// How a reading of the control rig wandered over the day: a straight line through its passes by their time.
struct ControlDrift {
  std::size_t passes = 0;
  double perHour = 0.0;   ///< in the reading's unit
  double u95 = 0.0;       ///< of it, by Student's t from the scatter about the line
  double middle_h = 0.0;  ///< mean time of the control's passes, hours since 1970
  bool seen = false;      ///< the line is steeper than its uncertainty
};

/// Ordinary least squares and the interval of a slope by Student's t (N. Draper & H. Smith, Applied
/// Regression Analysis); checked against a line of known slope. It takes the drift as straight over the day.
/// Of the control rig's passes; of pulls those at the speed at which it was pulled most. BadRequest with what
/// is missing: three passes of the control rig with this reading at different times.
Result<ControlDrift> driftOf(const std::vector<ComparedPass>& passes, ReadingId reading);

}  // namespace fin
