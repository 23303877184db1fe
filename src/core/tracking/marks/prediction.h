// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <map>
#include <optional>

#include "core/tracking/track.h"

namespace fin {

/// The mark at the other end of the same rigid (or hinged) part; its direction tells how the patch lies.
std::optional<MarkName> partnerOf(MarkName name);
/// The two ends of one rigid body: their distance changes only slowly.
bool isRigidPair(MarkName a, MarkName b);

/// Where marks are expected in the next frame: each goes on as it went, and the two ends of a rigid body go
/// on turning together at a steady rate. One that is lost is carried along by its partner.
class MotionModel {
 public:
  void place(MarkName name, double time_s, PixelPoint at);
  void forget(MarkName name) { states_.erase(name); }

  [[nodiscard]] bool knows(MarkName name) const { return states_.contains(name); }
  /// As partnerOf; but seen from ahead, with back and belly placed, nose and tail swing past each other and
  /// go with the back.
  [[nodiscard]] std::optional<MarkName> partnerOf(MarkName name) const;
  [[nodiscard]] bool isRigidPair(MarkName a, MarkName b) const {
    return partnerOf(a) == b && partnerOf(b) == a;
  }
  [[nodiscard]] bool seenFromAhead() const { return knows(MarkName::Back) && knows(MarkName::Belly); }
  [[nodiscard]] PixelPoint predict(MarkName name, double time_s) const;
  /// It was seen more than once, so that where it goes is known.
  [[nodiscard]] bool moves(MarkName name) const { return states_.at(name).moving; }
  /// px per second.
  [[nodiscard]] PixelPoint velocity(MarkName name) const { return states_.at(name).velocity; }
  [[nodiscard]] double lastSeen_s(MarkName name) const { return states_.at(name).time_s; }
  /// Distance of a mark from its partner when both were last seen.
  [[nodiscard]] std::optional<double> apart_px(MarkName a, MarkName b) const;

 private:
  struct State {
    double time_s = 0.0;
    PixelPoint at;
    PixelPoint velocity;
    bool moving = false;  ///< a velocity is known
    std::optional<PixelPoint> fromPartner;
  };
  void rememberPartner(MarkName name);
  [[nodiscard]] std::optional<PixelPoint> carriedByPartner(MarkName name, double time_s) const;
  [[nodiscard]] PixelPoint alone(const State& state, double time_s) const;
  [[nodiscard]] std::optional<PixelPoint> turningWithPartner(MarkName name, double time_s) const;

  std::map<MarkName, State> states_;
};

}  // namespace fin
