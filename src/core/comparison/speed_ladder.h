// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/readings/reading.h"
#include "core/tracking/track.h"

namespace fin {

/// What may stand for the action on a ladder: the kick of a paddle tail, the wobble, else the roll.
inline constexpr std::array kLadderActions{ReadingId::KickAngle, ReadingId::WobbleAngle,
                                           ReadingId::RollAngle};
struct LadderAction {
  double deg = 0.0;
  double u95_deg = 0.0;
};

/// One rung: a pull of the rig at one speed.
struct LadderRung {
  std::string name;  ///< of the pass
  double speed_mm_s = 0.0;
  double speedU95_mm_s = 0.0;
  std::optional<double> action_deg;  ///< of kLadderActions, side to side; none: no rhythm stood out
  double actionU95_deg = 0.0;
  std::optional<double> cycleVariation_percent;
  std::optional<double> spinTurns;
  std::optional<double> list_deg;
  std::array<std::optional<LadderAction>, kLadderActions.size()> actions = {};  ///< all that were read
};

/// A reading's number; none where it was refused or is a word.
std::optional<double> numberIn(const ReadingSet& set, ReadingId id);

/// Whether a pass is filmed and marked so that its action can be seen: the wobble from above, the kick of a
/// tip anywhere, the roll by a spot on the flank.
bool showsAction(View view, std::span<const MarkSeed> marks);

/// What a pass's readings say of a rung; none where they have no speed, or no action because nothing could
/// have shown it (then nothing is known, and not a lost rhythm).
std::optional<LadderRung> rungOf(const std::string& name, const ReadingSet& readings, bool actionShown);

/// Readings of a ladder and of no single pass; mm/s.
inline constexpr std::array kLadderReadings{ReadingId::OnsetSpeed, ReadingId::BlowoutSpeed};
bool isOfLadder(ReadingId reading);

struct SpeedLadder {
  std::vector<LadderRung> rungs;  ///< by rising speed
  ReadingSet readings;            ///< onset_speed, blowout_speed; mm/s
};

/// Onset: the lowest speed at which the action reaches a fifth of its plateau (its largest value on the
/// ladder) and three times its noise floor (the slowest rung's action), by monotone interpolation between
/// rungs. Blow-out: the lowest filmed speed above it at which the lure spins, lays over past 90°, or loses
/// its rhythm (cycles vary by more than 35 %, or no rhythm stands out any more). Nothing is extrapolated:
/// what the filmed speeds do not reach is refused. The action is the same on all rungs: of kick, wobble and
/// roll the one that most of them have.
/// Accuracy: the onset is known no better than the rungs beside it lie apart; u95 takes in the speeds' and
/// actions' own and how far the curve (monotone_curve.h) leaves the straight line. Definitions are ours.
/// Pure; on any thread.
SpeedLadder evaluateLadder(std::vector<LadderRung> rungs);

}  // namespace fin
