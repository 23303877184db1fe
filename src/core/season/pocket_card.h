// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

#include "core/comparison/compared_passes.h"
#include "core/planning/pacing.h"
#include "core/season/tiers.h"

namespace fin {

/// What fits on a card for the pocket: which rigs go together and how fast, how long each is counted down to
/// a depth, how deep each runs on how much line, and the cadence.
struct PocketCard {
  struct CardTier {
    std::vector<std::string> rigs;
    double middle_mm_s = 0.0;
    bool heard = false;  ///< one of its bands was only heard
  };
  struct Countdown {
    std::string rig;
    std::vector<double> seconds;  ///< by depths_m
  };
  struct LineOut {
    std::string rig;
    double line_mm = 0.0;
    double depth_mm = 0.0;
  };
  std::vector<CardTier> tiers;
  std::string noTiers;  ///< why there are none
  std::vector<double> depths_m{1.0, 2.0, 3.0, 5.0};
  std::vector<Countdown> countdowns;
  std::vector<LineOut> depths;
  Cadence cadence;
};

/// From what the tank gave; a countdown is t = τ arcosh(exp(z / vτ)), or z / v where τ was not read. Pure.
PocketCard pocketCard(const Rack& rack, const std::vector<ComparedPass>& passes,
                      const std::vector<TierRig>& bands, int rods, const Cadence& cadence);

}  // namespace fin
