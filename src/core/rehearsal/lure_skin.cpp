// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/lure_skin.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/rehearsal/chance.h"

namespace fin {
namespace {

using Eigen::Vector3d;

constexpr double kScale_mm = 2.6;
constexpr double kDent_mm = 4.5;  ///< of hammered metal
constexpr double kFlake_mm = 0.9;
constexpr double kRib_mm = 3.2;
constexpr double kCollarHalf = 0.028;  ///< of the length
constexpr Colour kNoseRing{248.0, 246.0, 236.0};
constexpr Colour kTailRing{18.0, 18.0, 22.0};

void mix(Colour& colour, const Colour& with, double share) {
  for (std::size_t c = 0; c < 3; ++c) colour[c] += share * (with[c] - colour[c]);
}
void dim(Colour& colour, double by) {
  for (double& c : colour) c *= by;
}

/// 1 within, 0 without, soft at the edge.
double within(double distance, double half, double edge) {
  return 1.0 / (1.0 + std::exp((distance - half) / edge));
}

/// Back over belly, bands across, and a ring round the axis at either mark.
Colour bodyColour(const LureBuild& build, const Vector3d& rest) {
  const double along = rest.x() / build.length_mm;
  const double high = rest.y() / (0.5 * build.height_mm);
  Colour out = build.back;
  mix(out, build.belly, within(high, 0.05, 0.16));
  for (int i = 0; i < build.bandCount; ++i) {
    const double at = -0.34 + 0.62 * (i + 0.5) / build.bandCount;
    const double narrow = 0.022 * std::clamp(0.65 + 0.5 * high, 0.15, 1.0);
    mix(out, build.bands, 0.75 * within(std::abs(along - at - 0.02 * high), narrow, 0.006));
  }
  return out;
}

void addRings(Colour& colour, const LureBuild& build, double along) {
  mix(colour, kNoseRing, build.rings * within(std::abs(along - 0.5), kCollarHalf, 0.005));
  mix(colour, kTailRing, build.rings * within(std::abs(along + 0.5), kCollarHalf, 0.005));
}

/// Tilts a normal sideways: along the body and upwards.
Vector3d tilted(const Vector3d& normal, double along, double up) {
  return (normal + Vector3d(along, up, 0.0)).normalized();
}

Shade scaled(const LureBuild& build, const Skin& skin, const Vector3d& rest, const Vector3d& normal) {
  Shade out{bodyColour(build, rest), skin.gloss, normal};
  const double along = rest.x() / build.length_mm;
  const double high = rest.y() / (0.5 * build.height_mm);
  // Behind the gill cover scales lie over each other like tiles on a roof.
  const double gill = 0.27 - 0.05 * (1.0 - high * high);
  mix(out.colour, {30.0, 30.0, 30.0}, 0.5 * within(std::abs(along - gill), 0.006, 0.003));
  if (along < gill && along > -0.46) {
    const double row = rest.y() / kScale_mm;
    const int n = static_cast<int>(std::floor(row));
    const double column = rest.x() / kScale_mm + (n % 2 == 0 ? 0.0 : 0.5);
    const double x = column - std::floor(column) - 0.5;
    const double y = row - std::floor(row) - 0.5;
    dim(out.colour, 1.04 - 0.32 * std::min(std::hypot(x, y), 0.6));
    const double glint = chanceOf(n, static_cast<int>(std::floor(column))) - 0.5;
    out.normal = tilted(normal, 0.30 * x + 0.22 * glint, 0.30 * y);
  }
  addRings(out.colour, build, along);
  return out;
}

Shade soft(const LureBuild& build, const Skin& skin, const Vector3d& rest, const Vector3d& normal) {
  Shade out{bodyColour(build, rest), skin.gloss, normal};
  const int a = static_cast<int>(std::floor(rest.x() / kFlake_mm));
  const int b = static_cast<int>(std::floor(rest.y() / kFlake_mm));
  if (chanceOf(a, b) > 0.955) mix(out.colour, {250.0, 235.0, 170.0}, 0.55);
  if (std::abs(rest.x()) < 0.45 * build.length_mm)
    dim(out.colour, 0.93 + 0.07 * std::cos(2.0 * std::numbers::pi * rest.x() / kRib_mm));
  addRings(out.colour, build, rest.x() / build.length_mm);
  return out;
}

Shade hammered(const LureBuild& build, const Skin& skin, const Vector3d& rest, const Vector3d& normal) {
  Colour colour = normal.y() > 0.0 ? build.back : build.belly;
  const double along = rest.x() / build.length_mm;
  // One painted stripe along, and bands across it.
  const double aside = rest.z() / (0.5 * build.width_mm);
  mix(colour, build.bands, 0.9 * within(std::abs(aside - 0.35 * std::sin(5.0 * along)), 0.16, 0.03));
  for (int i = 0; i < build.bandCount; ++i) {
    const double at = -0.3 + 0.6 * (i + 0.5) / build.bandCount;
    mix(colour, build.bands, 0.55 * within(std::abs(along - at - 0.05 * aside), 0.022, 0.006));
  }
  Shade out{colour, skin.gloss, normal};
  const double x = rest.x() / kDent_mm;
  const double z = rest.z() / kDent_mm;
  const int a = static_cast<int>(std::lround(x));
  const int b = static_cast<int>(std::lround(z));
  const double dx = x - a + 0.3 * (chanceOf(a, b) - 0.5);
  const double dz = z - b + 0.3 * (chanceOf(b, a) - 0.5);
  out.normal = (normal + Vector3d(0.45 * dx, 0.0, 0.45 * dz)).normalized();
  addRings(out.colour, build, along);
  return out;
}

Shade eye(const Skin& skin, const Vector3d& rest, const Vector3d& normal) {
  const double off = std::hypot(rest.x() - skin.centre.x(), rest.y() - skin.centre.y()) / skin.size_mm;
  Colour colour = skin.colour;
  mix(colour, {10.0, 10.0, 14.0}, within(off, 0.48, 0.04));
  mix(colour, {25.0, 25.0, 28.0}, 1.0 - within(off, 0.86, 0.04));
  return {colour, 0.9, normal};
}

}  // namespace

Shade shadeOf(const LureBuild& build, const Skin& skin, const Vector3d& rest, const Vector3d& normal) {
  switch (skin.kind) {
    case SkinKind::Scales:
      return scaled(build, skin, rest, normal);
    case SkinKind::Soft:
      return soft(build, skin, rest, normal);
    case SkinKind::Hammered:
      return hammered(build, skin, rest, normal);
    case SkinKind::Eye:
      return eye(skin, rest, normal);
    case SkinKind::Paint:
      break;
  }
  Shade out{skin.colour, skin.gloss, normal};
  if (skin.ringed) addRings(out.colour, build, rest.x() / build.length_mm);
  return out;
}

}  // namespace fin
