// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <opencv2/core/mat.hpp>
#include <vector>

#include "core/footage/frame_source.h"
#include "core/tracking/finding/small_film.h"
#include "core/tracking/track.h"
#include "core/units/job_control.h"

namespace fin {

/// What moves as one, in one frame of a clip. Places are those of the picture.
struct ThingSeen {
  std::size_t frame = 0;
  PixelPoint centre;
  PixelPoint behindMoved;  ///< what lies behind, since the first frame that was looked at
  double length_px = 0.0;  ///< along its long axis
  double width_px = 0.0;
  bool atRim = false;               ///< the picture's edge may cut it
  std::vector<PixelPoint> outline;  ///< roughly
};

/// Its way through the frames that were looked at.
struct MovingThing {
  std::vector<ThingSeen> seen;  ///< by rising frame
  std::size_t lookedAt = 0;     ///< frames
  double lead = 0.0;            ///< 0 where another thing is as likely, 1 where there is none
};

/// Finds what moves as one against the rest of a clip.
///
/// Model: in some fifty frames of the window, made small, what lies behind is the median in brightness over
/// its surroundings and in colour shares, so that light that dances counts little; what differs by several
/// scatters hangs together in regions; the way of one region through the frames is decided over all of them
/// (R. Bellman, Dynamic programming, 1957) by its size, how it stands out, and how little place, size and
/// colour jump. Where the camera moves, frames are laid over each other as what lies behind has moved. It
/// misleads where a camera moves of which that was not said, where two lures are in the picture, and where a
/// lure rests in most frames. Errors: Lost, with what was in the way; Cancelled; Unreadable.
Result<MovingThing> findMovingThing(FrameSource& source, const FilmWanted& wanted,
                                    const JobControl& job = {});

}  // namespace fin
