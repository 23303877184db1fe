// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <vector>

#include "core/readings/sheet.h"
#include "core/signals/series.h"
#include "core/units/result.h"

namespace fin {

/// What a pass sounds like.
struct HeardPass {
  double rate_Hz = 0.0;
  std::vector<float> window;  ///< samples of the pass itself
  std::vector<float> quiet;   ///< of the marked quiet stretch; empty where none is marked
};

/// How much louder it is than the quiet stretch, how often it rattles, and at which pitch.
///
/// Model: knocks stand out of the water's own noise by 10 dB and die away. It misleads where the camera's
/// gain follows the loudness, and across cameras or distances: only passes with one camera at one distance
/// with fixed gain can be compared, and every reading's note says so. Where the background sinks by more than
/// 3 dB when it is loud, that gain is suspected: the level is poor, and says so. Refused: the level of a
/// clipped sound, everything of a silent one.
/// Accuracy: of 30 rehearsed sounds the truth lay inside u95 30 times (tests/rehearsal/coverage_test.cpp).
/// Pure; on any thread.
void readRattle(const HeardPass& heard, ReadingSheet& sheet);

/// When knocks begin, from the window's first sample: 10 dB over the background, having died away before.
std::vector<double> knocksOf(const HeardPass& heard);

/// How loud the window is against time, A-weighted, in dB over the middle of its quiet stretch; over its own
/// middle where none is marked. Empty where it is shorter than a few hundredths of a second.
Series levelOverQuiet(const HeardPass& heard);
/// By how much the second has to be made louder for the two quiet stretches to be alike, dB. Unsupported
/// where one has none.
Result<double> gainToMatch_dB(const HeardPass& first, const HeardPass& second);

}  // namespace fin
