// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/shaped_lure.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace fin {
namespace {

using Eigen::AngleAxisd;
using Eigen::Isometry3d;
using Eigen::Translation3d;
using Eigen::Vector3d;
using Part = ShapedLure::Part;
using Joint = ShapedLure::Joint;
using Parts = std::vector<Part>;

constexpr double kEnd = 0.56;  ///< the body reaches so far from its middle: a little past its marks
constexpr int kRings = 44;
constexpr int kSides = 24;
constexpr int kSkirtStrands = 54;
constexpr double kStrandThick_mm = 1.0;
constexpr double kWire_mm = 0.75;
constexpr int kWireSides = 6;
constexpr Colour kSteel{96.0, 100.0, 106.0};
const Skin kSteelSkin{.kind = SkinKind::Paint, .colour = kSteel, .gloss = 0.9};

/// A profile through given places (share of the way, value), rounded by Catmull and Rom's spline.
double profile(const std::vector<std::pair<double, double>>& places, double share) {
  std::size_t i = 1;
  while (i + 1 < places.size() && places[i].first < share) ++i;
  const auto at = [&places](std::size_t n) { return places[std::min(n, places.size() - 1)]; };
  const auto [x1, y1] = at(i - 1);
  const auto [x2, y2] = at(i);
  const double before = i >= 2 ? (y2 - at(i - 2).second) / (x2 - at(i - 2).first) : (y2 - y1) / (x2 - x1);
  const double after =
      i + 1 < places.size() ? (at(i + 1).second - y1) / (at(i + 1).first - x1) : (y2 - y1) / (x2 - x1);
  const double w = x2 - x1;
  const double t = std::clamp((share - x1) / w, 0.0, 1.0);
  const double hermite = (2 * t * t * t - 3 * t * t + 1) * y1 + (t * t * t - 2 * t * t + t) * w * before +
                         (3 * t * t - 2 * t * t * t) * y2 + (t * t * t - t * t) * w * after;
  return std::max(hermite, 0.01);
}

void add(Parts& parts, Mesh mesh, Skin skin, Joint joint = Joint::Body) {
  parts.push_back({std::move(mesh), skin, joint});
}

/// An ellipsoid about a place.
Mesh ball(const Vector3d& centre, const Vector3d& halfAxes) {
  return lofted(ringsAlong(halfAxes.x(), -halfAxes.x(), 14,
                           [&](double share) {
                             const double x = 2.0 * share - 1.0;
                             const double r = std::sqrt(std::max(1.0 - x * x, 1e-4));
                             return Ring{centre, halfAxes.y() * r, halfAxes.y() * r, halfAxes.z() * r};
                           }),
                18);
}

void addEyes(Parts& parts, const Vector3d& at, double radius_mm, const Colour& iris) {
  for (const double side : {-1.0, 1.0}) {
    const Vector3d centre(at.x(), at.y(), side * at.z());
    add(parts, ball(centre, {radius_mm, radius_mm, 0.45 * radius_mm}),
        {.kind = SkinKind::Eye, .colour = iris, .centre = centre, .size_mm = radius_mm});
  }
}

/// A ring of wire in the plane of x and y.
Mesh wireRing(const Vector3d& centre, double radius_mm) {
  std::vector<Vector3d> path;
  for (int i = 0; i <= 16; ++i) {
    const double a = 2.0 * std::numbers::pi * i / 16;
    path.push_back(centre + radius_mm * Vector3d(std::cos(a), std::sin(a), 0.0));
  }
  return wire(path, 0.6 * kWire_mm, kWireSides);
}

/// One hook, its eye at the origin, its shank straight down, its point up again in front.
std::vector<Vector3d> hookPath(double shank_mm, double gape_mm) {
  std::vector<Vector3d> path{{0.0, 0.0, 0.0}, {0.0, -0.5 * shank_mm, 0.0}};
  const double r = 0.5 * gape_mm;
  for (int i = 0; i <= 10; ++i) {
    const double a = std::numbers::pi * (1.0 + i / 10.0);
    path.emplace_back(r + r * std::cos(a), -shank_mm + r * std::sin(a), 0.0);
  }
  path.emplace_back(1.9 * r, -shank_mm + 0.55 * gape_mm, 0.0);
  return path;
}

/// Three hooks on one shank, trailing a little.
void addTreble(Parts& parts, const Vector3d& at, double size_mm) {
  add(parts, wireRing(at - Vector3d(0.0, 0.12 * size_mm, 0.0), 0.16 * size_mm), kSteelSkin);
  for (int i = 0; i < 3; ++i) {
    const Isometry3d hung = Translation3d(at - Vector3d(0.0, 0.2 * size_mm, 0.0)) *
                            AngleAxisd(-0.45, Vector3d::UnitZ()) *
                            AngleAxisd(2.0 * std::numbers::pi * i / 3.0 + 0.4, Vector3d::UnitY());
    add(parts, moved(wire(hookPath(0.62 * size_mm, 0.5 * size_mm), kWire_mm, kWireSides), hung), kSteelSkin);
  }
}

/// A thin plate that stands out of the nose: `tilt` below the axis.
Mesh lipPlate(const Vector3d& from, double tilt_rad, double length_mm, double half_mm, double thick_mm) {
  const auto rings = ringsAlong(length_mm, 0.0, 16, [&](double share) {
    const double x = 1.0 - share;  // 0 at its root
    const double wide = half_mm * std::sqrt(std::max(1.0 - std::pow(2.0 * x - 0.85, 2.0) / 1.33, 0.02));
    return Ring{Vector3d::Zero(), thick_mm, thick_mm, wide};
  });
  return moved(lofted(rings, 12), Translation3d(from) * Isometry3d(AngleAxisd(-tilt_rad, Vector3d::UnitZ())));
}

/// A body along the axis from one place to another: half height and half width by their profiles.
Mesh body(double from_mm, double to_mm, const std::vector<std::pair<double, double>>& shape, double high_mm,
          double wide_mm, double belly = 1.0) {
  return lofted(ringsAlong(from_mm, to_mm, kRings,
                           [&](double share) {
                             const double p = profile(shape, share);
                             return Ring{Vector3d::Zero(), p * high_mm, belly * p * high_mm, p * wide_mm};
                           }),
                kSides);
}

void buildJerkbait(Parts& parts, const LureBuild& b) {
  const double L = b.length_mm;
  const double H = b.height_mm;
  const double W = b.width_mm;
  add(parts,
      body(kEnd * L, -kEnd * L,
           {{0.0, 0.05},
            {0.03, 0.40},
            {0.1, 0.68},
            {0.28, 0.98},
            {0.45, 0.97},
            {0.7, 0.70},
            {0.9, 0.42},
            {0.97, 0.33},
            {1.0, 0.1}},
           0.5 * H, 0.5 * W, 1.05),
      {.kind = SkinKind::Scales, .gloss = 0.6});
  addEyes(parts, {0.37 * L, 0.12 * H, 0.33 * W}, 0.13 * H, {236.0, 190.0, 60.0});
  if (b.lip_mm > 0.0)
    add(parts, lipPlate({0.49 * L, -0.12 * H, 0.0}, 0.75, b.lip_mm, 0.42 * b.lip_mm, 0.5),
        {.colour = {188.0, 205.0, 208.0}, .gloss = 0.9});
  add(parts, wireRing({0.575 * L, 0.0, 0.0}, 1.8), kSteelSkin);
  addTreble(parts, {0.14 * L, -0.52 * H, 0.0}, 0.62 * H);
  addTreble(parts, {-0.40 * L, -0.28 * H, 0.0}, 0.62 * H);
}

/// A lead head with an eye, and the hook that comes out of the back.
void addJigHead(Parts& parts, const LureBuild& b, const Colour& paint) {
  const double L = b.length_mm;
  const double H = b.height_mm;
  add(parts, ball({0.43 * L, 0.0, 0.0}, {0.125 * L, 0.46 * H, 0.46 * b.width_mm}),
      {.colour = paint, .gloss = 0.6, .ringed = true});
  addEyes(parts, {0.45 * L, 0.08 * H, 0.41 * b.width_mm}, 0.15 * H, {240.0, 225.0, 90.0});
  add(parts, wireRing({0.43 * L, 0.54 * H, 0.0}, 1.7), kSteelSkin);
  const Isometry3d out = Translation3d(-0.16 * L, 0.1 * H, 0.0) *
                         AngleAxisd(std::numbers::pi, Vector3d::UnitX()) *
                         Isometry3d(AngleAxisd(0.9, Vector3d::UnitZ()));
  add(parts, moved(wire(hookPath(0.4 * H, 0.62 * H), kWire_mm, kWireSides), out), kSteelSkin);
}

/// Head, soft body, and the stem of a tail that swings from the body's end on.
void buildSoftBody(Parts& parts, const LureBuild& b) {
  const double L = b.length_mm;
  addJigHead(parts, b, {92.0, 96.0, 100.0});
  add(parts,
      body(0.40 * L, -0.53 * L,
           {{0.0, 0.75}, {0.12, 0.98}, {0.35, 1.0}, {0.65, 0.78}, {0.9, 0.5}, {1.0, 0.36}}, 0.5 * b.height_mm,
           0.5 * b.width_mm),
      {.kind = SkinKind::Soft, .gloss = 0.35});
}

void addTailStem(Parts& parts, const LureBuild& b, double to) {
  const double T = b.tail_mm;
  add(parts,
      body(0.02 * T, -to * T, {{0.0, 1.0}, {0.5, 0.62}, {1.0, 0.42}}, 0.19 * b.height_mm, 0.16 * b.width_mm),
      {.colour = b.belly, .gloss = 0.35}, Joint::Tail);
}

void buildPaddleTail(Parts& parts, const LureBuild& b) {
  buildSoftBody(parts, b);
  const double T = b.tail_mm;
  if (T <= 0.0) return;
  addTailStem(parts, b, 0.9);
  // The paddle stands across the stem, leaning back a little, and is thickest in the middle.
  const Mesh paddle = ball({0.0, 0.0, 0.0}, {0.07 * T, 0.52 * b.height_mm, 0.36 * b.width_mm});
  add(parts,
      moved(paddle, Translation3d(-kTipMark * T, 0.0, 0.0) * Isometry3d(AngleAxisd(0.28, Vector3d::UnitZ()))),
      {.colour = b.bands, .gloss = 0.35}, Joint::Tail);
}

void buildCurlTail(Parts& parts, const LureBuild& b) {
  buildSoftBody(parts, b);
  const double T = b.tail_mm;
  if (T <= 0.0) return;
  addTailStem(parts, b, 0.55);
  std::vector<Ring> ribbon;
  const double r = 0.26 * T;
  for (int i = 0; i <= 6; ++i)
    ribbon.push_back(
        {{-(0.45 + (kTipMark - 0.45) * i / 6.0) * T, 0.0, 0.0}, 1.4 + 0.4 * i, 1.4 + 0.4 * i, 0.7});
  for (int i = 1; i <= 14; ++i) {
    const double a = std::numbers::pi * (0.5 + 1.15 * i / 14.0);
    const double high = 3.8 * std::sqrt(std::max(1.0 - std::pow(i / 14.2, 2.0), 0.0)) + 0.3;
    ribbon.push_back({{-kTipMark * T + r * std::cos(a), -r + r * std::sin(a), 0.0}, high, high, 0.6});
  }
  add(parts, lofted(ribbon, 10), {.colour = b.bands, .gloss = 0.45}, Joint::Tail);
}

void buildSpoon(Parts& parts, const LureBuild& b) {
  const double L = b.length_mm;
  const double low = std::sin(std::numbers::pi * (kEnd - 0.5) / (2.0 * kEnd));
  const std::vector<std::pair<double, double>> egg{{0.0, 0.12},  {0.05, 0.34}, {0.2, 0.62}, {0.6, 1.0},
                                                   {0.85, 0.78}, {0.96, 0.40}, {1.0, 0.12}};
  add(parts,
      lofted(ringsAlong(kEnd * L, -kEnd * L, kRings,
                        [&](double share) {
                          // Cupped: both marks lie on the axis, the middle hangs below it.
                          const double cup = 0.5 * b.height_mm * (std::sin(std::numbers::pi * share) - low);
                          return Ring{{0.0, -cup, 0.0}, 0.9, 0.9, 0.5 * b.width_mm * profile(egg, share)};
                        }),
             30),
      {.kind = SkinKind::Hammered, .gloss = 0.5});
  add(parts, wireRing({0.58 * L, 0.0, 0.0}, 2.4), kSteelSkin);
  add(parts, wireRing({-0.58 * L, 0.0, 0.0}, 2.6), kSteelSkin);
  const Isometry3d trailing =
      Translation3d(-0.60 * L, 0.0, 0.0) * Isometry3d(AngleAxisd(-1.5, Vector3d::UnitZ()));
  add(parts, moved(wire(hookPath(0.16 * L, 0.13 * L), kWire_mm, kWireSides), trailing), kSteelSkin);
}

/// A strand lies from the origin along −x, and hangs a little.
Mesh strand(double length_mm, double sag) {
  std::vector<Ring> rings;
  for (int i = 0; i <= 8; ++i) {
    const double s = i / 8.0;
    const double r = 0.5 * kStrandThick_mm * (1.0 - 0.3 * s);
    rings.push_back({{-s * length_mm, -sag * length_mm * s * (1.0 - s), 0.0}, r, r, 1.6 * r});
  }
  return lofted(rings, 5);
}

/// Strands all round, outer and inner by turns, no two quite alike.
void addSkirt(Parts& parts, const LureBuild& b, const Isometry3d& at, double length_mm, double still_rad,
              Joint joint) {
  for (int i = 0; i < kSkirtStrands; ++i) {
    const double round = 2.0 * std::numbers::pi * i / kSkirtStrands;
    const bool outer = i % 2 == 0;
    const double share = outer ? 1.0 : 0.5;
    const double length = length_mm * (outer ? 1.0 : 0.93);
    Mesh mesh = strand(length, 0.05 * std::sin(2.4 * i));
    if (joint == Joint::Body)
      mesh = moved(std::move(mesh), at * AngleAxisd(round, Vector3d::UnitX()) *
                                        Isometry3d(AngleAxisd(-still_rad * share, Vector3d::UnitZ())));
    Part part{std::move(mesh), {.colour = i % 3 == 0 ? b.bands : b.belly, .gloss = 0.5}, joint};
    part.round_rad = round;
    part.share = share;
    parts.push_back(std::move(part));
  }
}

void buildBladedBait(Parts& parts, const LureBuild& b) {
  const double L = b.length_mm;
  const double H = b.height_mm;
  add(parts, ball({0.40 * L, 0.0, 0.0}, {0.16 * L, 0.5 * H, 0.48 * b.width_mm}),
      {.colour = b.back, .gloss = 0.7, .ringed = true});
  addEyes(parts, {0.42 * L, 0.06 * H, 0.43 * b.width_mm}, 0.17 * H, {225.0, 60.0, 45.0});
  add(parts,
      body(0.36 * L, -kEnd * L, {{0.0, 0.9}, {0.15, 0.72}, {0.5, 0.62}, {0.85, 0.46}, {1.0, 0.3}}, 0.5 * H,
           0.5 * b.width_mm),
      {.kind = SkinKind::Soft, .gloss = 0.4});
  if (b.lip_mm > 0.0)
    add(parts, lipPlate({0.50 * L, -0.1 * H, 0.0}, 0.5, 1.5 * b.lip_mm, 0.75 * b.lip_mm, 0.5),
        {.colour = {214.0, 206.0, 180.0}, .gloss = 1.0});
  if (b.tail_mm > 0.0) {
    addSkirt(parts, b, Isometry3d(Translation3d(0.24 * L, 0.0, 0.0)), 0.62 * L, 0.42, Joint::Body);
    addTailStem(parts, b, 0.95);
    add(parts, ball({-kTipMark * b.tail_mm, 0.0, 0.0}, {0.11 * b.tail_mm, 0.34 * H, 0.20 * b.width_mm}),
        {.colour = b.bands, .gloss = 0.4}, Joint::Tail);
  }
}

void addBlade(Parts& parts, const LureBuild& b) {
  const double B = b.blade_mm;
  add(parts, ball({-0.45 * B, 0.0, 0.0}, {0.5 * B, 0.27 * B, 1.0}),
      {.colour = {205.0, 210.0, 215.0}, .gloss = 1.0}, Joint::Blade);
  add(parts, ball({-kBladeMark * B, 0.0, 0.0}, {0.12 * B, 0.16 * B, 1.6}), {.colour = b.bands, .gloss = 0.5},
      Joint::Blade);
}

}  // namespace

