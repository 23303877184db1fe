// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/footage/frame_source.h"
#include "core/tracking/track.h"
#include "core/units/job_control.h"

namespace fin {

/// Follows what lies behind the lure in a clip whose camera moves, and writes it into `track.background`: how
/// far the background has moved in the picture, at the lure's place, since the first frame of the track's
/// window.
///
/// Model: details outside the lure's surroundings are followed from frame to frame by pyramidal flow (J.-Y.
/// Bouguet, Pyramidal Implementation of the Lucas Kanade Feature Tracker, 2000), there and back; a similarity
/// (shift, turn, size) is fitted robustly by reweighted least squares with Tukey's biweight (P. Holland & R.
/// Welsch, 1977). Light that dances over a wall or a floor moves without a lasting direction and averages
/// out. It misleads where most of what is seen moves with the lure, or where the light streams one way. A
/// frame in which too few details agree is not seen, and the way across it is bridged from its neighbours.
/// Errors: Cancelled; Unreadable.
Result<void> followBackground(FrameSource& source, Track& track, const JobControl& job = {});

}  // namespace fin
