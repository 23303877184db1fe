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

LureJoints jointsOf(const LureBuild& build, const BodyPose& pose) {
  LureJoints out;
  out.body = Eigen::Translation3d(pose.centre_mm) * Eigen::Isometry3d(attitude(pose));
  const Eigen::Isometry3d end = out.body * Eigen::Translation3d(-0.5 * build.length_mm, 0.0, 0.0);
  out.tail = end * Eigen::Isometry3d(bentTail(pose));
  out.blade = end * AngleAxisd(pose.blade_rad, Vector3d::UnitY());
  return out;
}

Eigen::Isometry3d strandAt(const Eigen::Isometry3d& body, const LureBuild& build, double round_rad,
                           double off_rad) {
  return body * Eigen::Translation3d(-0.5 * build.length_mm, 0.0, 0.0) *
         AngleAxisd(round_rad, Vector3d::UnitX()) * AngleAxisd(-off_rad, Vector3d::UnitZ());
}

std::vector<PosedPart> posedParts(const LureBuild& build, const BodyPose& pose) {
  const LureJoints joints = jointsOf(build, pose);
  std::vector<PosedPart> parts;
  const auto add = [&parts](const Eigen::Isometry3d& joint, double along, const Vector3d& halfAxes,
                            const std::array<double, 3>& paint) {
    parts.push_back(part(joint.linear(), joint * Vector3d(along, 0.0, 0.0), halfAxes));
    parts.back().paint = paint;
  };
  add(joints.body, 0.0, {0.5 * kOverhang * build.length_mm, 0.5 * build.height_mm, 0.5 * build.width_mm}, {});
  parts.back().isBody = true;
  if (build.tail_mm > 0.0) {
    const double tail = build.tail_mm;
    add(joints.tail, -0.45 * tail, {0.55 * tail, 0.22 * build.height_mm, 0.14 * build.width_mm}, build.belly);
    add(joints.tail, -kTipMark * tail, {0.10 * tail, 0.45 * build.height_mm, 0.30 * build.width_mm},
        build.bands);
  }
  if (build.blade_mm > 0.0) {
    const double blade = build.blade_mm;
    add(joints.blade, -0.45 * blade, {0.5 * blade, 0.25 * blade, kBladeHalf_mm}, {205.0, 210.0, 215.0});
    add(joints.blade, -kBladeMark * blade, {0.12 * blade, 0.16 * blade, 2.0}, build.bands);
  }
  if (build.skirt_mm > 0.0) {
    for (int i = 0; i < kStrands; ++i) {
      // Inner and outer strands by turns, all round.
      add(strandAt(joints.body, build, 2.0 * std::numbers::pi * i / kStrands,
                   pose.flare_rad * (i % 2 == 0 ? 1.0 : 0.5)),
          -0.5 * build.skirt_mm, {0.5 * build.skirt_mm, kStrandHalf_mm, kStrandHalf_mm},
          i % 2 == 0 ? build.bands : build.belly);
    }
  }
  if (build.lip_mm > 0.0) {
    add(joints.body * Eigen::Translation3d(0.48 * build.length_mm, -0.25 * build.height_mm, 0.0) *
            AngleAxisd(-0.9, Vector3d::UnitZ()),
        0.4 * build.lip_mm, {0.5 * build.lip_mm, 0.9, 0.35 * build.lip_mm}, {200.0, 205.0, 210.0});
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
  const LureJoints joints = jointsOf(build, pose);
  switch (mark) {
    case MarkName::Nose:
      return joints.body * Vector3d(0.5 * build.length_mm, 0.0, 0.0);
    case MarkName::Tail:
      return joints.tail.translation();
    case MarkName::Tip:
      return joints.tail * Vector3d(-kTipMark * build.tail_mm, 0.0, 0.0);
    case MarkName::Back:
      return joints.body * Vector3d(0.0, 0.5 * build.height_mm, 0.0);
    case MarkName::Belly:
      return joints.body * Vector3d(0.0, -0.5 * build.height_mm, 0.0);
    case MarkName::Flank:
      return joints.body * Vector3d(0.0, 0.0, 0.5 * build.width_mm);
    case MarkName::Blade:
      return joints.blade * Vector3d(-kBladeMark * build.blade_mm, 0.0, 0.0);
    case MarkName::Mid:
    case MarkName::Hook:  // not followed in the rehearsal tank
      return pose.centre_mm;
  }
  return pose.centre_mm;
}

}  // namespace fin
