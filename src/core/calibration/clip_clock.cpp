// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/calibration/clip_clock.h"

#include <cmath>

namespace fin {

constexpr double kHighestRate_Hz = 100000.0;

Result<ClipClock> ClipClock::create(const ClipIndex& index, std::optional<Hertz> captureRate) {
  if (!captureRate) return ClipClock(index, 1.0, false);
  const double rate = captureRate->value();
  if (!std::isfinite(rate) || rate <= 0.0 || rate > kHighestRate_Hz) {
    return failure(ErrorCode::BadRequest, "capture_rate must be the frames a camera takes in a second",
                   "capture_rate");
  }
  const double played = index.regularRate().value();
  return ClipClock(index, played > 0.0 ? played / rate : 1.0, true);
}

}  // namespace fin
