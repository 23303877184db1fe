// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <vector>

#include "core/tracking/marks/mark_channel.h"

namespace fin {

/// The small thing at a mark's very place, in the channel in which it stands out. It settles where a mark is
/// that has been found by its wider look: the body's edges and shading around it, which turn with the body,
/// then do not pull at the place.
class MarkDetail {
 public:
  /// A look that a person pointed at; the first decides the channel.
  void addGiven(const Picture& picture, const PatchPose& pose, int radius_px);
  /// The detail's place near a pose; none where it is not found there. It may lie a little beside the mark,
  /// always by as much (seed_offset.h).
  [[nodiscard]] std::optional<PixelPoint> settle(const Picture& picture, const PatchPose& pose) const;

  /// Something stands out at the mark, so that it can be told by it.
  [[nodiscard]] bool standsOut() const { return !channel_.isLuma(); }
  /// Places around a pose where the detail may be, best first.
  [[nodiscard]] std::vector<PixelPoint> places(const Picture& picture, const PatchPose& pose, int reach_px,
                                               std::size_t most = 3) const;
  /// How much a place looks like the detail, −1 … 1, to the pixel around it.
  [[nodiscard]] double likenessAt(const Picture& picture, const PatchPose& pose) const;
  /// How much the middle of a place stands out from what lies around it, as a share of what was pointed at.
  [[nodiscard]] double contrastAt(const Picture& picture, PixelPoint at) const;
  /// How far the colour of a place is from what was pointed at, in steps of the colour differences (0 … 255).
  [[nodiscard]] double colourAway(const Picture& picture, PixelPoint at) const;

 private:
  /// What of the picture is needed about a pose, with `reach` of its own pixels around.
  [[nodiscard]] MarkView viewOf(const Picture& picture, const PatchPose& pose, int reach = 0) const;

  MarkChannel channel_;
  int radius_px_ = 0;
  std::vector<PatchTemplate> looks_;
  std::vector<cv::Vec2d> colours_;  ///< blue and red difference of the middles that were pointed at
};

}  // namespace fin
