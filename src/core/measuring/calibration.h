// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <span>

#include "core/measuring/pass_request.h"

namespace fin {

/// What a request says of time, size, lines and lens.
inline const Calibration& calibrationOf(const PassRequest& request) {
  return request;
}
void applyCalibration(PassRequest& request, const Calibration& calibration);

/// Reads an interlaced clip by frames or by fields from now on; marks and window stay where they are in time.
void setByField(PassRequest& request, bool byField);

/// A filming rate that was said wrongly makes every frequency and every speed wrong by one and the same whole
/// factor.
struct WholeFactor {
  int factor = 1;
  bool tooSlow = false;  ///< reads slower than its peers
};

/// Whether a reading is a whole number of times larger or smaller than the median of the same reading in
/// other passes of the same rig. None where it is not, or where there is nothing to compare with.
std::optional<WholeFactor> wholeFactor(double value, std::span<const double> peers);

}  // namespace fin
