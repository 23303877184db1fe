// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>

#include "core/readings/pass_traces.h"
#include "core/readings/sheet.h"

namespace fin {

/// How the body lies about its own axis against true time: degrees, unwrapped, positive when the back leans
/// towards the lure's own right side.
struct RollTrace {
  Series roll;
  double arm_px = 0.0;  ///< from the roll axis to the mark that shows it
  double span_s = 0.0;  ///< of the whole window
  double frameRate_Hz = 0.0;
  std::string lacking;  ///< why there is none
  bool askew = false;   ///< seen at an angle that is not known
};

/// Who looks from where: for the side view, which has the spot's place from the outline's mid line.
struct RollView {
  std::optional<double> halfHeight_px;      ///< from the roll axis to the flank spot
  std::optional<double> cameraDistance_px;  ///< to the lure, in pixels of its own plane; else unknown
  double pictureMiddleY_px = 0.0;
};

/// Head-on: the line from belly to back against the plumb; the lure's own right is the picture's left. Side:
/// the flank spot's offset from the outline's mid line over its distance from the roll axis, less the angle
/// under which the camera sees the lure (up or down); a spot that hides for half of each turn is taken to go
/// on as it went.
RollTrace traceRoll(const Track& track, std::span<const double> time_s, const Geometry& geometry,
                    const RollView& view);

/// Rate, angle, list and whole turns of the roll, and how much it twists the line.
///
/// Accuracy: of 30 rehearsal passes the truth lay inside u95 29 times for the rate and 30 for the angle, from
/// the side as head-on; turns were right 30 times (tests/rehearsal/coverage_test.cpp). Pure; on any thread.
void readRoll(const RollTrace& trace, ReadingSheet& sheet);

}  // namespace fin
