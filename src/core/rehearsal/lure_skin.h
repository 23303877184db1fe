// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <Eigen/Core>
#include <array>

#include "core/rehearsal/lure.h"

namespace fin {

using Colour = std::array<double, 3>;  ///< red, green, blue, 0 … 255

enum class SkinKind { Scales, Soft, Hammered, Paint, Eye };

/// What a part of a lure is covered with.
struct Skin {
  SkinKind kind = SkinKind::Paint;
  Colour colour{};                                   ///< of paint, and of an eye's iris
  double gloss = 0.3;                                ///< 0 … 1
  bool ringed = false;                               ///< paint, with the rings that carry the marks
  Eigen::Vector3d centre = Eigen::Vector3d::Zero();  ///< of an eye
  double size_mm = 1.0;                              ///< an eye's radius
};

/// What light meets at one place of a skin.
struct Shade {
  Colour colour;
  double gloss;
  Eigen::Vector3d normal;  ///< with the little unevenness of scales or hammering, of length 1
};

/// At a place of the unposed lure (mm, body axes) and its normal there. The same place gives the same shade.
Shade shadeOf(const LureBuild& build, const Skin& skin, const Eigen::Vector3d& rest,
              const Eigen::Vector3d& normal);

}  // namespace fin
