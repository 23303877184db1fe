// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

#include "core/water/water.h"

namespace fin {

/// A lure that was found to weigh so much in water of one temperature.
struct HangingLure {
  Grams mass{0.0};
  Grams inWater{0.0};  ///< negative where it floats
  WaterState weighedIn;
  double dragArea_mm2 = 0.0;    ///< Cd·A, from a fall
  double expansion_K = 2.4e-4;  ///< of its volume, a kelvin; hard plastic
};

/// How fast it drifts in other water, mm/s, downwards positive: W = m − ρ(S,T) V₀ (1 + α (T − T₀)), and
/// √(2 |W| g / (ρ Cd·A)). Errors: as density; BadRequest without a mass or a drag area.
Result<double> driftIn(const HangingLure& lure, const WaterState& water);

struct HangWindow {
  Celsius from;
  Celsius to;
};
/// Between which temperatures it drifts by no more than a band, in water of one salinity, from 0 to 40 °C. It
/// has to hang somewhere in between. Errors: as driftIn; Unsupported where it hangs nowhere.
Result<HangWindow> hangWindow(const HangingLure& lure, GramsPerKilogram salinity, MillimetresPerSecond band);

}  // namespace fin
