// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/footage/frame_source.h"
#include "core/tracking/track.h"
#include "core/units/job_control.h"

namespace fin {

/// Looks for the flank spot anew in every frame whose outline is whole, and writes it into the track.
///
/// Model: while a body rolls about its long axis a spot on it stays at one distance along that axis and goes
/// up and down across it, hiding for a part of each turn. From frame to frame it is followed only until it
/// hides; here each frame is searched on its own, on the line across the body on which the spot lives. Only
/// for a spot that stands out in colour or brightness (mark_detail.h); else the track stays as it is.
/// Errors: Cancelled; Unreadable.
Result<void> findFlank(FrameSource& source, const std::vector<MarkSeed>& seeds, Track& track,
                       const JobControl& job = {});

}  // namespace fin
