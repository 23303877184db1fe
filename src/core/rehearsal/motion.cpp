// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/motion.h"

#include <algorithm>
#include <cmath>
#include <random>

namespace fin {
namespace {

constexpr double kTurn_rad = 2.0 * std::numbers::pi;
constexpr double kLongestPass_s = 60.0;

double halfRadians(double peakToPeak_deg) {
  return 0.5 * peakToPeak_deg / kDegreesPerRadian;
}

/// From 0 to 1 along half a cosine.
double eased(double share) {
  return 0.5 - 0.5 * std::cos(std::numbers::pi * std::clamp(share, 0.0, 1.0));
}

/// What has been fallen from rest after a time.
double fallen_mm(double speed_mm_s, double timeConstant_s, double time_s) {
  return speed_mm_s * timeConstant_s * std::log(std::cosh(time_s / timeConstant_s));
}

std::vector<double> drawCycles(const StraightPull& pull) {
  std::mt19937 random(pull.seed);
  std::normal_distribution<double> spread(1.0, pull.unevenness);
  std::vector<double> starts;
  if (pull.wobble_Hz <= 0.0) return starts;
  double t = -2.0 / pull.wobble_Hz;
  while (t < kLongestPass_s) {
    starts.push_back(t);
    t += std::clamp(spread(random), 0.4, 1.6) / pull.wobble_Hz;
  }
  starts.push_back(t);
  return starts;
}

}  // namespace

PlayedMotion::PlayedMotion(Motion motion) : motion_(std::move(motion)) {
  if (const auto* pull = std::get_if<StraightPull>(&motion_)) cycleStarts_s_ = drawCycles(*pull);
  if (const auto* hops = std::get_if<Hops>(&motion_)) {
    std::mt19937 random(hops->seed);
    std::normal_distribution<double> normal;
    for (int i = 0; i < hops->count; ++i) {
      twitches_.push_back(
          {hops->first_s + i * hops->every_s, hops->height_mm + hops->heightSpread_mm * normal(random)});
    }
  }
  if (const auto* jerks = std::get_if<Jerks>(&motion_)) drawTwitches(*jerks);
  if (const auto* things = std::get_if<TwitchPullFall>(&motion_)) {
    cycleStarts_s_ = drawCycles(things->pull);
    drawTwitches(things->jerks);
  }
}

void PlayedMotion::drawTwitches(const Jerks& jerks) {
  std::mt19937 random(jerks.seed);
  std::normal_distribution<double> normal;
  double at_s = jerks.first_s;
  for (int i = 0; i < jerks.count; ++i) {
    twitches_.push_back({at_s, jerks.advance_mm + jerks.advanceSpread_mm * normal(random)});
    at_s += std::max(jerks.every_s + jerks.uneven_s * normal(random), jerks.push_s + jerks.back_s);
  }
}

BodyPose PlayedMotion::at(Seconds time) const {
  return std::visit([&](const auto& motion) { return pose(motion, time.value()); }, motion_);
}

/// Cycles since the first drawn one, whole numbers at their starts.
double PlayedMotion::cycles(double time_s) const {
  if (cycleStarts_s_.size() < 2) return 0.0;
  const auto after = std::upper_bound(cycleStarts_s_.begin() + 1, cycleStarts_s_.end() - 1, time_s);
  const double from = *(after - 1);
  return static_cast<double>(after - 1 - cycleStarts_s_.begin()) + (time_s - from) / (*after - from);
}

BodyPose PlayedMotion::pose(const StraightPull& pull, double time_s) const {
  const double phase = kTurn_rad * cycles(time_s);
  // A second harmonic in quadrature makes one side of the wobble slower than the other.
  const double swing = std::sin(phase) + pull.lopsided * std::cos(2.0 * phase);
  BodyPose out;
  const double gone_mm = pull.speed_mm_s * time_s;
  const double course_rad = pull.course_deg / kDegreesPerRadian;
  out.centre_mm = {pull.start_mm + gone_mm * std::cos(course_rad), pull.height_mm,
                   gone_mm * std::sin(course_rad)};
  out.yaw_rad = halfRadians(pull.wobble_deg) * swing;
  out.roll_rad = halfRadians(pull.roll_deg) * std::sin(phase) + pull.list_deg / kDegreesPerRadian;
  out.kick_rad = halfRadians(pull.kick_deg) * std::sin(phase - 0.9);
  const double beat = pull.blade_Hz > 0.0 ? kTurn_rad * pull.blade_Hz * time_s : phase;
  out.blade_rad = halfRadians(pull.blade_deg) * std::sin(beat - 0.5);
  return out;
}

BodyPose PlayedMotion::pose(const Sink& sink, double time_s) {
  const double t = std::max(time_s - sink.release_s, 0.0);
  const double fallen = fallen_mm(sink.speed_mm_s, sink.timeConstant_s, t);
  const double drop = std::min(fallen, sink.from_mm - sink.bottom_mm);
  const bool landed = drop < fallen;
  const double moving = landed ? 0.0 : std::tanh(t / sink.timeConstant_s);
  BodyPose out;
  out.centre_mm = {sink.aside_mm + sink.glide * drop, sink.from_mm - drop, 0.0};
  out.pitch_rad = sink.attitude_deg / kDegreesPerRadian +
                  moving * halfRadians(sink.rock_deg) * std::sin(kTurn_rad * sink.rock_Hz * t);
  out.flick_rad = moving * halfRadians(sink.kick_deg) * std::sin(kTurn_rad * sink.kick_Hz * t);
  return out;
}

BodyPose PlayedMotion::pose(const Jerks& jerks, double time_s) const {
  BodyPose out;
  double along = jerks.start_mm;
  double right = 0.0;
  double heading = 0.0;  ///< to the right
  double side = 0.5 / kDegreesPerRadian;
  for (const Twitch& twitch : twitches_) {
    const double since = time_s - twitch.start_s;
    const double wanted = side * jerks.swing_deg;
    const double gone = twitch.reach_mm * eased(since / jerks.push_s) -
                        jerks.back_mm * eased((since - jerks.push_s) / jerks.back_s);
    along += gone * std::cos(wanted);
    right += gone * std::sin(wanted);
    heading += (wanted - heading) * eased(since / jerks.push_s);
    side = -side;
  }
  out.centre_mm = {along, jerks.height_mm + jerks.drift_mm_s * time_s, right};
  out.pitch_rad = jerks.attitude_deg / kDegreesPerRadian;
  out.yaw_rad = -heading;
  return out;
}

BodyPose PlayedMotion::pose(const Stand& stand, double time_s) {
  const double sways = 0.5 * stand.sway_deg * std::sin(kTurn_rad * stand.sway_Hz * time_s);
  const double down = eased((time_s - stand.tips_s) / stand.tipping_s);
  const double angle_deg = stand.angle_deg + sways + down * (stand.lying_deg - stand.angle_deg - sways);
  BodyPose out;
  out.pitch_rad = angle_deg / kDegreesPerRadian;
  const double half = 0.5 * stand.body_mm;
  out.centre_mm = {stand.along_mm - half * std::cos(out.pitch_rad),
                   stand.bottom_mm + half * std::sin(out.pitch_rad) +
                       stand.speed_mm_s * std::max(stand.lands_s - time_s, 0.0),
                   0.0};
  return out;
}

BodyPose PlayedMotion::pose(const Hops& hops, double time_s) const {
  BodyPose out;
  double along = hops.start_mm;
  double over = 0.0;
  for (const Twitch& hop : twitches_) {
    const double since = time_s - hop.start_s;
    if (since <= 0.0) break;
    along += hops.ahead_mm * eased(since / hops.lift_s);
    over = hop.reach_mm * eased(since / hops.lift_s);
    const double falling = since - hops.lift_s;
    if (falling <= 0.0) {
      out.flick_rad = halfRadians(hops.liftKick_deg) * std::sin(kTurn_rad * hops.liftKick_Hz * since);
      continue;
    }
    const double fallen = fallen_mm(hops.speed_mm_s, hops.timeConstant_s, falling);
    over = std::max(hop.reach_mm - fallen, 0.0);
    out.flick_rad =
        over > 0.0 ? halfRadians(hops.kick_deg) * std::sin(kTurn_rad * hops.kick_Hz * falling) : 0.0;
  }
  out.centre_mm = {along, hops.bottom_mm + over, 0.0};
  out.pitch_rad = hops.attitude_deg / kDegreesPerRadian;
  return out;
}

BodyPose PlayedMotion::pose(const SkirtStop& stop, double time_s) {
  const double since = std::max(time_s - stop.stop_s, 0.0);
  const double slowing = std::min(since, stop.slowing_s);
  const double moved =
      stop.speed_mm_s * (std::min(time_s, stop.stop_s) + slowing - 0.5 * slowing * slowing / stop.slowing_s);
  BodyPose out;
  out.centre_mm = {stop.start_mm + moved, stop.height_mm, 0.0};
  const double settled = std::exp2(-std::max(since - stop.opening_s, 0.0) / stop.halfLife_s);
  const double flare = since < stop.opening_s ? stop.moving_deg + (stop.peak_deg - stop.moving_deg) *
                                                                      eased(since / stop.opening_s)
                                              : stop.rest_deg + (stop.peak_deg - stop.rest_deg) * settled;
  const double quivers = since > stop.opening_s ? 0.5 * stop.quiver_deg : 0.0;
  out.flare_rad = (flare + quivers * std::sin(kTurn_rad * stop.quiver_Hz * since)) / kDegreesPerRadian;
  return out;
}

BodyPose PlayedMotion::pose(const TwitchPullFall& things, double time_s) const {
  if (time_s < things.pullFrom_s) return pose(things.jerks, time_s);
  const Eigen::Vector3d jerked = pose(things.jerks, things.pullFrom_s).centre_mm;
  StraightPull pull = things.pull;
  pull.start_mm = jerked.x() - pull.speed_mm_s * things.pullFrom_s;
  pull.height_mm = jerked.y();
  if (time_s < things.fallFrom_s) return pose(pull, time_s);
  Sink sink = things.sink;
  sink.release_s = things.fallFrom_s;
  sink.from_mm = pull.height_mm;
  sink.aside_mm = pull.start_mm + pull.speed_mm_s * things.fallFrom_s;
  return pose(sink, time_s);
}

}  // namespace fin
