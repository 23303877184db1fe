// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/quantity.h"
#include "core/units/result.h"

namespace fin {

/// Water by what is measured at the edge.
struct WaterState {
  GramsPerKilogram salinity{0.0};
  Celsius temperature{15.0};

  /// BadRequest outside 0–42 g/kg and −2–40 °C, where the formulas hold.
  [[nodiscard]] Result<void> validate() const;
};

/// Density at one atmosphere (F. Millero & A. Poisson, International one-atmosphere equation of state of
/// seawater, 1981; UNESCO 1981). Checked to 1e-5 kg/m³ against its published values. Errors: as validate().
Result<KilogramsPerCubicMetre> density(const WaterState& water);

/// Dynamic viscosity in Pa·s (M. Sharqawy, J. Lienhard & S. Zubair, Thermophysical properties of seawater,
/// 2010, eq. 22–23). Errors: as validate().
Result<double> viscosity_Pa_s(const WaterState& water);

/// Salt that brings a filled volume from its salinity to a higher one: M₀ (S₁ − S₀) / (1000 − S₁).
/// Errors: as validate(); BadRequest for a volume that is not positive or a target below the present.
Result<Kilograms> saltToAdd(const WaterState& now, CubicMetres volume, GramsPerKilogram wanted);

/// Fresh water that brings it down, added on top: M₀ (S₀ / S₁ − 1). Errors: as above, the other way round;
/// a target of 0 cannot be reached by adding.
Result<Kilograms> freshWaterToAdd(const WaterState& now, CubicMetres volume, GramsPerKilogram wanted);

/// Water and empty tank together.
Result<Kilograms> filledWeight(const WaterState& water, CubicMetres volume, Kilograms emptyTank);

}  // namespace fin
