// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <optional>
#include <string>
#include <vector>

#include "core/comparison/compared_passes.h"
#include "core/planning/day_plan.h"
#include "core/season/claims.h"

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

/// What became of a line that was foretold.
enum class ForetoldState { NotRead, AcrossTheLine, CameTrue, CameFalse, SaidTooLate };
struct LineOutcome {
  ForetoldState state = ForetoldState::NotRead;
  std::optional<ReadRange> read;  ///< 95 %
};
struct OrderOutcome {
  bool saidTooLate = false;
  std::optional<OrderForetold> pairs;  ///< none where no two of its rigs were told apart
};
struct ForecastOutcome {
  std::vector<LineOutcome> lines;    ///< as the plan has them
  std::vector<OrderOutcome> orders;  ///< likewise
  std::optional<double> brier;       ///< of the lines that came true or false
};
/// Holds what was foretold of a day against what was read. What was said after a pass of its rig was made
/// (of an order: of any of its rigs) is not scored. `passes` are the day's. Pure; on any thread.
ForecastOutcome outcomeOf(const DayPlan& day, const std::vector<ComparedPass>& passes);

/// What the eye above the water gets wrong of one reading.
struct EyeAbove {
  ReadingId reading{};
  std::size_t lines = 0;  ///< that came true or false
  double foretold = 0.0;  ///< the mean chance that was given to lying over the line
  double came = 0.0;      ///< the share that did
};
/// By reading, those of which most was foretold first. `outcomes` go with `days`.
std::vector<EyeAbove> eyeAbove(const std::vector<DayPlan>& days,
                               const std::vector<ForecastOutcome>& outcomes);

/// How deep a thing looks from straight above, over how deep it is: 1 / n, with n as in
/// calibration/refraction.h (E. Hecht, Optics, 2017, §5.2). Errors: BadRequest for a salinity below nought.
Result<double> apparentDepth(GramsPerKilogram salinity);

}  // namespace fin
