// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/tracking/body/reduced_film.h"
#include "core/tracking/track.h"
#include "core/units/job_control.h"
#include "core/units/result.h"

namespace fin {

/// How a camera that is said to stand still sways: how far what lies behind has moved in the picture, since
/// the first frame of the track's window, one sample a frame. Empty where no sway is seen beyond what dancing
/// light alone would show.
///
/// Model: what lies behind is the median of some frames, their light evened out, so that only what stays is
/// left; its details are looked for in every frame, and a similarity is fitted robustly to those of the
/// picture's left and right half, each for itself. What both halves tell alike is the camera, for light
/// dances in each half on its own. Accuracy: 0.1 to 0.3 px (rms) on four
/// pool-like clips, seen with wider blurs and before the scenery was laid anew by what was found. Of one that
/// is carried farther than a few details' width it tells only about how far (wayCarried): no sample is `seen`
/// then. It sees neither before an even wall. Errors: Cancelled.
Result<std::vector<MarkSample>> findSway(FilmingFrameSource& filming, const Track& track,
                                         const JobControl& job = {});

/// How far from its middle (95 % of the frames) that a background moves about, in px.
double swayOf_px(const std::vector<MarkSample>& background);

/// Whether it was carried: the way is known well enough to say so, not to measure by.
bool wasCarried(const std::vector<MarkSample>& background);

/// A track against what lies behind it: marks and outlines less how far the background moved. It has no
/// background any more.
Track steadied(Track track);

}  // namespace fin
