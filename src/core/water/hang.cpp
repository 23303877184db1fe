// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/water/hang.h"

#include <cmath>

namespace fin {
namespace {

constexpr double kStandardGravity_m_s2 = 9.80665;
constexpr double kColdest_C = 0.0;
constexpr double kWarmest_C = 40.0;
constexpr double kStep_C = 0.1;

/// Where between two temperatures the drift passes the band.
double edgeBetween(const HangingLure& lure, GramsPerKilogram salinity, double band, double out_C,
                   double in_C) {
  for (int i = 0; i < 30; ++i) {
    const double middle = 0.5 * (out_C + in_C);
    const auto drift = driftIn(lure, {salinity, Celsius(middle)});
    (drift && std::abs(*drift) <= band ? in_C : out_C) = middle;
  }
  return in_C;
}

}  // namespace

Result<double> driftIn(const HangingLure& lure, const WaterState& water) {
  if (!(lure.mass.value() > 0.0 && lure.dragArea_mm2 > 0.0))
    return failure(ErrorCode::BadRequest, "a lure that hangs needs its mass and the drag of a fall");
  const auto before = density(lure.weighedIn);
  if (!before) return tl::unexpected(before.error());
  const auto now = density(water);
  if (!now) return tl::unexpected(now.error());
  const double mass_kg = lure.mass.value() * 1e-3;
  const double volume_m3 =
      (mass_kg - lure.inWater.value() * 1e-3) / before->value() *
      (1.0 + lure.expansion_K * (water.temperature.value() - lure.weighedIn.temperature.value()));
  const double weight_kg = mass_kg - now->value() * volume_m3;
  const double speed = std::sqrt(2.0 * std::abs(weight_kg) * kStandardGravity_m_s2 /
                                 (now->value() * lure.dragArea_mm2 * 1e-6));
  return std::copysign(1000.0 * speed, weight_kg);
}

Result<HangWindow> hangWindow(const HangingLure& lure, GramsPerKilogram salinity, MillimetresPerSecond band) {
  std::optional<double> first, last;
  for (double t = kColdest_C; t <= kWarmest_C + 1e-9; t += kStep_C) {
    const auto drift = driftIn(lure, {salinity, Celsius(std::min(t, kWarmest_C))});
    if (!drift) return tl::unexpected(drift.error());
    if (std::abs(*drift) > band.value()) continue;
    if (!first) first = t;
    last = t;
  }
  if (!first) return failure(ErrorCode::Unsupported, "it hangs in none of these waters between 0 and 40 °C");
  const double from =
      *first > kColdest_C ? edgeBetween(lure, salinity, band.value(), *first - kStep_C, *first) : *first;
  const double to = *last < kWarmest_C - kStep_C
                        ? edgeBetween(lure, salinity, band.value(), *last + kStep_C, *last)
                        : *last;
  return HangWindow{Celsius(from), Celsius(to)};
}

}  // namespace fin
