// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/comparison/speed_sets.h"
#include "core/planning/rack.h"
#include "core/units/result.h"

namespace fin {

/// At which speeds through water a rig works, mm/s.
struct TierRig {
  RigId rig;
  std::string name;
  double from_mm_s = 0.0;
  double to_mm_s = 0.0;
  std::optional<double> length_mm;
  bool heard = false;  ///< somebody told it; it was not measured

  friend bool operator==(const TierRig&, const TierRig&) = default;
};
/// Measured bands of a ladder; where there is none, what was heard. Rigs with neither are left out.
std::vector<TierRig> tierRigsOf(const Rack& rack, const std::vector<SpeedBand>& bands);

/// Rigs for the rods that are out at once, and what they share.
struct Tier {
  std::vector<std::size_t> rigs;  ///< of the list that was given
  double from_mm_s = 0.0;
  double to_mm_s = 0.0;

  [[nodiscard]] double middle() const { return 0.5 * (from_mm_s + to_mm_s); }
};
/// From fast and long down to slow and short: the middle of what a tier shares is at most 0.85 of that of the
/// tier before, and none of its lures is longer than one of the tier before (an unknown length never is). Two
/// to four tiers, each rig once; of all ways the one with most tiers, then with the fewest heard rigs, then
/// with the widest shares. Errors: BadRequest for no rods; Unsupported where no rigs share a speed, or all
/// share about one.
Result<std::vector<Tier>> tiersOf(const std::vector<TierRig>& rigs, int rods);

/// What the day says about going down or up a tier.
struct TierFacts {
  double sinceTouch_rodMin = 0.0;  ///< rod-minutes since the last fish, miss or follow
  double patience_rodMin = 30.0;
  bool glass = false;     ///< the water lies like a mirror
  bool sun = false;       ///< bright
  bool fishSeen = false;  ///< seen or following, none taking
  bool crests = false;    ///< first crests and more
  bool cloud = false;     ///< seven eighths and more
  bool dusk = false;
  bool justBitten = false;  ///< within the last rod-minutes of patience
};
struct TierAdvice {
  enum class Go { Stay, Down, Up };
  Go go = Go::Stay;
  std::vector<std::string> because;
};
/// A bite: stay. Else what speaks for going down against what speaks for going up; where both speak, or
/// nothing does, stay. It is a proposal.
TierAdvice adviceFor(const TierFacts& facts);

/// How often rods stay blank by chance alone, at a rate per rod-hour: exp(−λ T).
double chanceOfSilence(double ratePerRodHour, double rodHours);

}  // namespace fin
