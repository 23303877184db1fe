// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/measuring: how the camera of a request looks at the lure and at the lines of the tank.
#pragma once

#include "core/footage/clip.h"
#include "core/measuring/pass_request.h"
#include "core/readings/roll.h"
#include "core/readings/sight.h"
#include "core/tracking/row_times.h"

namespace fin {

/// From where a pull is seen, whatever carries the camera.
enum class Look { Above, Side, Ahead };
Look lookOf(const PassRequest& request);

RowTimes rowTimesOf(Seconds readout, const ClipInfo& clip);
/// From where the side view sees a roll.
RollView rollViewOf(const PassRequest& request, const ClipInfo& clip, const std::optional<Scale>& scale);
/// And a wobble; `ruler` is the scale of the lure's plane without the lure itself.
SightView sightViewOf(const PassRequest& request, const ClipInfo& clip, const std::optional<Scale>& ruler);
/// How the marked bottom slopes in the lure's plane, in the traces' own directions; level where none is
/// marked.
double bottomSlope_deg(const PassRequest& request, const Rectification& picture);

/// A track with the true times of its frames: the whole window, or one stretch of it.
struct Timed {
  Track track;
  std::vector<double> time_s;
};
/// The frames of a track from one to another, both included; they have some in common.
Track framesOf(const Track& track, FrameStretch frames);
/// Every mark where it is surely seen first in some frames.
std::vector<MarkSeed> seedsIn(const Track& track, FrameStretch frames);
/// The body's centre along a marked line of the pull, and to its right as the lure goes; `unit` a pixel.
struct AgainstLine {
  Series along;
  Series across;
};
AgainstLine placesAgainst(const PixelLine& line, const Timed& part, const Rectification& picture,
                          double unit);

}  // namespace fin
