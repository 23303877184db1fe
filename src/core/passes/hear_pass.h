// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/calibration/clip_clock.h"
#include "core/footage/clip.h"
#include "core/passes/pass_request.h"
#include "core/readings/rattle.h"

namespace fin {

/// Decodes the sound of a pass's window and of its quiet stretch, one channel at 48 kHz.
///
/// Errors: Unsupported where the clip has no sound, or where it was filmed faster than it plays, so that its
/// sound is not on true time.
Result<HeardPass> hearPass(const PassRequest& request, const Clip& clip, const ClipClock& clock,
                           const JobControl& job = {});

}  // namespace fin
