// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/tracking: marks placed on spots that most views of a body show.
#pragma once

#include <map>
#include <vector>

#include "core/tracking/finding/cut_outs.h"

namespace fin {

/// A mark's place: in each view that shows the spot, else where it is usual.
struct VotedMark {
  MarkName name = MarkName::Nose;
  double share = 0.0;
  double strength = 0.0;                  ///< mean over the views
  double agreed = 0.0;                    ///< share of the views that show a spot there
  double rival = 0.0;                     ///< the strongest other spot over it
  std::map<std::size_t, BodySpot> spots;  ///< by view
};

/// Nose and tail, and the tip of a soft bait, of views whose front is the nose.
std::vector<VotedMark> votedMarks(const std::vector<CutOut>& views);

/// 0 … 1: how far its spot may be taken for the mark.
double sureOf(const VotedMark& voted);

/// In the picture of the i-th view.
PixelPoint placeOf(const VotedMark& voted, const CutOut& view, std::size_t i);

}  // namespace fin
