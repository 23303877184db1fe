// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/body/riding.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <optional>

namespace fin {
namespace {

using Vector2 = Eigen::Vector2d;
using Vector3 = Eigen::Vector3d;  // h / distance, offset along and across the body in px
using Matrix3 = Eigen::Matrix3d;
using Matrix23 = Eigen::Matrix<double, 2, 3>;

constexpr double kPressed_px = 0.3;
constexpr double kPoseAlong_px = 1.4;  ///< what a pose is off by from frame to frame
constexpr double kPoseAcross_px = 1.2;
constexpr double kPoseOfBody = 0.008;
constexpr double kSlideAlong_px = 0.15;  ///< from frame to frame
constexpr double kSlideAcross_px = 0.3;
constexpr double kDoubtfulNoisier = 2.0;
constexpr double kDoubtfulGate = 1.3;
constexpr double kSlideLasts_frames = 60.0;
constexpr double kUnsureNoisier = 4.0;
constexpr double kGate = 3.0;  ///< standard deviations

Eigen::Matrix2d turn(double angle) {
  Eigen::Matrix2d out;
  out << std::cos(angle), -std::sin(angle), std::sin(angle), std::cos(angle);
  return out;
}

struct Seen {
  std::size_t frame = 0;
  PixelPoint onPose;  ///< where the mark would be without an offset
  double angle = 0.0;
  Matrix23 sees;                  ///< the offset as a function of the state, in the body's directions
  std::optional<Vector2> offset;  ///< where the mark was followed to, from there
  bool given = false;
  bool doubtful = false;
  double noisier = 1.0;  ///< than usual, where mark or body are not sure
};

struct Step {
  Vector3 expected, known;
  Matrix3 expectedSpread, spread;
  Matrix3 cameBy;  ///< from the step before
  bool agrees = false;
};

Vector2 vectorOf(PixelPoint p) {
  return {p.x_px, p.y_px};
}

/// The state along frames, outwards from the first.
std::vector<Step> smoothed(const std::vector<Seen>& seen, double body_px, Nearness before) {
  const double along = std::hypot(kPoseAlong_px, kPoseOfBody * body_px);
  const double across = std::hypot(kPoseAcross_px, kPoseOfBody * body_px);
  const Eigen::Matrix2d noise = Vector2(along * along, across * across).asDiagonal();
  const Eigen::Matrix2d pressed = Eigen::Matrix2d::Identity() * kPressed_px * kPressed_px;
  const Matrix3 slide =
      Vector3(0.0, kSlideAlong_px * kSlideAlong_px, kSlideAcross_px * kSlideAcross_px).asDiagonal();
  Vector3 state(before.value, 0.0, 0.0);
  Matrix3 spread =
      Vector3(before.doubt * before.doubt, kPressed_px * kPressed_px, kPressed_px * kPressed_px).asDiagonal();
  Matrix3 goesOn = Matrix3::Identity();
  std::vector<Step> steps;
  for (std::size_t i = 0; i < seen.size(); ++i) {
    const Seen& s = seen[i];
    if (i > 0) {
      const double frames = std::abs(static_cast<double>(s.frame) - static_cast<double>(seen[i - 1].frame));
      const double lasts = std::exp(-frames / kSlideLasts_frames);
      goesOn = Vector3(1.0, lasts, lasts).asDiagonal();
      state = goesOn * state;
      spread = goesOn * spread * goesOn + slide * frames;
    }
    Step step{state, state, spread, spread, goesOn, false};
    if (s.offset) {
      const Vector2 off = *s.offset - s.sees * state;
      const Eigen::Matrix2d expected =
          s.sees * spread * s.sees.transpose() + (s.given ? pressed : noise * s.noisier * s.noisier);
      const double gate = s.doubtful ? kDoubtfulGate : kGate;
      step.agrees = s.given || off.dot(expected.ldlt().solve(off)) < gate * gate;
      if (step.agrees) {
        const Eigen::Matrix<double, 3, 2> gain = spread * s.sees.transpose() * expected.inverse();
        state += gain * off;
        spread = (Matrix3::Identity() - gain * s.sees) * spread;
      }
    }
    step.known = state;
    step.spread = spread;
    steps.push_back(step);
  }
  for (std::size_t i = steps.size(); i-- > 1;) {
    Step& earlier = steps[i - 1];
    const Step& after = steps[i];
    const Matrix3 gain =
        earlier.spread * after.cameBy * (after.expectedSpread + 1e-12 * Matrix3::Identity()).inverse();
    earlier.known += gain * (after.known - after.expected);
    earlier.spread += gain * (after.spread - after.expectedSpread) * gain.transpose();
  }
  return steps;
}

}  // namespace

Riding rideOn(const BodyWay& way, const MarkTrack& followed, std::size_t firstFrame,
              const std::vector<MarkSeed>& seeds, PixelPoint pictureMiddle, Nearness nearness) {
  Riding out;
  out.nearness = nearness;
  const auto isGiven = [&](std::size_t n) {
    return std::any_of(seeds.begin(), seeds.end(),
                       [&](const MarkSeed& s) { return s.name == followed.name && s.frame == n; });
  };
  const auto start = std::find_if(way.begin(), way.end(), [&](const auto& at) { return isGiven(at.first); });
  if (start == way.end()) return out;
  const auto onPose = [&](const AxisPose& pose) {
    return followed.name == MarkName::Nose ? pose.nose : pose.tail;
  };
  const auto angleOf = [](const AxisPose& pose) { return std::atan2(pose.axis().y_px, pose.axis().x_px); };
  const double startAngle = angleOf(start->second.pose);
  const Vector2 fromMiddle = vectorOf(onPose(start->second.pose) - pictureMiddle);

  const auto seenAt = [&](std::size_t n, const BodyPlace& place) {
    const AxisPose& pose = place.pose;
    Seen s;
    s.frame = n;
    s.onPose = onPose(pose);
    s.angle = angleOf(pose);
    const Vector2 moved =
        turn(-s.angle) * vectorOf(s.onPose - pictureMiddle) - turn(-startAngle) * fromMiddle;
    s.sees << moved[0], 1.0, 0.0, moved[1], 0.0, 1.0;
    const MarkSample& sample = followed.samples[n - firstFrame];
    s.given = isGiven(n);
    s.doubtful = sample.quality < kDoubtfulBelow;
    if (s.doubtful) s.noisier *= kDoubtfulNoisier;
    if (!place.sure) s.noisier *= kUnsureNoisier;
    if (sample.seen) s.offset = turn(-s.angle) * vectorOf(sample.at - s.onPose);
    return s;
  };
  const auto write = [&](const std::vector<Seen>& seen) {
    const std::vector<Step> steps = smoothed(seen, start->second.pose.length_px(), nearness);
    for (std::size_t i = 0; i < seen.size(); ++i) {
      const Vector2 off = turn(seen[i].angle) * (seen[i].sees * steps[i].known);
      out.marks[seen[i].frame] = {seen[i].onPose + PixelPoint{off[0], off[1]}, steps[i].agrees};
    }
    // Of the two ways from the start the longer one tells more.
    const double doubt = std::sqrt(std::max(steps.front().spread(0, 0), 0.0));
    if (doubt < out.nearness.doubt) out.nearness = {steps.front().known[0], doubt};
  };
  std::vector<Seen> before;
  for (auto at = std::make_reverse_iterator(std::next(start)); at != way.rend(); ++at)
    before.push_back(seenAt(at->first, at->second));
  write(before);
  std::vector<Seen> after;
  for (auto at = start; at != way.end(); ++at) after.push_back(seenAt(at->first, at->second));
  write(after);
  for (const auto& [n, mark] : out.marks) out.agreeing += mark.agrees ? 1 : 0;
  return out;
}

}  // namespace fin
