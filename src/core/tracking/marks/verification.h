// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <vector>

#include "core/tracking/marks/appearance.h"

namespace fin {

/// A mark with the places where it might be in this frame.
struct MarkChoices {
  PixelPoint expected;
  double uncertainty_px = 4.0;  ///< of the expected place
  std::vector<MarkAppearance::Candidate> candidates;
};

/// The most believable candidate: a high likeness, near where it was expected. None without candidates.
std::optional<std::size_t> chooseOne(const MarkChoices& mark);

struct PairChoice {
  std::optional<std::size_t> first;
  std::optional<std::size_t> second;
};
/// The same for two ends of one rigid body, judged together: their distance may change only a little from
/// one frame to the next, so that one end cannot jump to a look-alike while the other stays.
PairChoice choosePair(const MarkChoices& first, const MarkChoices& second, double apart_px);

/// 0 … 1 from how much a found mark looks like itself, and how far the pair's distance has moved from the
/// one expected (as a share of it). Below kSeenFrom the mark counts as not seen.
double qualityOf(double likeness, double stretchShare);
constexpr double kSeenFrom = 0.35;

}  // namespace fin
