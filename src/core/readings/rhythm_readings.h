// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/readings: what the readings of a repeating motion share.
#pragma once

#include "core/readings/pass_traces.h"
#include "core/readings/sheet.h"
#include "core/signals/rhythm.h"

namespace fin {

/// What swings: a body, or a tail.
struct Swing {
  const char* word;  ///< "wobble", "kick": for the person
  double arm = 0.0;  ///< length between the two marks whose line swings, in the traces' unit
  double unitPerPixel = 1.0;
  double frameRate_Hz = 0.0;
  double otherArm = 0.0;  ///< of the line it swings against, where that ends in one of the marks too
};

/// The tail's kick: the line from tail to tip against the one from nose to tail.
Swing kickOf(const PassTraces& traces);
/// What a swing told by two or three marks is unsure by, degrees per pixel that each one's way is.
double perMove_deg(const Swing& swing);

/// The rhythm of an angle (degrees). Unsupported, with what to film instead, where nothing steady stands out,
/// the frames are too few to a cycle (0.4 of their rate), or fewer than 2 whole cycles are in view.
Result<Rhythm> findSwinging(const Series& angle, const Swing& swing);

/// Every reading of a rhythm is at most fair, and names the other candidate, where the frame rate less the
/// rhythm is a beat that a bait may have (30 Hz): the two cannot be told apart by frames alone.

/// Cycles a second; of a motion that hunts (cycles vary by more than 8 %) the mean rate of whole cycles.
Estimate rateOf(const Rhythm& rhythm, const Swing& swing);
/// Robust coefficient of variation of the cycles, %.
Estimate variationOf(const Rhythm& rhythm, const Swing& swing);
/// Median over cycles of peak to peak, degrees.
Estimate angleOf(const Rhythm& rhythm, const Swing& swing);
/// The same of another series over the same cycles; `floor` is the part of its u95 that no averaging removes.
Estimate medianSwing(const Rhythm& rhythm, const Series& series, const Swing& swing, double floor);

}  // namespace fin
