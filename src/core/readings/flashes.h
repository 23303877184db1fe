// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <vector>

#include "core/readings/sheet.h"
#include "core/signals/series.h"

namespace fin {

/// When a lure flashes: its brightness (0 … 255, outline_traces.h) rises above its median by four times its
/// robust spread and by a tenth of the median. Two peaks are one flash unless the dip between them reaches
/// half of the lower one. Light that dances over the lure flashes too: film in even light. Pure; on any
/// thread.
std::vector<double> flashesIn(const Series& brightness);

/// Flashes in the twitches that count, and the share of twitches with one. u95: as counted (Poisson), and
/// Wilson's interval halved. Refused where the lure is so bright that a flash would not show.
void readTwitchFlashes(const Series& brightness, std::span<const TwitchSpan> twitches, ReadingSheet& sheet);

/// Flashes per second in the steady part of a fall; u95 is half of Garwood's interval.
void readFallFlashes(const Series& brightness, ReadingSheet& sheet);

}  // namespace fin
