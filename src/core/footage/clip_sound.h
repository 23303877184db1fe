// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <optional>
#include <span>
#include <vector>

#include "core/footage/clip.h"
#include "core/units/job_control.h"

namespace fin {

/// Which part of a clip's sound is wanted, and at how many samples a second.
struct SoundWanted {
  Hertz rate{48000.0};
  Seconds from{-1e9};  ///< on the clip's own clock, from its first frame
  Seconds to{1e9};
};

/// Takes samples (one channel, full scale 1) and the time of the first of them, from the clip's first frame,
/// on the clip's own clock. Stretches come in order; where the recording has a hole, so has what is handed
/// over.
using SoundSink = std::function<void(std::span<const float> samples, Seconds at)>;

/// Decodes a clip's first sound stream, its channels mixed to one. Errors: Unreadable (no sound in it,
/// nothing can decode it), Cancelled. Memory does not grow with the length.
Result<void> decodeSound(const Clip& clip, const SoundWanted& wanted, const SoundSink& sink,
                         const JobControl& job = {});

/// How loud a clip is over time: root mean square and peak in equal steps, full scale 1. Steps without sound
/// hold 0.
struct SoundLevel {
  Seconds start{0.0};  ///< of the first step, from the clip's first frame, on its own clock
  Seconds step{0.0};
  std::vector<float> rms;
  std::vector<float> peak;
};

Result<SoundLevel> soundLevel(const Clip& clip, Seconds step, const JobControl& job = {});

}  // namespace fin
