// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <vector>

#include "core/readings/sheet.h"

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
/// with fixed gain can be compared, and every reading's note says so.
void readRattle(const HeardPass& heard, ReadingSheet& sheet);

}  // namespace fin
