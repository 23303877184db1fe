// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <memory>
#include <optional>
#include <utility>
#include <vector>

#include "core/footage/picture.h"
#include "core/measuring/session.h"

namespace fin {

/// One frame of a pass with its marks, to be looked at.
struct Still {
  std::size_t frame = 0;
  Seconds at{0.0};                                     ///< true time from the clip's first frame
  std::vector<std::pair<MarkName, PixelPoint>> marks;  ///< where they were followed to, or placed
  double least = 0.0;  ///< quality of the least sure of them: below 0.5 doubtful
};

/// What a person needs to see whether a pass was measured rightly.
struct Glance {
  std::vector<Still> stills;         ///< first, middle, and where it was least sure; by rising frame
  std::vector<Picture> pictures;     ///< one a still
  std::optional<std::size_t> doubt;  ///< which of them is the least sure one
  std::optional<PassResult> result;  ///< none where nothing was followed
  std::vector<Protocol> several;  ///< what the lure does one after the other; empty where it does one thing
};

/// Frames of a track worth a look: the first and the middle one in which the lure was followed, and the one
/// in which a mark was least sure, away from the other two. Rising; the last number says which is that one.
struct FramesToSee {
  std::vector<std::size_t> frames;
  std::optional<std::size_t> doubt;
};
FramesToSee framesToSee(const Track& track);

/// Reads a pass that was measured and takes its stills; of one in which nothing was found, of its first
/// frame, its middle and its last. Follows nothing. Errors as measure.
Result<Glance> glanceAt(const MeasuringOrder& order, const std::shared_ptr<const Clip>& clip,
                        const JobControl& job = {});

}  // namespace fin
