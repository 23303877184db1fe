// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/vote.h"

#include <fmt/format.h>

#include <Eigen/Eigenvalues>
#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>
#include <random>
#include <set>

#include "core/units/estimate.h"

namespace fin {
namespace {

constexpr int kMostRounds = 100000;
constexpr double kSettled = 1e-13;
constexpr std::size_t kVotersToDraw = 10;
constexpr std::size_t kDraws = 1000;
constexpr std::uint64_t kDrawSeed = 20041;

/// Everybody who is reached from the first by wins.
std::size_t reached(const Wins& wins, bool forwards) {
  std::vector<std::size_t> waiting{0};
  std::vector<bool> seen(wins.size(), false);
  seen[0] = true;
  std::size_t count = 1;
  while (!waiting.empty()) {
    const std::size_t i = waiting.back();
    waiting.pop_back();
    for (std::size_t j = 0; j < wins.size(); ++j) {
      if (seen[j] || (forwards ? wins[i][j] : wins[j][i]) <= 0.0) continue;
      seen[j] = true;
      ++count;
      waiting.push_back(j);
    }
  }
  return count;
}

bool bindsAll(const Wins& wins) {
  return reached(wins, true) == wins.size() && reached(wins, false) == wins.size();
}

std::vector<double> centredLogs(const std::vector<double>& strengths) {
  std::vector<double> out;
  double mean = 0.0;
  for (const double s : strengths) {
    out.push_back(std::log(s));
    mean += out.back() / static_cast<double>(strengths.size());
  }
  for (double& s : out) s -= mean;
  return out;
}

/// D. Hunter, MM algorithms for generalized Bradley–Terry models, 2004.
std::vector<double> minorised(const Wins& wins) {
  const std::size_t n = wins.size();
  std::vector<double> strength(n, 1.0);
  for (int round = 0; round < kMostRounds; ++round) {
    double moved = 0.0;
    for (std::size_t i = 0; i < n; ++i) {
      double won = 0.0, met = 0.0;
      for (std::size_t j = 0; j < n; ++j) {
        if (j == i) continue;
        won += wins[i][j];
        met += (wins[i][j] + wins[j][i]) / (strength[i] + strength[j]);
      }
      const double next = won / met;
      moved = std::max(moved, std::abs(std::log(next / strength[i])));
      strength[i] = next;
    }
    if (moved < kSettled) break;
  }
  return centredLogs(strength);
}

double chance(double over) {
  return 1.0 / (1.0 + std::exp(-over));
}

std::vector<std::vector<double>> covarianceOf(const Wins& wins, const std::vector<double>& strength) {
  const auto n = static_cast<Eigen::Index>(wins.size());
  Eigen::MatrixXd information = Eigen::MatrixXd::Zero(n, n);
  for (Eigen::Index i = 0; i < n; ++i) {
    for (Eigen::Index j = 0; j < n; ++j) {
      if (i == j) continue;
      const auto a = static_cast<std::size_t>(i), b = static_cast<std::size_t>(j);
      const double p = chance(strength[a] - strength[b]);
      const double weight = (wins[a][b] + wins[b][a]) * p * (1.0 - p);
      information(i, i) += weight;
      information(i, j) -= weight;
    }
  }
  const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> parts(information);
  const double largest = parts.eigenvalues().maxCoeff();
  Eigen::VectorXd inverse = Eigen::VectorXd::Zero(n);
  for (Eigen::Index k = 0; k < n; ++k) {
    const double value = parts.eigenvalues()(k);
    if (value > 1e-10 * largest) inverse(k) = 1.0 / value;
  }
  const Eigen::MatrixXd covariance =
      parts.eigenvectors() * inverse.asDiagonal() * parts.eigenvectors().transpose();
  std::vector<std::vector<double>> out(wins.size(), std::vector<double>(wins.size()));
  for (Eigen::Index i = 0; i < n; ++i)
    for (Eigen::Index j = 0; j < n; ++j)
      out[static_cast<std::size_t>(i)][static_cast<std::size_t>(j)] = covariance(i, j);
  return out;
}

/// What a voter's answers come to: one for each pair, the lower place first.
using PairsOfVoter = std::map<std::pair<std::size_t, std::size_t>, std::vector<double>>;
PairsOfVoter pairsOf(const Ballot& ballot, const std::vector<std::optional<std::size_t>>& counted) {
  PairsOfVoter out;
  for (const BallotAnswer& answer : ballot.answers) {
    if (std::max(answer.left, answer.right) >= counted.size()) continue;  // a log that was damaged
    const auto a = counted[answer.left], b = counted[answer.right];
    if (!a || !b || *a == *b) continue;
    const bool inOrder = *a < *b;
    out[{std::min(*a, *b), std::max(*a, *b)}].push_back(inOrder ? answer.forLeft : 1.0 - answer.forLeft);
  }
  return out;
}

Wins winsOf(const std::vector<const PairsOfVoter*>& voters, std::size_t count) {
  Wins out(count, std::vector<double>(count, 0.0));
  for (const PairsOfVoter* voter : voters) {
    for (const auto& [pair, said] : *voter) {
      const double mean = std::accumulate(said.begin(), said.end(), 0.0) / static_cast<double>(said.size());
      out[pair.first][pair.second] += mean;
      out[pair.second][pair.first] += 1.0 - mean;
    }
  }
  return out;
}

/// Strengths with voters drawn anew, [draw][entry].
std::vector<std::vector<double>> drawnStrengths(const std::vector<PairsOfVoter>& voters, std::size_t count) {
  std::mt19937_64 random(kDrawSeed);
  std::uniform_int_distribution<std::size_t> any(0, voters.size() - 1);
  std::vector<std::vector<double>> out;
  for (std::size_t draw = 0; draw < kDraws; ++draw) {
    std::vector<const PairsOfVoter*> drawn;
    for (std::size_t k = 0; k < voters.size(); ++k) drawn.push_back(&voters[any(random)]);
    out.push_back(fitPairs(winsOf(drawn, count)).strength);
  }
  return out;
}

double quantile(std::vector<double> values, double share) {
  const auto at = values.begin() +
                  static_cast<std::ptrdiff_t>(std::lround(share * static_cast<double>(values.size() - 1)));
  std::nth_element(values.begin(), at, values.end());
  return *at;
}

/// The strengths and pairs of a fit, most preferred first.
class Counting {
 public:
  Counting(VoteCount& to, const PairFit& fit, std::vector<std::string> rigs, std::vector<std::size_t> answers)
      : to_(to), fit_(fit), rigs_(std::move(rigs)), answers_(std::move(answers)), order_(rigs_.size()) {
    std::iota(order_.begin(), order_.end(), std::size_t{0});
    std::stable_sort(order_.begin(), order_.end(),
                     [&](std::size_t a, std::size_t b) { return fit.strength[a] > fit.strength[b]; });
  }

