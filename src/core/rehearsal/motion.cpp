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
  if (const auto* jerks = std::get_if<Jerks>(&motion_)) {
    std::mt19937 random(jerks->seed);
    std::normal_distribution<double> normal;
    double at_s = jerks->first_s;
    for (int i = 0; i < jerks->count; ++i) {
      twitches_.push_back({at_s, jerks->advance_mm + jerks->advanceSpread_mm * normal(random)});
      at_s += std::max(jerks->every_s + jerks->uneven_s * normal(random), jerks->push_s + jerks->back_s);
    }
  }
}

BodyPose PlayedMotion::at(Seconds time) const {
  if (const auto* pull = std::get_if<StraightPull>(&motion_)) return pose(*pull, time.value());
  if (const auto* jerks = std::get_if<Jerks>(&motion_)) return pose(*jerks, time.value());
  return pose(std::get<Sink>(motion_), time.value());
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
  out.centre_mm = {pull.start_mm + pull.speed_mm_s * time_s, pull.height_mm, 0.0};
  out.yaw_rad = halfRadians(pull.wobble_deg) * swing;
  out.roll_rad = halfRadians(pull.roll_deg) * std::sin(phase) + pull.list_deg / kDegreesPerRadian;
  out.kick_rad = halfRadians(pull.kick_deg) * std::sin(phase - 0.9);
  return out;
}

BodyPose PlayedMotion::pose(const Sink& sink, double time_s) {
  const double t = std::max(time_s - sink.release_s, 0.0);
  const double fallen = sink.speed_mm_s * sink.timeConstant_s * std::log(std::cosh(t / sink.timeConstant_s));
  const double drop = std::min(fallen, sink.from_mm - sink.bottom_mm);
  const bool landed = drop < fallen;
  const double moving = landed ? 0.0 : std::tanh(t / sink.timeConstant_s);
  BodyPose out;
  out.centre_mm = {sink.aside_mm + sink.glide * drop, sink.from_mm - drop, 0.0};
  out.pitch_rad = sink.attitude_deg / kDegreesPerRadian +
                  moving * halfRadians(sink.rock_deg) * std::sin(kTurn_rad * sink.rock_Hz * t);
  out.kick_rad = moving * halfRadians(sink.kick_deg) * std::sin(kTurn_rad * sink.kick_Hz * t);
  return out;
}

BodyPose PlayedMotion::pose(const Jerks& jerks, double time_s) const {
  const auto eased = [](double share) {
    return 0.5 - 0.5 * std::cos(std::numbers::pi * std::clamp(share, 0.0, 1.0));
  };
  BodyPose out;
  double along = jerks.start_mm;
  for (const Twitch& twitch : twitches_) {
    const double since = time_s - twitch.start_s;
    along += twitch.advance_mm * eased(since / jerks.push_s) -
             jerks.back_mm * eased((since - jerks.push_s) / jerks.back_s);
  }
  out.centre_mm = {along, jerks.height_mm + jerks.drift_mm_s * time_s, 0.0};
  out.pitch_rad = jerks.attitude_deg / kDegreesPerRadian;
  return out;
}

}  // namespace fin
