// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <vector>

#include "core/units/quantity.h"
#include "core/units/result.h"

namespace fin {

/// A steady cadence: a group of twitches, then a pause, and again. Walking strokes are one twitch and no
/// pause.
struct Cadence {
  int twitches = 2;
  Seconds between{0.6};  ///< from twitch to twitch within a group
  Seconds pause{2.0};    ///< from the last twitch of a group to the first of the next

  /// BadRequest for counts below 1 or times that are not positive.
  [[nodiscard]] Result<void> validate() const;
  [[nodiscard]] Seconds cycle() const;
  /// When beat n (from 0) falls, from the first one. Exact: no error adds up.
  [[nodiscard]] Seconds beat(std::size_t n) const;
  /// The first beat at or after a time.
  [[nodiscard]] std::size_t beatFrom(Seconds time) const;

  friend bool operator==(const Cadence&, const Cadence&) = default;
};

/// How a hand kept to the beat.
struct KeptCadence {
  double off_percent = 0.0;  ///< root mean square of its intervals' distance from the beat's, over the beat's
  std::size_t intervals = 0;
};
/// Every interval between two starts is held against the nearer of the two that the cadence has, within a
/// group and over a pause. None from fewer than two intervals.
std::optional<KeptCadence> keptTo(const Cadence& cadence, const std::vector<double>& starts_s);

/// Handle turns a minute for a pull: 60 · speed / line a turn. Errors: BadRequest for values that are not
/// positive.
Result<double> handleTurnsPerMinute(MillimetresPerSecond speed, Millimetres linePerTurn);

}  // namespace fin
