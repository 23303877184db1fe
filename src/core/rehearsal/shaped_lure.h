// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/rehearsal/lure.h"
#include "core/rehearsal/lure_skin.h"
#include "core/rehearsal/mesh.h"

namespace fin {

/// A lure with all that one of its kind has, made once and then posed: meshes in body axes (mm), each hanging
/// at a joint.
class ShapedLure {
 public:
  enum class Joint { Body, Tail, Blade, Strand };
  struct Part {
    Mesh mesh;
    Skin skin;
    Joint joint = Joint::Body;
    double round_rad = 0.0;  ///< of a strand: where it stands round the axis
    double share = 1.0;      ///< and which share of the flare it takes part in
  };

  explicit ShapedLure(const LureBuild& build);

  [[nodiscard]] const LureBuild& build() const { return build_; }
  [[nodiscard]] const std::vector<Part>& parts() const { return parts_; }
  /// Body axes → tank, for each part.
  [[nodiscard]] std::vector<Eigen::Isometry3d> stand(const BodyPose& pose) const;

 private:
  LureBuild build_;
  std::vector<Part> parts_;
};

}  // namespace fin
