// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/prediction.h"

#include <cmath>

namespace fin {
namespace {

double cross(PixelPoint a, PixelPoint b) {
  return a.x_px * b.y_px - a.y_px * b.x_px;
}

}  // namespace

std::optional<MarkName> partnerOf(MarkName name) {
  switch (name) {
    case MarkName::Nose:
      return MarkName::Tail;
    case MarkName::Tail:
      return MarkName::Nose;
    case MarkName::Tip:
    case MarkName::Mid:
    case MarkName::Blade:
    case MarkName::Hook:
      return MarkName::Tail;
    case MarkName::Back:
      return MarkName::Belly;
    case MarkName::Belly:
      return MarkName::Back;
    case MarkName::Flank:
      return std::nullopt;
  }
  return std::nullopt;
}

bool isRigidPair(MarkName a, MarkName b) {
  return partnerOf(a) == b && partnerOf(b) == a;
}

std::optional<MarkName> MotionModel::partnerOf(MarkName name) const {
  const bool end = name == MarkName::Nose || name == MarkName::Tail;
  return end && seenFromAhead() ? MarkName::Back : fin::partnerOf(name);
}

void MotionModel::place(MarkName name, double time_s, PixelPoint at) {
  const auto known = states_.find(name);
  if (known == states_.end()) {
    states_[name] = {time_s, at, {}, false, std::nullopt};
    rememberPartner(name);
    return;
  }
  State& state = known->second;
  const double dt = time_s - state.time_s;
  if (dt != 0.0) state.velocity = (at - state.at) * (1.0 / dt);
  state.moving = dt != 0.0;
  state.time_s = time_s;
  state.at = at;
  rememberPartner(name);
}

/// How far a mark lies from its partner, when both were seen last in one frame.
void MotionModel::rememberPartner(MarkName name) {
  for (auto& [other, state] : states_) {
    const auto partner = partnerOf(other);
    if (!partner || !knows(*partner) || (other != name && *partner != name)) continue;
    if (states_.at(*partner).time_s == state.time_s) state.fromPartner = state.at - states_.at(*partner).at;
  }
}

/// A soft tip that was lost while the body was not is carried along by it. (The far end of a rigid body is
/// not: by then the body lies otherwise.)
std::optional<PixelPoint> MotionModel::carriedByPartner(MarkName name, double time_s) const {
  const auto partner = partnerOf(name);
  if (!partner || isRigidPair(name, *partner) || !knows(*partner)) return std::nullopt;
  const State& mine = states_.at(name);
  const State& other = states_.at(*partner);
  const bool lost = std::abs(time_s - mine.time_s) > std::abs(time_s - other.time_s) + 1e-9;
  if (!lost || !mine.fromPartner) return std::nullopt;
  return alone(other, time_s) + *mine.fromPartner;
}

PixelPoint MotionModel::alone(const State& state, double time_s) const {
  return state.moving ? state.at + state.velocity * (time_s - state.time_s) : state.at;
}

std::optional<PixelPoint> MotionModel::turningWithPartner(MarkName name, double time_s) const {
  const auto partner = partnerOf(name);
  if (!partner || !isRigidPair(name, *partner) || !knows(*partner)) return std::nullopt;
  const State& mine = states_.at(name);
  const State& other = states_.at(*partner);
  if (mine.time_s != other.time_s || !mine.moving || !other.moving) return std::nullopt;
  const PixelPoint arm = mine.at - other.at;
  const double arm2 = dot(arm, arm);
  if (arm2 < 1.0) return std::nullopt;
  const double dt = time_s - mine.time_s;
  const PixelPoint spin = mine.velocity - other.velocity;
  const double angle = cross(arm, spin) / arm2 * dt;
  const double stretch = 1.0 + dot(arm, spin) / arm2 * dt;
  const PixelPoint half{0.5 * stretch * (std::cos(angle) * arm.x_px - std::sin(angle) * arm.y_px),
                        0.5 * stretch * (std::sin(angle) * arm.x_px + std::cos(angle) * arm.y_px)};
  const PixelPoint centreVelocity = midpoint(mine.velocity, other.velocity);
  return midpoint(mine.at, other.at) + centreVelocity * dt + half;
}

PixelPoint MotionModel::predict(MarkName name, double time_s) const {
  if (const auto together = turningWithPartner(name, time_s)) return *together;
  if (const auto carried = carriedByPartner(name, time_s)) return *carried;
  return alone(states_.at(name), time_s);
}

std::optional<double> MotionModel::apart_px(MarkName a, MarkName b) const {
  if (!knows(a) || !knows(b)) return std::nullopt;
  return length(states_.at(a).at - states_.at(b).at).value();
}

}  // namespace fin
