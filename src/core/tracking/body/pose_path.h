// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <map>
#include <set>
#include <stop_token>
#include <vector>

#include "core/tracking/body/body_evidence.h"

namespace fin {

/// A body's pose in one frame, and how far it can be believed.
struct PosedFrame {
  AxisPose pose;
  double agreement = 0.0;  ///< of the picture with the body's shape there, 1 is as well as could be
  double likeness = 0.0;   ///< of its inner look
  bool sure = false;       ///< it agrees about as well as in most frames, and no other way is nearly as good
  double margin = 0.0;     ///< by how much a way through another pose would be worse
};
using PosePath = std::map<std::size_t, PosedFrame>;

/// Poses that are known, by frame: by a person's marks, or by other means that are to be tried.
struct PoseHints {
  std::map<std::size_t, AxisPose> given;
  std::map<std::size_t, AxisPose> found;
  std::set<std::size_t> surelyFound;  ///< those of `found` that nothing speaks against
};

/// The body's way through those of a film's frames that are asked for, decided over all of them together: the
/// cheapest way through some hypotheses a frame (R. Bellman, Dynamic Programming, 1957). Empty where no given
/// pose lies in those frames, and where it was stopped.
PosePath findPosePath(const std::set<std::size_t>& frames, BodyEvidence& evidence, const PoseHints& hints,
                      Foreshortening turns, const std::stop_token& stop = {});

}  // namespace fin
