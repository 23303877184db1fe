// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/tracking/marks/follow.h"

namespace fin {

/// One way of the lure through the picture.
struct Crossing {
  FrameStretch frames;          ///< in which nose and tail are seen
  std::vector<MarkSeed> seeds;  ///< where they were found in one of them
};

/// After the lure has left the picture, looks for it to come back, again and again, to the end of the clip.
///
/// Model: nose and tail are known again by what stands out at them (mark_detail.h), in any direction, at
/// about their distance; from there they are followed as if a person had placed them. It misleads where other
/// things of their colours lie as far apart. None where nose and tail do not stand out, or where the lure
/// never left. Errors: Cancelled; Unreadable.
Result<std::vector<Crossing>> findCrossings(FrameSource& source, const FollowRequest& request,
                                            const Track& track, const JobControl& job = {});

}  // namespace fin
