// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>

namespace fin {

/// Where a motion takes its name, and how large the water before a fish is, as a tester's school has it. As
/// defined where nothing else is said; every reading that rests on one states the value used.
struct Thresholds {
  double glideFrom = 0.35;        ///< horizontal over vertical distance of a fall; below, straight down
  double flutterFrom_deg = 30;    ///< rocking of a fall, side to side
  double holdsWithin_mm_s = 10;   ///< drift in a pause, either way
  double zoneHalf_mm = 100;       ///< of the water before a fish, along the pull, either way
  double zoneHalfHeight_mm = 50;  ///< and up and down
  double zoneInterval_s = 0;      ///< from twitch to twitch in it; 0: as it was filmed

  friend bool operator==(const Thresholds&, const Thresholds&) = default;
};

/// A threshold's word in files and settings, and what it may be.
struct ThresholdKey {
  const char* key;
  double Thresholds::*value;
  double least;
  double most;

  [[nodiscard]] constexpr bool allows(double number) const { return number >= least && number <= most; }
};
inline constexpr std::array kThresholdKeys{
    ThresholdKey{"glide_from", &Thresholds::glideFrom, 0.05, 3.0},
    ThresholdKey{"flutter_from_deg", &Thresholds::flutterFrom_deg, 5.0, 120.0},
    ThresholdKey{"holds_within_mm_s", &Thresholds::holdsWithin_mm_s, 0.5, 200.0},
    ThresholdKey{"zone_half_mm", &Thresholds::zoneHalf_mm, 10.0, 5000.0},
    ThresholdKey{"zone_half_height_mm", &Thresholds::zoneHalfHeight_mm, 5.0, 5000.0},
    ThresholdKey{"zone_interval_s", &Thresholds::zoneInterval_s, 0.0, 60.0}};

}  // namespace fin
