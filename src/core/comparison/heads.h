// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <string>
#include <vector>

#include "core/readings/reading.h"
#include "core/units/result.h"

namespace fin {

/// One body's fall on one head.
struct HeadFall {
  std::string name;
  double head_g = 0.0;  ///< in water
  double headU95_g = 0.05;
  double rate_mm_s = 0.0;
  double rateU95_mm_s = 0.0;
  std::string mode;  ///< way of falling
  std::optional<double> attitude_deg;
  std::optional<double> glideRatio;
  std::optional<double> kick_deg;  ///< of the tail on the way down; none where it does not kick
};

/// What a pass says of a fall on a head. Unsupported where its fall rate was not read.
Result<HeadFall> headFallOf(const std::string& name, double head_g, const ReadingSet& set);

/// The body's weight in the water (negative floats), from falls on two heads and more, without scales: with
/// the same drag v² goes straight with the weight, B = (v₁² H₂ − v₂² H₁) / (v₂² − v₁²), whatever the scale of
/// the picture. u95 from both rates, both heads, and 5 % by which the drag areas may differ.
/// Refused (Unsupported, with what to film): one head only, ways of falling that differ, attitudes by 10°,
/// glide ratios by 0.15, rates whose squares differ by less than 1.3 times, a weight that would lift the
/// lighter head, three heads and more whose v² do not lie on a line.
Result<Estimate> bodyWeight(std::span<const HeadFall> falls);

/// The rate at which it would fall on another head, mm/s; fair outside of those filmed. Errors as bodyWeight;
/// Unsupported where it would not sink.
Result<Estimate> fallRateOnHead(std::span<const HeadFall> falls, double head_g);

/// From which fall rate on the tail kicks on the way down: the kick's angle over the heads, made
/// non-decreasing (pool adjacent violators; R. Barlow et al., Statistical inference under order restrictions,
/// 1972), straight between them, at the greater of a fifth of its largest value and three times that of the
/// slowest fall, and the head that falls so.
struct KickOnset {
  Estimate rate;                                                                             ///< mm/s
  Result<Estimate> head = failure(ErrorCode::Unsupported, "the body's weight is not told");  ///< g in water
};
Result<KickOnset> kickOnset(std::span<const HeadFall> falls);

}  // namespace fin
