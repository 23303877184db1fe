// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

#include "core/units/estimate.h"
#include "core/water/water.h"

namespace fin {

/// A lure that was found to weigh so much in water of one temperature.
struct HangingLure {
  Grams mass{0.0};
  Grams inWater{0.0};  ///< negative where it floats
  WaterState weighedIn;
  double dragArea_mm2 = 0.0;    ///< Cd·A, from a fall
  double expansion_K = 2.4e-4;  ///< of its volume, a kelvin; hard plastic
  Grams inWaterU95{0.1};
  double dragAreaU95 = 0.1;  ///< relative
  double expansionU95_K = 0.6e-4;
};

/// How fast it drifts in other water, mm/s, downwards positive: W = m − ρ(S,T) V₀ (1 + α (T − T₀)), and
/// √(2 |W| g / (ρ Cd·A)). Errors: as density; BadRequest without a mass or a drag area.
Result<double> driftIn(const HangingLure& lure, const WaterState& water);

/// In °C. Where no band edge lies between 0 and 40 °C the end of that stands, and says so in a note.
struct HangWindow {
  Estimate from;
  Estimate to;
};
/// Between which temperatures it drifts by no more than a band, in water of one salinity, from 0 to 40 °C. It
/// has to hang somewhere in between. u95: expansion, weight and drag drawn anew, 200 times from a fixed seed;
/// what then hangs nowhere is left out, and a fifth of it makes the window poor. Errors: as driftIn;
/// Unsupported where it hangs nowhere.
Result<HangWindow> hangWindow(const HangingLure& lure, GramsPerKilogram salinity, MillimetresPerSecond band);

}  // namespace fin