  void byFit() {
    add([&](std::size_t i) { return std::sqrt(fit_.covariance[i][i]); },
        [&](std::size_t i, std::size_t j) {
          const double variance = fit_.covariance[i][i] + fit_.covariance[j][j] - 2.0 * fit_.covariance[i][j];
          const double over = fit_.strength[i] - fit_.strength[j],
                       half = kNormal95 * std::sqrt(std::max(0.0, variance));
          return std::pair(chance(over - half), chance(over + half));
        });
  }
  void byVoters(const std::vector<std::vector<double>>& drawn) {
    add(
        [&](std::size_t i) {
          double mean = 0.0, squares = 0.0;
          for (const auto& draw : drawn) mean += draw[i] / static_cast<double>(drawn.size());
          for (const auto& draw : drawn) squares += (draw[i] - mean) * (draw[i] - mean);
          return std::sqrt(squares / static_cast<double>(drawn.size() - 1));
        },
        [&](std::size_t i, std::size_t j) {
          std::vector<double> over;
          for (const auto& draw : drawn) over.push_back(draw[i] - draw[j]);
          return std::pair(chance(quantile(over, 0.025)), chance(quantile(over, 0.975)));
        });
    to_.byVoters = true;
  }

 private:
  template <class Se, class Interval>
  void add(const Se& se, const Interval& interval) {
    for (const std::size_t i : order_) to_.rigs.push_back({rigs_[i], fit_.strength[i], se(i), answers_[i]});
    for (std::size_t a = 0; a < order_.size(); ++a) {
      for (std::size_t b = a + 1; b < order_.size(); ++b) {
        const auto [low, high] = interval(order_[a], order_[b]);
        to_.pairs.push_back({a, b, chance(fit_.strength[order_[a]] - fit_.strength[order_[b]]), low, high});
      }
    }
  }