ShapedLure::ShapedLure(const LureBuild& build) : build_(build) {
  switch (build.shape) {
    case LureShape::PaddleTail:
      buildPaddleTail(parts_, build);
      break;
    case LureShape::CurlTail:
      buildCurlTail(parts_, build);
      break;
    case LureShape::Spoon:
      buildSpoon(parts_, build);
      break;
    case LureShape::BladedBait:
      buildBladedBait(parts_, build);
      break;
    case LureShape::Jerkbait:
    case LureShape::Plain:
      buildJerkbait(parts_, build);
      break;
  }
  if (build.blade_mm > 0.0) addBlade(parts_, build);
  if (build.skirt_mm > 0.0)
    addSkirt(parts_, build, Isometry3d::Identity(), build.skirt_mm, 0.0, Joint::Strand);
}

std::vector<Isometry3d> ShapedLure::stand(const BodyPose& pose) const {
  const LureJoints joints = jointsOf(build_, pose);
  std::vector<Isometry3d> out;
  for (const Part& part : parts_) {
    switch (part.joint) {
      case Joint::Body:
        out.push_back(joints.body);
        break;
      case Joint::Tail:
        out.push_back(joints.tail);
        break;
      case Joint::Blade:
        out.push_back(joints.blade);
        break;
      case Joint::Strand:
        out.push_back(strandAt(joints.body, build_, part.round_rad, part.share * pose.flare_rad));
        break;
    }
  }
  return out;
}

}  // namespace fin
