// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/lure.h"

#include <Eigen/Geometry>
#include <cmath>
#include <numbers>

namespace fin {
namespace {

using Eigen::AngleAxisd;
using Eigen::Matrix3d;
using Eigen::Vector3d;

constexpr double kOverhang = 1.12;      ///< the ellipsoid reaches a little past the marks
constexpr double kRingHalf = 0.055;     ///< of the sphere's x
constexpr int kStrands = 26;            ///< of a skirt
constexpr double kStrandHalf_mm = 1.0;  ///< of their thickness
constexpr double kMarkAt = 1.0 / kOverhang;
constexpr double kBladeHalf_mm = 1.2;  ///< of its thickness
constexpr double kBladeMark = 0.85;    ///< of its length

Matrix3d attitude(const BodyPose& pose) {
  // Yaw to the left turns x towards −z: a turn about +y. Pitch lowers the nose: a turn about −z.
  return (AngleAxisd(pose.yaw_rad, Vector3d::UnitY()) * AngleAxisd(-pose.pitch_rad, Vector3d::UnitZ()) *
          AngleAxisd(pose.roll_rad, Vector3d::UnitX()))
      .toRotationMatrix();
}

/// How a soft tail stands against the body.
Matrix3d bentTail(const BodyPose& pose) {
  return (AngleAxisd(pose.kick_rad, Vector3d::UnitY()) * AngleAxisd(-pose.flick_rad, Vector3d::UnitZ()))
      .toRotationMatrix();
}

Matrix3d swungBlade(const BodyPose& pose) {
  return AngleAxisd(pose.blade_rad, Vector3d::UnitY()).toRotationMatrix();
}

PosedPart part(const Matrix3d& turned, const Vector3d& centre, const Vector3d& halfAxes) {
  PosedPart out;
  out.turned = turned;
  out.toBody = halfAxes.cwiseInverse().asDiagonal() * turned.transpose();
  out.centre_mm = centre;
  out.halfAxes_mm = halfAxes;
  return out;
}

double smoothBand(double distance, double half) {
  return 1.0 / (1.0 + std::exp((distance - half) / 0.012));
}

}  // namespace

double reachAlong(const PosedPart& part, const Vector3d& direction) {
  return part.halfAxes_mm.cwiseProduct(part.turned.transpose() * direction).norm();
}

std::vector<PosedPart> posedParts(const LureBuild& build, const BodyPose& pose) {
  const Matrix3d turned = attitude(pose);
  std::vector<PosedPart> parts;
  parts.push_back(part(turned, pose.centre_mm,
                       {0.5 * kOverhang * build.length_mm, 0.5 * build.height_mm, 0.5 * build.width_mm}));
  parts.back().isBody = true;
  const Vector3d tailEnd = pose.centre_mm + turned * Vector3d(-0.5 * build.length_mm, 0.0, 0.0);
  if (build.tail_mm > 0.0) {
    const Matrix3d bent = turned * bentTail(pose);
    parts.push_back(part(bent, tailEnd + bent * Vector3d(-0.45 * build.tail_mm, 0.0, 0.0),
                         {0.55 * build.tail_mm, 0.22 * build.height_mm, 0.14 * build.width_mm}));
    parts.back().paint = build.belly;
    parts.push_back(part(bent, tailEnd + bent * Vector3d(-0.92 * build.tail_mm, 0.0, 0.0),
                         {0.10 * build.tail_mm, 0.45 * build.height_mm, 0.30 * build.width_mm}));
    parts.back().paint = build.bands;
  }
  if (build.blade_mm > 0.0) {
    const Matrix3d swung = turned * swungBlade(pose);
    const auto along = [&](double share) -> Vector3d {
      return tailEnd + swung * Vector3d(-share * build.blade_mm, 0.0, 0.0);
    };
    parts.push_back(part(swung, along(0.45), {0.5 * build.blade_mm, 0.25 * build.blade_mm, kBladeHalf_mm}));
    parts.back().paint = {205.0, 210.0, 215.0};
    parts.push_back(part(swung, along(kBladeMark), {0.12 * build.blade_mm, 0.16 * build.blade_mm, 2.0}));
    parts.back().paint = build.bands;
  }
  if (build.skirt_mm > 0.0) {
    for (int i = 0; i < kStrands; ++i) {
      // Inner and outer strands by turns, all round.
      const double round = 2.0 * std::numbers::pi * i / kStrands;
      const double off = pose.flare_rad * (i % 2 == 0 ? 1.0 : 0.5);
      const Matrix3d bent = turned * AngleAxisd(round, Vector3d::UnitX()).toRotationMatrix() *
                            AngleAxisd(-off, Vector3d::UnitZ()).toRotationMatrix();
      parts.push_back(part(bent, tailEnd + bent * Vector3d(-0.5 * build.skirt_mm, 0.0, 0.0),
                           {0.5 * build.skirt_mm, kStrandHalf_mm, kStrandHalf_mm}));
      parts.back().paint = i % 2 == 0 ? build.bands : build.belly;
    }
  }
  if (build.lip_mm > 0.0) {
    const Matrix3d down = turned * AngleAxisd(-0.9, Vector3d::UnitZ()).toRotationMatrix();
    const Vector3d nose =
        pose.centre_mm + turned * Vector3d(0.48 * build.length_mm, -0.25 * build.height_mm, 0.0);
    parts.push_back(part(down, nose + down * Vector3d(0.4 * build.lip_mm, 0.0, 0.0),
                         {0.5 * build.lip_mm, 0.9, 0.35 * build.lip_mm}));
    parts.back().paint = {200.0, 205.0, 210.0};
  }
  return parts;
}

std::array<double, 3> skin(const LureBuild& build, const Vector3d& p) {
  const double belly = 1.0 / (1.0 + std::exp((p.y() - 0.1) / 0.12));
  double bands = 0.0;
  for (int i = 0; i < build.bandCount; ++i) {
    const double at = -0.6 + 1.2 * (i + 0.5) / build.bandCount;
    // Bands lean a little and stop short of the belly, so that no two places look alike.
    bands =
        std::max(bands, smoothBand(std::abs(p.x() - at - 0.06 * p.y()), 0.035) * (p.y() > -0.3 ? 0.8 : 0.2));
  }
  const double ring = build.rings * std::max(smoothBand(std::abs(p.x() - kMarkAt), kRingHalf),
                                             smoothBand(std::abs(p.x() + kMarkAt), kRingHalf));
  std::array<double, 3> colour{};
  for (std::size_t c = 0; c < 3; ++c) {
    colour[c] = belly * build.belly[c] + (1.0 - belly) * build.back[c];
    colour[c] += bands * (build.bands[c] - colour[c]);
    const double ringColour = p.x() > 0.0 ? 250.0 : 15.0;
    colour[c] += ring * (ringColour - colour[c]);
  }
  return colour;
}

Vector3d markPlace(const LureBuild& build, const BodyPose& pose, MarkName mark) {
  const Matrix3d turned = attitude(pose);
  const Vector3d tail = pose.centre_mm + turned * Vector3d(-0.5 * build.length_mm, 0.0, 0.0);
  switch (mark) {
    case MarkName::Nose:
      return pose.centre_mm + turned * Vector3d(0.5 * build.length_mm, 0.0, 0.0);
    case MarkName::Tail:
      return tail;
    case MarkName::Tip:
      return tail + turned * bentTail(pose) * Vector3d(-0.92 * build.tail_mm, 0.0, 0.0);
    case MarkName::Back:
      return pose.centre_mm + turned * Vector3d(0.0, 0.5 * build.height_mm, 0.0);
    case MarkName::Belly:
      return pose.centre_mm + turned * Vector3d(0.0, -0.5 * build.height_mm, 0.0);
    case MarkName::Flank:
      return pose.centre_mm + turned * Vector3d(0.0, 0.0, 0.5 * build.width_mm);
    case MarkName::Blade:
      return tail + turned * swungBlade(pose) * Vector3d(-kBladeMark * build.blade_mm, 0.0, 0.0);
    case MarkName::Mid:
    case MarkName::Hook:  // the rehearsal lure wears none
      return pose.centre_mm;
  }
  return pose.centre_mm;
}

}  // namespace fin
