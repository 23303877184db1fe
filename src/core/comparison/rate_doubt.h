// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <span>
#include <string>

#include "core/readings/reading.h"

namespace fin {

/// A filming rate that was said wrongly makes every frequency and every speed wrong by one and the same whole
/// factor.
struct RateDoubt {
  ReadingId reading{};    ///< by which it shows
  int factor = 1;         ///< two and more
  bool tooSlow = false;   ///< it reads slower than its peers
  std::size_t peers = 0;  ///< other passes of the rig with this reading
};

/// Whether a pass reads a whole number of times slower or faster than the other passes of the same rig and
/// protocol, by the median of the first reading they share: wobble, kick, or fall rate. None where it does
/// not, or where there is nothing to compare with. Misleads where a rig really was worked that much faster.
std::optional<RateDoubt> rateDoubt(const ReadingSet& pass, std::span<const ReadingSet> peers);

}  // namespace fin
