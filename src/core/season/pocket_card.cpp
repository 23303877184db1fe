// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/pocket_card.h"

#include <algorithm>

#include "core/planning/weight_study.h"

namespace fin {

PocketCard pocketCard(const Rack& rack, const std::vector<ComparedPass>& passes,
                      const std::vector<TierRig>& bands, int rods, const Cadence& cadence) {
  PocketCard out{.cadence = cadence};
  if (const auto tiers = tiersOf(bands, rods)) {
    for (const Tier& tier : *tiers) {
      PocketCard::CardTier& one = out.tiers.emplace_back();
      one.middle_mm_s = tier.middle();
      for (const std::size_t i : tier.rigs) {
        one.rigs.push_back(bands[i].name);
        one.heard = one.heard || bands[i].heard;
      }
    }
  } else {
    out.noTiers = tiers.error().message;
  }
  const auto rigOf = [&rack](const ComparedPass& pass) -> const Rig* {
    const auto found = std::find_if(rack.rigs.begin(), rack.rigs.end(),
                                    [&](const Rig& rig) { return rack.fullName(rig) == pass.rig; });
    return found == rack.rigs.end() ? nullptr : &*found;
  };
  for (const MeasuredFall& fall : fallsAmong(passes, rigOf)) {
    // Pieces that were held against each other are no rigs to tie on.
    if (!fall.rigId || !(fall.rate.value > 0.0)) continue;
    PocketCard::Countdown one{.rig = fall.rig, .seconds = {}};
    for (const double depth_m : out.depths_m) {
      const double z = 1000.0 * depth_m;
      one.seconds.push_back(
          fall.timeConstant.value() > 0.0
              ? countdown(Millimetres(z), MillimetresPerSecond(fall.rate.value), fall.timeConstant).value()
              : z / fall.rate.value);
    }
    out.countdowns.push_back(std::move(one));
  }
  for (const DepthCurve& curve : depthsOf(passes, DepthBy::LineOut)) {
    for (const DepthPoint& point : curve.points) out.depths.push_back({curve.rig, point.by, point.depth_mm});
  }
  return out;
}

}  // namespace fin
