// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/calibration/clip_clock.h"
#include "core/footage/clip.h"
#include "core/measuring/pass_request.h"
#include "core/readings/rattle.h"

namespace fin {

/// Decodes the sound of a pass's window and of its quiet stretch, one channel at 48 kHz.
///
/// Errors: Unsupported where the clip has no sound, or where it was filmed faster than it plays, so that its
/// sound is not on true time.
Result<HeardPass> hearPass(const PassRequest& request, const Clip& clip, const ClipClock& clock,
                           const JobControl& job = {});

/// Two windows to be heard one after the other, half a second apart, each with its gain. Where that would be
/// louder than full scale, both are lowered alike.
struct HeardInTurn {
  std::vector<float> samples;
  double lowered_dB = 0.0;
  double second_s = 0.0;  ///< when the second begins
};
HeardInTurn inTurn(const HeardPass& first, double firstGain_dB, const HeardPass& second,
                   double secondGain_dB);

}  // namespace fin
