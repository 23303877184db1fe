// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <map>
#include <vector>

#include "core/tracking/body/body_evidence.h"


namespace fin {

/// A body's pose in one frame, and how far it can be believed.
struct PosedFrame {
  BodyPose pose;
  double agreement = 0.0;  ///< of the picture with the body's shape there, 1 is as well as could be
  double likeness = 0.0;   ///< of its inner look
  double margin = 0.0;     ///< by how much a way through another pose would be worse
};
using PosePath = std::map<std::size_t, PosedFrame>;

/// Poses that are known, by frame: by a person's marks, or by other means that are to be tried.
struct PoseHints {
  std::map<std::size_t, BodyPose> given;
  std::map<std::size_t, BodyPose> found;
};

/// How far a body's axis may be seen shortened, by the way it is filmed.
enum class Foreshortening {
  None,     ///< from above: it lies level
  Slight,   ///< from the side, on a straight pull
  Any,      ///< it turns as it likes
};

/// The body's way through all frames of a film, decided over the whole of it.
PosePath findPosePath(const ReducedFilm& film, const BodyEvidence& evidence, const PoseHints& hints,
                      Foreshortening turns);


}  // namespace fin
