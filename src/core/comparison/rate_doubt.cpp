// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/rate_doubt.h"

#include "core/comparison/speed_ladder.h"
#include "core/measuring/calibration.h"

namespace fin {

std::optional<RateDoubt> rateDoubt(const ReadingSet& pass, std::span<const ReadingSet> peers) {
  for (const char* name : {"wobble_frequency", "kick_frequency", "fall_rate"}) {
    const auto value = numberIn(pass, name);
    if (!value) continue;
    std::vector<double> others;
    for (const ReadingSet& peer : peers) {
      if (const auto other = numberIn(peer, name)) others.push_back(*other);
    }
    if (const auto whole = wholeFactor(*value, others))
      return RateDoubt{name, whole->factor, whole->tooSlow, others.size()};
  }
  return std::nullopt;
}

}  // namespace fin
