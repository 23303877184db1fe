// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <memory>
#include <optional>
#include <vector>

#include "core/footage/frame_source.h"
#include "core/tracking/track.h"
#include "core/units/job_control.h"

namespace fin {

/// What a lure looks like, and where on it its marks are, so that the same details are marked in other clips
/// of the same model.
struct LureLook;

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
  std::shared_ptr<const LureLook> looksLike;  ///< where the model is known: marks on the same details
};

struct FoundMark {
  MarkSeed seed;
  double sure = 0.0;  ///< 0 … 1; what is wrong is hardly ever as sure as 0.8

  friend bool operator==(const FoundMark&, const FoundMark&) = default;
};

/// A lure that was found in one frame: nose and tail, the tip of a soft tail where it has one; roughly its
/// outline.
struct FoundLure {
  std::vector<FoundMark> marks;
  OutlineSeed outline;
  Pixels body;  ///< how long it is in the picture, from end to end; to some 5 %
};

/// Finds the lure in a clip in which nobody pressed anything, and places its marks on details that hold.
///
/// Model: what moves as one (moving_thing.h) is cut out of some of the frames in which it is longest
/// (still_outline.h) and laid out along its axis. Spots that stand out near the middle line and lie at the
/// same place in most of these frames are its marks, where a nose and a tail are usual: most lures wear an
/// eye and a seam there. A rear part that is much thinner than the front is a soft tail, which begins behind
/// the tail mark. It misleads where two lures are in the picture, where a soft body is as thick behind as in
/// front, and where no spot stands out: then marks lie where they are usual, and are not sure. A known look
/// decides both over all spots: which end is the nose, and where the marks are, by correlation; where nothing
/// looks like it, spots decide, and are half as sure. Errors: Lost, with the reason; Cancelled; Unreadable.
/// One call is for one thread.
Result<FoundLure> findLure(FrameSource& source, const FindRequest& request, const JobControl& job = {});

/// The look of the lure of a clip in which its marks are placed: nose and tail at least, in one frame. Model:
/// as above; it is cut out of that frame. Errors: as above; BadRequest without nose and tail.
Result<std::shared_ptr<const LureLook>> lookOf(FrameSource& source, const FindRequest& request,
                                               const std::vector<MarkSeed>& marks,
                                               const JobControl& job = {});

}  // namespace fin
