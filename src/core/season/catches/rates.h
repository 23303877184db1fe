// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <optional>
#include <string>
#include <vector>

#include "core/units/result.h"

namespace fin {

/// How long a rig was in the water, and how often something came of it: fish, misses or follows.
struct RigEffort {
  std::string rig;
  double hours = 0.0;  ///< rod-hours
  std::size_t count = 0;

  friend bool operator==(const RigEffort&, const RigEffort&) = default;
};

/// An amount with its 95 %: per rod-hour, or per money.
struct Rate {
  double value = 0.0;
  double from = 0.0;
  double to = 0.0;
};

/// count / amount with exact bounds of a Poisson count: χ²(.025; 2n)/2T to χ²(.975; 2n + 2)/2T (F. Garwood,
/// 1936). Fish that come in shoals bunch, and then it is too narrow. Errors: BadRequest where the amount is
/// not above nought.
Result<Rate> exactRate(std::size_t count, double amount);

/// Rates of all rigs, drawn in towards each other by what they scatter: λ ~ Gamma(a, rate b).
struct ShrunkRates {
  enum class How {
    Fitted,    ///< a and b by negative-binomial likelihood
    FewRigs,   ///< under five rigs: a 1, b hours over fish
    NoSpread,  ///< the counts scatter no more than chance: all have one rate
    Raw        ///< nothing was caught at all: as they are
  };
  How how = How::Raw;
  double a = 0.0;
  double b = 0.0;
  std::vector<Rate> rates;  ///< as the rigs came; given the spread
};
/// (a + n)/(b + T) with gamma quantiles. NoSpread where Σ((n − μT)² − n) ≤ 0 with the pooled μ. Checked
/// against worked values. Errors: BadRequest where a rig was not in the water. Pure; on any thread.
Result<ShrunkRates> shrunkRates(const std::vector<RigEffort>& rigs);

/// How a value goes with hours: the slope of a straight line, least squares, 95 % by Student's t.
struct Slope {
  double perHour = 0.0;
  double from = 0.0;
  double to = 0.0;
};
/// Wear over rod-hours. Errors: Unsupported under four points or where they have one hour.
Result<Slope> slopeOver(const std::vector<std::pair<double, double>>& hoursAndValues);

}  // namespace fin