  VoteCount& to_;
  const PairFit& fit_;
  std::vector<std::string> rigs_;
  std::vector<std::size_t> answers_;
  std::vector<std::size_t> order_;
};

}  // namespace

Vote votePrepared(Vote vote, const std::vector<std::string>& rigs, std::uint64_t seed) {
  std::mt19937_64 random(seed);
  if (vote.id.empty()) vote.id = fmt::format("{:016x}", random());
  std::vector<std::string> added;
  for (const std::string& rig : rigs) {
    if (std::find(vote.rigs.begin(), vote.rigs.end(), rig) == vote.rigs.end()) added.push_back(rig);
  }
  std::shuffle(added.begin(), added.end(), random);
  vote.rigs.insert(vote.rigs.end(), added.begin(), added.end());
  return vote;
}

std::string whyNotCounted(const Vote& vote, const std::string& ballotsVote, const Ballot& ballot) {
  if (ballotsVote != vote.id) return "it belongs to another vote";
  for (const Ballot& counted : vote.ballots) {
    if (counted.voter == ballot.voter) return "this voter was counted already";
  }
  for (const BallotAnswer& answer : ballot.answers) {
    if (answer.left >= vote.rigs.size() || answer.right >= vote.rigs.size() || answer.left == answer.right)
      return "it names what is not in this vote";
  }
  return {};
}

PairFit fitPairs(Wins wins) {
  PairFit out;
  if (wins.empty()) return out;
  out.halfWins = !bindsAll(wins);
  if (out.halfWins) {
    for (std::size_t i = 0; i < wins.size(); ++i)
      for (std::size_t j = 0; j < wins.size(); ++j)
        if (i != j) wins[i][j] += 0.5;
  }
  out.strength = wins.size() == 1 ? std::vector<double>{0.0} : minorised(wins);
  out.covariance = covarianceOf(wins, out.strength);
  return out;
}

VoteCount countVote(const Vote& vote, const std::vector<std::string>& leftOut) {
  VoteCount out;
  const std::set<std::string> apart(leftOut.begin(), leftOut.end());
  std::vector<bool> asked(vote.rigs.size(), false);
  for (const Ballot& ballot : vote.ballots) {
    for (const BallotAnswer& answer : ballot.answers) {
      if (std::max(answer.left, answer.right) < asked.size()) asked[answer.left] = asked[answer.right] = true;
    }
  }
  std::vector<std::optional<std::size_t>> counted(vote.rigs.size());
  std::vector<std::string> rigs;
  for (std::size_t i = 0; i < vote.rigs.size(); ++i) {
    if (!asked[i] || apart.contains(vote.rigs[i])) continue;
    counted[i] = rigs.size();
    rigs.push_back(vote.rigs[i]);
  }
  std::vector<PairsOfVoter> voters;
  std::vector<std::size_t> answers(rigs.size(), 0);
  for (const Ballot& ballot : vote.ballots) {
    voters.push_back(pairsOf(ballot, counted));
    for (const auto& [pair, said] : voters.back()) {
      ++out.answers;
      ++answers[pair.first];
      ++answers[pair.second];
      if (said.size() < 2) continue;
      ++out.askedTwice;
      out.sameTwice += said.front() == said.back() ? 1 : 0;
    }
  }
  out.voters = voters.size();
  if (out.answers == 0) return out;
  std::vector<const PairsOfVoter*> all;
  for (const PairsOfVoter& voter : voters) all.push_back(&voter);
  const PairFit fit = fitPairs(winsOf(all, rigs.size()));
  out.halfWins = fit.halfWins;
  Counting counting(out, fit, rigs, answers);
  if (voters.size() >= kVotersToDraw) {
    counting.byVoters(drawnStrengths(voters, rigs.size()));
  } else {
    counting.byFit();
  }
  return out;
}

}  // namespace fin
