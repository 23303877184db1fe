// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>

#include "core/footage/clip_index.h"
#include "core/units/result.h"

namespace fin {

/// No camera takes more frames in a second.
constexpr Hertz kHighestRate{100000.0};

/// The rate at which a clip was filmed, from two of its frames and the true time between them (a stopwatch, a
/// blinking light, beats of a pacer). BadRequest where they are one frame or no time lies between.
Result<Hertz> rateFromInterval(const ClipIndex& index, std::size_t from, std::size_t to, Seconds trueTime);

/// True time of a clip's frames. A clip filmed at a higher rate than it plays is slowed down by the ratio
/// of its playing rate to its capture rate; without a capture rate the container's time stamps are true.
/// Uneven time stamps stay uneven: never frame number over nominal rate.
class ClipClock {
 public:
  /// BadRequest ("capture_rate") when the rate is not positive or beyond any camera.
  static Result<ClipClock> create(const ClipIndex& index, std::optional<Hertz> captureRate);

  [[nodiscard]] Seconds timeOf(std::size_t frame) const { return index_->timeOf(frame) * factor_; }
  /// Frames a true second holds, over the regular stretches of the clip.
  [[nodiscard]] Hertz rate() const { return Hertz(index_->regularRate().value() / factor_); }
  /// True seconds per second of the container's clock.
  [[nodiscard]] double factor() const { return factor_; }
  /// "capture_rate" or "time_stamps".
  [[nodiscard]] std::string basis() const { return rescaled_ ? "capture_rate" : "time_stamps"; }

 private:
  ClipClock(const ClipIndex& index, double factor, bool rescaled)
      : index_(&index), factor_(factor), rescaled_(rescaled) {}

  const ClipIndex* index_;
  double factor_;
  bool rescaled_;
};

}  // namespace fin
