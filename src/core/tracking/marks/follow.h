// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/footage/frame_source.h"
#include "core/tracking/track.h"
#include "core/units/job_control.h"

namespace fin {

struct FollowRequest {
  std::vector<MarkSeed> seeds;
  std::size_t firstFrame = 0;
  std::size_t lastFrame = 0;  ///< included
  std::vector<HiddenRegion> hidden = {};
};

/// Follows marks through a window of frames: on from each mark's first seed to the end of the window, and
/// back from it to the beginning; between two seeds of one mark from both sides. Seeds are obeyed exactly; a
/// damaged frame is a gap.
///
/// Model: small details that keep their look up to turning in the picture, brightness and contrast, and a
/// look that changes slowly. An end without structure of its own is seen only where it was placed, if its
/// partner can be followed: it is for the body to carry. It misleads where a look-alike of the same body
/// passes within a few pixels (quality falls).
/// Accuracy: checked on rehearsal footage in the tests; 0.2 to 0.5 px on small lures (60 px) in moderate
/// noise. Errors: BadRequest ("marks") for a seed outside picture or window, two seeds of one mark in one
/// frame, two marks on one spot; Lost where there is nothing to hold on to; Cancelled; Unreadable.
Result<Track> followMarks(FrameSource& source, const FollowRequest& request, const JobControl& job = {});

/// Ok where a place has structure enough for a mark to be followed by; Lost where not. `body_px` between the
/// lure's ends, 0 if unknown.
Result<void> holdsOnTo(const Picture& picture, const MarkSeed& seed, double body_px);

/// The same where only seeds were added, moved or taken away since `earlier` was followed from `before`: each
/// mark is followed anew only between its seeds next to the change, and from a place that was given or moved
/// only until the new way is the old one again; all else is kept. Errors as followMarks.
Result<Track> followChanged(FrameSource& source, const FollowRequest& request, const Track& earlier,
                            const std::vector<MarkSeed>& before, const JobControl& job = {});

}  // namespace fin
