// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/water/water.h"

#include <cmath>

namespace fin {
namespace {

constexpr double kSaltiest = 42.0;
constexpr double kColdest = -2.0;
constexpr double kWarmest = 40.0;

Result<Kilograms> filling(const WaterState& water, CubicMetres volume) {
  if (!std::isfinite(volume.value()) || volume.value() <= 0.0) {
    return failure(ErrorCode::BadRequest, "length, width and depth of the water must be more than zero",
                   "volume");
  }
  return density(water).map(
      [&](KilogramsPerCubicMetre rho) { return Kilograms(rho.value() * volume.value()); });
}

Result<void> checkTarget(GramsPerKilogram wanted) {
  return WaterState{wanted, Celsius(15.0)}.validate();
}

}  // namespace

Result<void> WaterState::validate() const {
  const double s = salinity.value();
  const double t = temperature.value();
  if (!(s >= 0.0 && s <= kSaltiest)) {
    return failure(ErrorCode::BadRequest, "salt must lie between 0 and 42 g/kg", "salinity");
  }
  if (!(t >= kColdest && t <= kWarmest)) {
    return failure(ErrorCode::BadRequest, "the water's temperature must lie between −2 and 40 °C",
                   "temperature");
  }
  return {};
}

Result<KilogramsPerCubicMetre> density(const WaterState& water) {
  if (auto ok = water.validate(); !ok) return tl::unexpected(ok.error());
  const double s = water.salinity.value();
  const double t = water.temperature.value();
  const double fresh =
      999.842594 +
      t * (6.793952e-2 + t * (-9.095290e-3 + t * (1.001685e-4 + t * (-1.120083e-6 + t * 6.536332e-9))));
  const double a = 0.824493 + t * (-4.0899e-3 + t * (7.6438e-5 + t * (-8.2467e-7 + t * 5.3875e-9)));
  const double b = -5.72466e-3 + t * (1.0227e-4 - t * 1.6546e-6);
  return KilogramsPerCubicMetre(fresh + a * s + b * s * std::sqrt(s) + 4.8314e-4 * s * s);
}

Result<double> viscosity_Pa_s(const WaterState& water) {
  if (auto ok = water.validate(); !ok) return tl::unexpected(ok.error());
  const double s = water.salinity.value() / 1000.0;
  const double t = water.temperature.value();
  const double fresh = 4.2844e-5 + 1.0 / (0.157 * (t + 64.993) * (t + 64.993) - 91.296);
  const double a = 1.541 + t * (1.998e-2 - t * 9.52e-5);
  const double b = 7.974 + t * (-7.561e-2 + t * 4.724e-4);
  return fresh * (1.0 + a * s + b * s * s);
}

Result<Kilograms> saltToAdd(const WaterState& now, CubicMetres volume, GramsPerKilogram wanted) {
  if (auto ok = checkTarget(wanted); !ok) return tl::unexpected(ok.error());
  if (wanted < now.salinity) {
    return failure(ErrorCode::BadRequest, "the water is saltier than wanted: add fresh water instead",
                   "salinity");
  }
  return filling(now, volume).map([&](Kilograms water) {
    return water * ((wanted - now.salinity).value() / (1000.0 - wanted.value()));
  });
}

Result<Kilograms> freshWaterToAdd(const WaterState& now, CubicMetres volume, GramsPerKilogram wanted) {
  if (auto ok = checkTarget(wanted); !ok) return tl::unexpected(ok.error());
  if (wanted > now.salinity) {
    return failure(ErrorCode::BadRequest, "the water is less salty than wanted: add salt instead",
                   "salinity");
  }
  if (wanted.value() <= 0.0 && now.salinity.value() > 0.0) {
    return failure(ErrorCode::BadRequest, "adding water never brings the salt to nothing: change the water",
                   "salinity");
  }
  const double share = now.salinity.value() > 0.0 ? now.salinity / wanted - 1.0 : 0.0;
  return filling(now, volume).map([share](Kilograms water) { return water * share; });
}

Result<Kilograms> filledWeight(const WaterState& water, CubicMetres volume, Kilograms emptyTank) {
  return filling(water, volume).map([&](Kilograms filled) { return filled + emptyTank; });
}

}  // namespace fin
