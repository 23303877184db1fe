// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <vector>

#include "core/readings/pass_traces.h"

namespace fin {

/// How a camera that sees the lure from its side looks at it.
struct SightView {
  std::optional<double> focal_px;  ///< of the picture; a usual one (0.82 of its width) where unknown
  PixelPoint middle;               ///< of the picture, or where the lens looks
  double width_px = 0.0;
  std::optional<double> whole_px;  ///< the known length from nose to tail, as it would show square on
  double wholeRelativeU95 = 0.0;
  std::optional<double> heading_rad;  ///< as stated: out of the picture's plane, nose away positive
  double headingU95_rad = 0.0;
};

/// Something of the body that moves with the wobble. Even cues do the same on both sides, and so twice a
/// wobble where it swings about the picture's plane; odd ones do it once.
struct SightCue {
  Series px;
  bool odd = false;
};

/// What a view from the side shows of a body that turns towards the camera and away.
struct SightTrace {
  std::vector<double> t_s;
  std::vector<double> length_px;  ///< nose to tail, times the cosine of the angle of sight
  std::vector<double> sight_rad;  ///< from the camera's axis to the body, positive ahead of it along the pull
  std::vector<SightCue> cues;     ///< the length first
  double frameRate_Hz = 0.0;
  double rollSwing_px = 0.0;  ///< half of how far a spot on the flank goes up and down, where one is followed
  SightView view;

  [[nodiscard]] std::size_t frames() const { return t_s.size(); }
  [[nodiscard]] double sightRange_rad() const;
};

/// Of the frames that show nose and tail; empty without both. Straight geometry. Pure; on any thread.
SightTrace traceSight(const Track& track, std::span<const double> time_s, const Geometry& geometry,
                      const SightView& view);

}  // namespace fin
