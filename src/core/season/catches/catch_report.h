// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/season/catches/effort.h"
#include "core/season/tie_on.h"

namespace fin {

/// What came of one rig.
struct RigCatches {
  std::string rig;
  RigTally tally;
  Rate fish;  ///< per rod-hour, exact
  Rate misses;
  Rate follows;
  Rate shrunk;                     ///< fish, drawn in towards the other rigs
  std::optional<Rate> perTenPaid;  ///< fish per 10 paid for the pieces fished; none where no price is known
  double paid = 0.0;
  std::string currency;
};

/// Two rigs held against each other.
struct RigsByCatch {
  std::size_t a = 0;  ///< of CatchReport::rigs
  std::size_t b = 0;
  RateRatio whole;                    ///< place and hour are in it
  std::optional<RateRatio> inBlocks;  ///< where both fished the same stretches
  std::size_t blocks = 0;
  /// Of the blocks where there are any. Holm's step-down over all pairs that were fished in blocks, which was
  /// planned, and over all others by themselves.
  double p = 1.0;
  std::optional<HoursNeeded> toTell;  ///< by the shrunk rates
};

/// A reading held against the catches.
struct TankAndWater {
  ReadingId reading{};
  std::size_t rigs = 0;
  std::string tooFew;  ///< why it says nothing; empty where it does
  RankAgreementP agreement;
  double p = 1.0;  ///< Holm's, over all readings that say something
};

struct CatchReport {
  std::vector<RigCatches> rigs;  ///< of most fish an hour first, by the shrunk rate
  ShrunkRates::How how = ShrunkRates::How::Raw;
  double a = 0.0;
  double b = 0.0;
  std::vector<RigsByCatch> pairs;
  std::vector<TankAndWater> tank;
  std::vector<std::string> troubles;  ///< of the days' clocks and notes
};

/// What a season says. Rigs that the tester has an interest in are left out. `measured` is what the tank gave
/// of each rig. Pure; on any thread.
CatchReport catchReport(const Rack& rack, const std::vector<RunningDay>& days,
                        const std::vector<TieCandidate>& measured);

}  // namespace fin
