// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/water/hang.h"

#include <algorithm>
#include <cmath>
#include <random>
#include <vector>

namespace fin {
namespace {

constexpr double kStandardGravity_m_s2 = 9.80665;
constexpr double kColdest_C = 0.0;
constexpr double kWarmest_C = 40.0;
constexpr double kStep_C = 0.5;

constexpr int kDraws = 200;
constexpr double kMayHangNowhere = 0.2;

/// Where between two temperatures the drift passes the band.
double edgeBetween(const HangingLure& lure, GramsPerKilogram salinity, double band, double out_C,
                   double in_C) {
  for (int i = 0; i < 20; ++i) {
    const double middle = 0.5 * (out_C + in_C);
    const auto drift = driftIn(lure, {salinity, Celsius(middle)});
    (drift && std::abs(*drift) <= band ? in_C : out_C) = middle;
  }
  return in_C;
}

/// Temperatures between which it stays within the band.
struct Edges {
  double from_C = kColdest_C;
  double to_C = kWarmest_C;
};

/// None where it stays within it nowhere.
Result<std::optional<Edges>> edgesOf(const HangingLure& lure, GramsPerKilogram salinity, double band) {
  std::optional<double> first, last;
  const int steps = static_cast<int>(std::lround((kWarmest_C - kColdest_C) / kStep_C));
  for (int i = 0; i <= steps; ++i) {
    const double t = kColdest_C + kStep_C * i;
    const auto drift = driftIn(lure, {salinity, Celsius(t)});
    if (!drift) return tl::unexpected(drift.error());
    if (std::abs(*drift) > band) continue;
    if (!first) first = t;
    last = t;
  }
  if (!first) return std::optional<Edges>();
  Edges out;
  if (*first > kColdest_C) out.from_C = edgeBetween(lure, salinity, band, *first - kStep_C, *first);
  if (*last < kWarmest_C) out.to_C = edgeBetween(lure, salinity, band, *last + kStep_C, *last);
  return std::optional(out);
}

Estimate edgeOf(double value, std::vector<double>& drawn, bool poor) {
  Estimate out{.value = value, .n = 1.0};
  std::sort(drawn.begin(), drawn.end());
  const auto at = [&](double share) {
    return drawn[static_cast<std::size_t>(share * static_cast<double>(drawn.size() - 1))];
  };
  if (!drawn.empty()) out.u95 = 0.5 * (at(0.975) - at(0.025));
  if (poor) out.grade = Grade::Poor;
  if (value <= kColdest_C || value >= kWarmest_C) out.notes.push_back("and beyond, as far as is known");
  return out;
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
  const auto edges = edgesOf(lure, salinity, band.value());
  if (!edges) return tl::unexpected(edges.error());
  if (!*edges) return failure(ErrorCode::Unsupported, "it hangs in none of these waters between 0 and 40 °C");
  std::mt19937 random(1);
  std::normal_distribution<double> draw(0.0, 1.0 / kNormal95);
  std::vector<double> from, to;
  for (int i = 0; i < kDraws; ++i) {
    HangingLure other = lure;
    other.expansion_K += lure.expansionU95_K * draw(random);
    other.inWater = Grams(lure.inWater.value() + lure.inWaterU95.value() * draw(random));
    other.dragArea_mm2 *= std::exp(lure.dragAreaU95 * draw(random));
    const auto drawn = edgesOf(other, salinity, band.value());
    if (!drawn || !*drawn) continue;
    from.push_back((*drawn)->from_C);
    to.push_back((*drawn)->to_C);
  }
  const bool poor = static_cast<double>(from.size()) < (1.0 - kMayHangNowhere) * kDraws;
  return HangWindow{edgeOf((*edges)->from_C, from, poor), edgeOf((*edges)->to_C, to, poor)};
}

}  // namespace fin
