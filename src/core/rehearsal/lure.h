// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <Eigen/Core>
#include <Eigen/Geometry>
#include <array>
#include <vector>

#include "core/rehearsal/motion.h"
#include "core/tracking/track.h"

namespace fin {

/// What a lure is drawn as. Plain is made of ellipsoids and is drawn fastest; the others have what a lure of
/// their kind has: eyes, hooks, scales, a lip, a tail that kicks. Marks lie in the same places for all.
enum class LureShape { Plain, PaddleTail, CurlTail, Jerkbait, Spoon, BladedBait };

/// Where the marks of what hangs behind the body lie, as shares of its length from the body on.
inline constexpr double kTipMark = 0.92;
inline constexpr double kBladeMark = 0.85;

/// The build of a rehearsal lure. Body axes: x to the nose, y to the back, z to its right; origin midway
/// between the places called nose and tail.
struct LureBuild {
  double length_mm = 90.0;  ///< nose to end of the rigid body
  double height_mm = 20.0;
  double width_mm = 12.0;
  double tail_mm = 0.0;                          ///< a soft tail behind the body; none at 0
  double blade_mm = 0.0;                         ///< a blade that swings behind the tail; none at 0
  double skirt_mm = 0.0;                         ///< strands from the tail on; none at 0
  double lip_mm = 0.0;                           ///< a diving lip under the nose; none at 0
  std::array<double, 3> back{60.0, 80.0, 60.0};  ///< red, green, blue, 0 … 255
  std::array<double, 3> belly{225.0, 220.0, 205.0};
  std::array<double, 3> bands{170.0, 60.0, 40.0};
  int bandCount = 5;
  double rings = 1.0;  ///< how strongly nose and tail are ringed: 0 is a plain body
  LureShape shape = LureShape::Plain;
};

/// One ellipsoid of a posed lure, ready to be looked at.
struct PosedPart {
  Eigen::Matrix3d toBody;  ///< tank directions → unit sphere axes
  Eigen::Vector3d centre_mm;
  Eigen::Matrix3d turned;  ///< body directions → tank
  Eigen::Vector3d halfAxes_mm;
  bool isBody = false;
  std::array<double, 3> paint{};  ///< of parts that are not the body
};

/// Half of the part's extent along a direction of length 1.
double reachAlong(const PosedPart& part, const Eigen::Vector3d& direction);

/// Where the parts of a lure stand: body axes → tank. A tail and a blade hang at the end of the body's axis,
/// as does each strand of a skirt; what hangs is drawn from there along −x.
struct LureJoints {
  Eigen::Isometry3d body;
  Eigen::Isometry3d tail;
  Eigen::Isometry3d blade;
};
LureJoints jointsOf(const LureBuild& build, const BodyPose& pose);
/// A strand of a skirt: `round` the body's axis, `off` it.
Eigen::Isometry3d strandAt(const Eigen::Isometry3d& body, const LureBuild& build, double round_rad,
                           double off_rad);

/// Plain shapes only.
std::vector<PosedPart> posedParts(const LureBuild& build, const BodyPose& pose);

/// Colour of the body's skin at a place on the unit sphere.
std::array<double, 3> skin(const LureBuild& build, const Eigen::Vector3d& onSphere);

/// Where a mark is in the tank. The marks nose and tail lie on the body's axis, inside coloured rings, so
/// that every view sees their centres.
Eigen::Vector3d markPlace(const LureBuild& build, const BodyPose& pose, MarkName mark);

}  // namespace fin
