// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <optional>
#include <string>
#include <vector>

#include "core/comparison/spread.h"

namespace fin {

/// How sure somebody was that something would be so, and whether it was; none where the interval lies across
/// the line.
struct ForetoldFact {
  double chance = 0.5;  ///< 0.1 to 0.9
  std::optional<bool> was;
};
/// The mean of (chance − outcome)², over those that came out: G. Brier, 1950. Who says ½ to everything has
/// 0.25; none where nothing came out.
std::optional<double> brierScore(const std::vector<ForetoldFact>& facts);

/// The share of pairs that were told apart, and that were foretold the other way round. `order` names rigs
/// from the highest to the lowest; those that were not compared do not count. None where no two are apart.
struct OrderForetold {
  std::size_t reversed = 0;
  std::size_t apart = 0;

  [[nodiscard]] double share() const { return static_cast<double>(reversed) / static_cast<double>(apart); }
};
std::optional<OrderForetold> orderForetold(const std::vector<std::string>& order, const Spread& spread);

}  // namespace fin
