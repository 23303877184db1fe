// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

#include "core/comparison/compared_passes.h"

namespace fin {

/// One pass of a rig that was twitched at one interval.
struct CadenceRung {
  std::string name;
  double interval_s = 0.0;
  double rise_mm = 0.0;  ///< of a twitch with its pause
  double riseU95_mm = 0.0;
};
/// What a pass's readings say of a rung; none where interval or climb was not read.
std::optional<CadenceRung> cadenceRungOf(const std::string& name, const ReadingSet& readings);

/// Readings of passes at several intervals and of no single pass; seconds.
inline constexpr std::array kCadenceReadings{ReadingId::HoldInterval, ReadingId::LevelInterval};

struct CadenceLadder {
  std::vector<CadenceRung> rungs;  ///< by rising interval
  ReadingSet readings;             ///< hold_interval, level_interval
};

/// How slowly a lure has to be twitched for it to keep its depth: the shortest interval with a climb of no
/// more than 5 mm a twitch, and with none. The climb is made non-increasing over the intervals (pool adjacent
/// violators: R. Barlow et al., Statistical inference under order restrictions, 1972) and is straight between
/// those filmed; beyond them nothing is told. u95: every pass's climb drawn within its own uncertainty, 400
/// times from a fixed seed. Passes within a tenth of each other's interval count as one. Pure; on any thread.
CadenceLadder evaluateCadence(std::vector<CadenceRung> rungs);

/// Rigs that were twitched at intervals more than a tenth apart, each with its rungs.
ByRig<CadenceRung> cadencesOf(const std::vector<ComparedPass>& passes);

}  // namespace fin
