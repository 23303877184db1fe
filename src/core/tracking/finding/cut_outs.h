// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/tracking: a lure cut out of some frames.
#pragma once

#include <vector>

#include "core/footage/frame_source.h"
#include "core/tracking/finding/laid_out_body.h"
#include "core/tracking/finding/moving_thing.h"

namespace fin {

/// One frame in which the lure was cut out.
struct CutOut {
  std::size_t frame = 0;
  LaidOutBody body;
  OutlineSample outline;
};

/// Of up to eight frames in which it is nearly as long as it gets; those in which it is much longer or
/// shorter than in most are left out. Errors: Cancelled; Unreadable.
Result<std::vector<CutOut>> cutOutsOf(FrameSource& source, const MovingThing& thing, const JobControl& job);

/// Median over the frames, px of the picture.
double bodyLength(const std::vector<CutOut>& views);

/// All with the same end in front: each as most of the others have it.
void turnAlike(std::vector<CutOut>& views);

}  // namespace fin
