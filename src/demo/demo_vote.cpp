// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/demo_vote.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <random>

#include "demo/demo_passes.h"

namespace fin {
namespace {

constexpr int kVoters = 12;
constexpr std::size_t kPairsEach = 15;
constexpr std::size_t kTwice = 3;
constexpr double kNoDifference = 0.12;
constexpr std::uint64_t kSeed = 1112;

/// How the viewers took them: the natural logarithm of a strength.
constexpr std::pair<RigId, double> kTaste[] = {{kSkrell, 1.0}, {kVinto7, 0.7},  {kHasp, 0.3},   {kOblag, 0.1},
                                               {kOblig, 0.0},  {kTavver, -0.8}, {kVinto4, -0.9}};

}  // namespace

Vote demoVote(const Rack& rack) {
  std::mt19937_64 random(kSeed);
  std::vector<std::string> rigs;
  for (const auto& [rig, taste] : kTaste) rigs.push_back(rack.fullName(*rack.rig(rig)));
  Vote out = votePrepared({}, rigs, random());
  out.asked = "Which looks more alive?";
  std::vector<double> taste;
  for (const std::string& rig : out.rigs)
    taste.push_back(kTaste[std::find(rigs.begin(), rigs.end(), rig) - rigs.begin()].second);
  std::vector<std::pair<std::size_t, std::size_t>> pairs;
  for (std::size_t a = 0; a < rigs.size(); ++a)
    for (std::size_t b = a + 1; b < rigs.size(); ++b) pairs.emplace_back(a, b);
  std::uniform_real_distribution<double> draw(0.0, 1.0);
  for (int voter = 0; voter < kVoters; ++voter) {
    Ballot ballot{fmt::format("{:032x}", random()), {}};
    std::shuffle(pairs.begin(), pairs.end(), random);
    for (std::size_t k = 0; k < kPairsEach + kTwice; ++k) {
      auto [left, right] = pairs[k % kPairsEach];
      if (draw(random) < 0.5) std::swap(left, right);
      const double chance = 1.0 / (1.0 + std::exp(taste[right] - taste[left]));
      const double said = draw(random) < kNoDifference ? 0.5 : draw(random) < chance ? 1.0 : 0.0;
      ballot.answers.push_back({left, right, said});
    }
    out.ballots.push_back(std::move(ballot));
  }
  return out;
}

}  // namespace fin
