// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace fin {

/// Where a motion takes its name, as a tester's school has it. As defined where nothing else is said; every
/// reading that rests on one states the value used.
struct Thresholds {
  double glideFrom = 0.35;       ///< horizontal over vertical distance of a fall; below, straight down
  double flutterFrom_deg = 30;   ///< rocking of a fall, side to side
  double holdsWithin_mm_s = 10;  ///< drift in a pause, either way

  friend bool operator==(const Thresholds&, const Thresholds&) = default;
};

struct ThresholdRange {
  double least = 0.0;
  double most = 0.0;
};
constexpr ThresholdRange kGlideFromRange{0.05, 3.0};
constexpr ThresholdRange kFlutterFromRange_deg{5.0, 120.0};
constexpr ThresholdRange kHoldsWithinRange_mm_s{0.5, 200.0};

}  // namespace fin
