// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/pacing.h"

#include <cmath>

namespace fin {

Result<void> Cadence::validate() const {
  const bool one = twitches == 1;
  if (twitches < 1) return failure(ErrorCode::BadRequest, "a group needs at least one twitch", "twitches");
  if (!one && !(between.value() > 0.0)) {
    return failure(ErrorCode::BadRequest, "the time between twitches must be more than zero", "between");
  }
  if (!(pause.value() > 0.0))
    return failure(ErrorCode::BadRequest, "the pause must be more than zero", "pause");
  return {};
}

Seconds Cadence::cycle() const {
  return between * (twitches - 1) + pause;
}

Seconds Cadence::beat(std::size_t n) const {
  const auto group = static_cast<double>(n / static_cast<std::size_t>(twitches));
  const auto within = static_cast<double>(n % static_cast<std::size_t>(twitches));
  return cycle() * group + between * within;
}

std::size_t Cadence::beatFrom(Seconds time) const {
  if (time.value() <= 0.0) return 0;
  auto n = static_cast<std::size_t>(time / cycle()) * static_cast<std::size_t>(twitches);
  while (beat(n) < time) ++n;
  return n;
}

std::optional<KeptCadence> keptTo(const Cadence& cadence, const std::vector<double>& starts_s) {
  if (starts_s.size() < 3 || !cadence.validate()) return std::nullopt;
  KeptCadence out;
  double squares = 0.0;
  for (std::size_t i = 1; i < starts_s.size(); ++i) {
    const double interval = starts_s[i] - starts_s[i - 1];
    const double within = interval / cadence.between.value() - 1.0;
    const double over = interval / cadence.pause.value() - 1.0;
    const double off = cadence.twitches > 1 && std::abs(within) < std::abs(over) ? within : over;
    squares += off * off;
    ++out.intervals;
  }
  out.off_percent = 100.0 * std::sqrt(squares / static_cast<double>(out.intervals));
  return out;
}

Result<double> handleTurnsPerMinute(MillimetresPerSecond speed, Millimetres linePerTurn) {
  if (!(speed.value() > 0.0) || !(linePerTurn.value() > 0.0)) {
    return failure(ErrorCode::BadRequest, "speed and line a turn must be more than zero");
  }
  return 60.0 * speed.value() / linePerTurn.value();
}

}  // namespace fin
