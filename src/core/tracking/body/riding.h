// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <map>
#include <vector>

#include "core/tracking/body/axis_pose.h"
#include "core/tracking/track.h"

namespace fin {

/// Where a mark that rides on a body should be in a frame.
struct RidingMark {
  PixelPoint at;
  bool agrees = false;  ///< with where the mark itself was followed to
};

/// Where a body lies in a frame.
struct BodyPlace {
  AxisPose pose;  ///< in full pixels
  bool sure = false;
};
using BodyWay = std::map<std::size_t, BodyPlace>;

/// How much nearer to the camera than the body's middle a mark lies, of the distance, and its standard
/// deviation; by default as before anything is known.
struct Nearness {
  double value = 0.0;
  double doubt = 0.008;
};
struct Riding {
  std::map<std::size_t, RidingMark> marks;
  Nearness nearness;         ///< as it was found
  std::size_t agreeing = 0;  ///< frames
};
/// A mark's places as told by the body's way, in full pixels, for every frame of that way.
///
/// Model: a mark lies fixed on the body, but nearer to the camera than the body's middle by h, so that it is
/// seen beside its place on the outline by h / distance of how far the body lies from the picture's middle;
/// and that changes slowly, along the body less than across it, as the body rolls. Estimated from where the
/// mark itself was followed to, as far as that agrees, outwards from the places that a person gave (R.
/// Kalman, 1960; smoothed after H. Rauch, F. Tung & C. Striebel, 1965). A mark that leaves its place by a
/// jump, or by more than that allows, is not believed any more until it comes back.
Riding rideOn(const BodyWay& way, const MarkTrack& followed, std::size_t firstFrame,
              const std::vector<MarkSeed>& seeds, PixelPoint pictureMiddle, Nearness before = {});

}  // namespace fin
