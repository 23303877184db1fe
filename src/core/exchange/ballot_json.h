// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

#include "core/comparison/vote.h"
#include "core/publishing/vote_readings.h"
#include "core/units/result.h"

namespace fin {

struct ReadBallot {
  std::string vote;
  Ballot ballot;
};
/// Reads `agile-fin-ballot/1`. Strict, as parsePassRequest; BadRequest with the key's name.
Result<ReadBallot> parseBallot(const std::string& json);
std::string writeBallot(const std::string& vote, const Ballot& ballot);

/// A vote as it was counted (`agile-fin-vote/1`): strengths, pairs, and what goes with it.
std::string writeVoteCount(const Vote& vote, const VoteCount& count,
                           const std::vector<ReadingAndVote>& readings);

}  // namespace fin
