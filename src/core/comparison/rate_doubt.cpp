// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/rate_doubt.h"

#include "core/comparison/speed_ladder.h"
#include "core/measuring/calibration.h"

namespace fin {

std::optional<RateDoubt> rateDoubt(const ReadingSet& pass, std::span<const ReadingSet> peers) {
  for (const ReadingId id : {ReadingId::WobbleFrequency, ReadingId::KickFrequency, ReadingId::FallRate}) {
    const auto value = numberIn(pass, id);
    if (!value) continue;
    std::vector<double> others;
    for (const ReadingSet& peer : peers) {
      if (const auto other = numberIn(peer, id)) others.push_back(*other);
    }
    if (const auto whole = wholeFactor(*value, others))
      return RateDoubt{id, whole->factor, whole->tooSlow, others.size()};
  }
  return std::nullopt;
}

}  // namespace fin
