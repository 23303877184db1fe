// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/firmness.h"

namespace fin {
namespace {

constexpr double kFirm = 0.95;
constexpr double kLikely = 0.75;
constexpr double kInTheRunning = 0.05;

}  // namespace

FirstPlace firstPlaceOf(const Ranking& ranking) {
  FirstPlace out;
  if (ranking.placings.empty()) return out;
  const Placing& first = ranking.placings.front();
  const double chance = first.first.byBoth;
  const bool open = !ranking.couldPass.empty();
  out.firmness = chance >= kFirm && !open ? Firmness::Firm
                 : chance >= kLikely      ? Firmness::Likely
                                          : Firmness::TooClose;
  for (const Placing& p : ranking.placings) {
    if (p.place == first.place) out.entries.push_back(p.entry);
    if (p.entry != first.entry && p.first.byBoth >= kInTheRunning)
      out.rivals.push_back({p.entry, p.first.byBoth});
  }
  return out;
}

}  // namespace fin
