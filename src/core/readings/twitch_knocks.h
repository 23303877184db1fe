// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>

#include "core/readings/sheet.h"

namespace fin {

/// Whether a lure knocks when it is twitched: the share of twitches with a knock from 0.05 s before their
/// start to 0.6 s (or 45 % of the usual time between two) after it; how late the first comes; how many there
/// are. Share: Wilson's interval (E. Wilson, Probable inference, 1927); poor where knocks are no more
/// frequent than in equal stretches just before (Q. McNemar, 1947, exact, one-sided at 5 %). Sound and
/// picture may lie apart: the delay is unsure by 0.04 s more. Pure; on any thread.
void readTwitchKnocks(std::span<const double> starts_s, std::span<const double> knocks_s,
                      ReadingSheet& sheet);

}  // namespace fin
