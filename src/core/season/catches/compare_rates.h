// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/season/catches/rates.h"

namespace fin {

/// The first rig's rate over the second's.
struct RateRatio {
  double ratio = 1.0;  ///< endless where the second caught nothing
  double from = 0.0;   ///< 95 %
  double to = 0.0;     ///< likewise endless
  double p = 1.0;      ///< two-sided, exact: what is no likelier than what came is added up
};

/// n₁ of N is binomial with T₁/(T₁ + T₂) (J. Przyborowski & H. Wilenski, 1940); bounds by C. Clopper & E.
/// Pearson, 1934. Place and hour are confounded with the rig: use blocks where there are any. Errors:
/// BadRequest without hours; Unsupported where neither caught anything.
Result<RateRatio> compareRates(const RigEffort& first, const RigEffort& second);

/// One stretch of place and hour in which both rigs fished.
struct EffortBlock {
  double hoursFirst = 0.0;
  double hoursSecond = 0.0;
  std::size_t first = 0;
  std::size_t second = 0;
};
/// The same given how many fish each block gave: the counts of the blocks are convolved. Ratio by the
/// conditional likelihood, bounds by both tails. Blocks in which one did not fish, or nobody caught
/// anything, tell nothing. Errors: Unsupported where no block tells anything.
Result<RateRatio> compareInBlocks(const std::vector<EffortBlock>& blocks);

/// Hours of each of two rigs, on a grid of half an hour, after which compareRates tells them apart (5 %) four
/// times in five, if these are their rates.
struct HoursNeeded {
  double each = 0.0;
  double power = 0.0;
};
/// None where 500 hours of each would not do.
std::optional<HoursNeeded> hoursToTell(double firstRate, double secondRate);

/// Whether a reading goes with the catches.
struct RankAgreementP {
  double rho = 0.0;  ///< C. Spearman, 1904
  double p = 1.0;    ///< two-sided; by all orders up to eight rigs, else by 10 000 drawn ones
};
/// Errors: BadRequest for lists of different or too little length; Unsupported where one has no order.
Result<RankAgreementP> spearman(const std::vector<double>& a, const std::vector<double>& b,
                                unsigned seed = 1);

/// Why tank and water cannot be held against each other yet; empty where they can: six rigs, ten fish, twenty
/// rod-hours at the least.
std::string tooFewForTheWater(const std::vector<RigEffort>& rigs);

}  // namespace fin
