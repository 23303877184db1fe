// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <vector>

#include "core/footage/frame_source.h"
#include "core/tracking/track.h"
#include "core/units/job_control.h"

namespace fin {

/// By what nose and tail are told apart.
enum class FrontBy {
  Pull,  ///< the nose goes ahead
  Fall,  ///< the nose hangs down where the body is steep, and goes ahead where it glides
};

struct FindRequest {
  FrameStretch window;
  FrontBy frontBy = FrontBy::Pull;
  bool cameraMoves = false;
  std::optional<PixelPoint>
      pull;  ///< its direction in the picture, where it is said; else by the way that it goes
};

struct FoundMark {
  MarkSeed seed;
  double sure = 0.0;  ///< 0 … 1; from 0.5 on it may be taken without a look
};

/// A lure that was found in one frame: nose and tail, the tip of a soft tail where it has one; roughly its
/// outline.
struct FoundLure {
  std::vector<FoundMark> marks;
  OutlineSeed outline;
};

/// Finds the lure in a clip in which nobody pressed anything, and places its marks on details that hold.
///
/// Model: what moves as one (moving_thing.h) is cut out of some of the frames in which it is longest
/// (still_outline.h) and laid out along its axis. Spots that stand out near the middle line and lie at the
/// same place in most of these frames are its marks, where a nose and a tail are usual: most lures wear an
/// eye and a seam there. A rear part that is much thinner than the front is a soft tail, which begins behind
/// the tail mark. It misleads where two lures are in the picture, where a soft body is as thick behind as in
/// front, and where no spot stands out: then marks lie where they are usual, and are not sure. Errors: Lost,
/// with the reason; Cancelled; Unreadable. One call is for one thread.
Result<FoundLure> findLure(FrameSource& source, const FindRequest& request, const JobControl& job = {});

}  // namespace fin
