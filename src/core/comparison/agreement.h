// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <optional>
#include <string>
#include <vector>

#include "core/comparison/compared_passes.h"

namespace fin {

/// One thing that was read twice, each time with the half-width of its 95 % interval.
struct ReadTwice {
  double x = 0.0;
  double y = 0.0;
  double xU95 = 0.0;
  double yU95 = 0.0;
};

/// How far two ways of reading the same agree.
struct Agreement {
  std::size_t n = 0;
  bool byRatio = false;
  double mean = 0.0;  ///< x over y: the ratio less one, or x − y
  double from = 0.0;  ///< where 95 % of further differences lie
  double to = 0.0;
  double concordance = 0.0;  ///< 1 where each pair is equal, 0 where they have nothing in common
  std::size_t within = 0;  ///< pairs no further apart than both half-widths together allow; 95 % are expected
};

/// Mean difference ± t·sd·√(1+1/n): J. Bland & D. Altman, 1986; concordance: L. Lin, 1989, divisor n. By
/// ratios only where all values are above nought. None of fewer than three pairs. Pure; on any thread.
std::optional<Agreement> agreementOf(const std::vector<ReadTwice>& pairs, bool byRatio);

/// Two cameras that filmed the same passes.
struct CamerasAgree {
  std::string first;   ///< the one that read more passes
  std::string second;  ///< x of the agreement is the first one's
  Agreement agreement;
};
/// Of one reading, any two cameras that both read three passes of the sheet and more: by ratio where the
/// reading is compared so.
std::vector<CamerasAgree> camerasAgree(const std::vector<ComparedPass>& passes, ReadingId reading);

/// How far two orders are the same.
struct RankAgreement {
  double correlation = 0.0;  ///< 1 the same, 0 none, −1 reversed
  double p = 1.0;            ///< the chance of one as strong, either way, where they have nothing in common
};
/// C. Spearman, 1904: the correlation of places, equals sharing theirs; p over all orders of up to eight, of
/// more over 10,000 drawn from a fixed seed, (1 + hits)/(1 + draws). None of fewer than three, or where one
/// does not differ. Pure; on any thread.
std::optional<RankAgreement> rankAgreement(const std::vector<double>& x, const std::vector<double>& y);

}  // namespace fin
