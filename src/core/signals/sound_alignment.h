// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>

#include "core/units/quantity.h"
#include "core/units/result.h"

namespace fin {

struct SoundAlignment {
  Seconds later{0.0};      ///< how much later the same sound comes in the second recording
  double peakRatio = 0.0;  ///< the best match over the next best one elsewhere
};

/// The least that the best match must stand out by.
constexpr double kStandsOut = 1.4;

/// Finds by how much one recording of an event lags another, from how loud each is in equal steps of true
/// time.
///
/// Method: onsets (rises of the logarithm of the level over its usual background) are correlated over all
/// lags; the best lag is refined by a parabola. Microphones far from the sound hear it late, 3 ms a metre in
/// air. right to 3 ms in steps of 2 ms (tests/signals/sound_alignment_test.cpp). Cross-
/// correlation after C. Knapp & G. Carter, The generalized correlation method for estimation of time delay,
/// 1976, on onsets in place of the wave. Errors: Unsupported where the recordings have no onset in common
/// that stands out by kStandsOut.
Result<SoundAlignment> alignSound(std::span<const float> first, std::span<const float> second, Seconds step);

}  // namespace fin
