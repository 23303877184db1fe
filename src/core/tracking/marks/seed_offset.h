// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <vector>

#include "core/tracking/marks/mark_follower.h"

namespace fin {

/// What the journeys found of one mark, frame by frame of the window.
struct FollowedMark {
  MarkName name = MarkName::Nose;
  std::vector<MarkFollower::Followed> frames;
};

/// Where a person pressed, taken with what was found just before and after.
struct SeedPlace {
  std::size_t frame = 0;  ///< of the window
  PixelPoint at;
  double angle_rad = 0.0;
  double scale = 1.0;
};

/// Brings places by detail onto what the person pressed on.
///
/// A detail's middle lies beside the mark by one and the same fraction of a pixel, turning and growing with
/// the body. One frame tells that fraction no better than a place is found in one frame; a smooth path
/// through the places around the seed (a quadratic over six frames either way) tells it better. Its distance
/// from the seed is taken out, the less the noisier it is. Left alone where the path around the seed is not
/// smooth. The seeds themselves are obeyed exactly.
void alignToSeeds(FollowedMark& mark, std::span<const SeedPlace> seeds);

}  // namespace fin
