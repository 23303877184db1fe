// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace fin {

/// What one voter said of two entries of a vote, which are named by their place in it.
struct BallotAnswer {
  std::size_t left = 0;
  std::size_t right = 0;
  double forLeft = 0.5;  ///< 1 for the left one, 0 for the right one, ½ where they were equal

  friend bool operator==(const BallotAnswer&, const BallotAnswer&) = default;
};

/// What came back from one voter. Who it was is not known: `voter` is drawn by the page.
struct Ballot {
  std::string voter;
  std::vector<BallotAnswer> answers;

  friend bool operator==(const Ballot&, const Ballot&) = default;
};

/// A vote by people who see two clips and do not know whose they are.
struct Vote {
  std::string id;     ///< drawn; empty where there is no vote yet
  std::string asked;  ///< "Which looks more alive?"
  /// In an order that was drawn, so that a place tells nothing. Only added to, as ballots name places.
  std::vector<std::string> rigs;
  std::vector<Ballot> ballots;

  friend bool operator==(const Vote&, const Vote&) = default;
};

/// A vote with these rigs in a drawn order, and an id of its own; one that was begun keeps what it has and
/// gets those that are new.
Vote votePrepared(Vote vote, const std::vector<std::string>& rigs, std::uint64_t seed);

/// Why a ballot cannot be counted into a vote; empty where it can: it belongs to another vote, names what is
/// not in it, or its voter was counted already.
std::string whyNotCounted(const Vote& vote, const std::string& ballotsVote, const Ballot& ballot);

/// How a rig was preferred: the natural logarithm of its strength; all add up to nothing.
struct Preferred {
  std::string rig;
  double strength = 0.0;
  double se = 0.0;
  std::size_t answers = 0;  ///< that it was in; one that was asked twice counts once
};
/// The chance that the first is preferred to the second (95 %).
struct PreferredPair {
  std::size_t a = 0;  ///< of VoteCount::rigs
  std::size_t b = 0;
  double p = 0.5;
  double low = 0.0;
  double high = 1.0;

  [[nodiscard]] bool apart() const { return low > 0.5 || high < 0.5; }
};

struct VoteCount {
  std::vector<Preferred> rigs;       ///< most preferred first; those that nobody was asked about are left out
  std::vector<PreferredPair> pairs;  ///< each once, the more preferred first
  std::size_t voters = 0;
  std::size_t answers = 0;
  std::size_t askedTwice = 0;  ///< pairs that a voter was asked twice
  std::size_t sameTwice = 0;   ///< of those, answered alike
  bool halfWins = false;  ///< some never lost or never won against the rest: half a win each way was added
  bool byVoters = false;  ///< uncertainty from drawing voters anew, else from the fit alone
};

/// Wins of each over each: wins[i][j] of i over j, equals as half.
using Wins = std::vector<std::vector<double>>;
struct PairFit {
  std::vector<double> strength;                 ///< adding up to nothing
  std::vector<std::vector<double>> covariance;  ///< of those
  bool halfWins = false;
};
/// R. Bradley & M. Terry, 1952, by minorisation (D. Hunter, 2004); covariance by the pseudo-inverse of the
/// information. Where the wins do not bind all together strongly, the fit has no bounds: half a win each way
/// is added to every pair, and said. Accuracy: 1e-10 of a strength.
PairFit fitPairs(Wins wins);

/// Counts a vote. An entry in `leftOut` (shown, not graded) is in no fit. A pair that a voter was asked twice
/// counts once, by the mean. From ten voters on, uncertainty comes from drawing voters anew (1000 times, by a
/// fixed seed), as answers of one voter go together. Pure; on any thread.
VoteCount countVote(const Vote& vote, const std::vector<std::string>& leftOut = {});

}  // namespace fin
