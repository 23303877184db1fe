// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/calibration/clip_clock.h"

#include <cmath>

namespace fin {

Result<Hertz> rateFromInterval(const ClipIndex& index, std::size_t from, std::size_t to, Seconds trueTime) {
  if (from >= index.frameCount() || to >= index.frameCount() || from == to) {
    return failure(ErrorCode::BadRequest, "two different frames of the clip are needed", "capture_rate");
  }
  if (!std::isfinite(trueTime.value()) || trueTime.value() <= 0.0) {
    return failure(ErrorCode::BadRequest, "the true time between them must be more than zero",
                   "capture_rate");
  }
  const double played_s = std::abs((index.timeOf(to) - index.timeOf(from)).value());
  return Hertz(index.regularRate().value() * played_s / trueTime.value());
}

Result<ClipClock> ClipClock::create(const ClipIndex& index, std::optional<Hertz> captureRate) {
  if (!captureRate) return ClipClock(index, 1.0, false);
  const double rate = captureRate->value();
  if (!std::isfinite(rate) || rate <= 0.0 || rate > kHighestRate.value()) {
    return failure(ErrorCode::BadRequest, "capture_rate must be the frames per second of the camera",
                   "capture_rate");
  }
  const double played = index.regularRate().value();
  return ClipClock(index, played > 0.0 ? played / rate : 1.0, true);
}

}  // namespace fin
