// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

#include "core/comparison/compared_passes.h"
#include "core/comparison/vote.h"
#include "core/season/catches/compare_rates.h"

namespace fin {

/// A reading held against what voters preferred.
struct ReadingAndVote {
  ReadingId reading{};
  std::size_t rigs = 0;  ///< that were both voted on and read
  std::string tooFew;    ///< why it says nothing; empty where it does
  RankAgreementP agreement;
  double p = 1.0;  ///< Holm's, over all readings that say something
};

/// Every reading in numbers, as rank agreement of the rigs' means (pulls at the speed at which most were
/// pulled) with their strengths. Under six rigs or ten voters it says nothing. Pure; on any thread.
std::vector<ReadingAndVote> readingsAndVote(const VoteCount& count, const std::vector<ComparedPass>& passes);

}  // namespace fin
