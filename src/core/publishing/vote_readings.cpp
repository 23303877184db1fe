// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/publishing/vote_readings.h"

#include <fmt/format.h>

#include <algorithm>

#include "core/comparison/spread.h"

namespace fin {
namespace {

constexpr std::size_t kFewestRigs = 6;
constexpr std::size_t kFewestVoters = 10;
constexpr unsigned kSeed = 9;

}  // namespace

std::vector<ReadingAndVote> readingsAndVote(const VoteCount& count, const std::vector<ComparedPass>& passes) {
  std::vector<ReadingAndVote> out;
  for (const ReadingId reading : readingsAmong(passes)) {
    ReadingAndVote one{.reading = reading};
    std::vector<double> values, strengths;
    for (const RigMean& rig :
         compare(valuesOf(passes, reading, commonSpeed(passes, reading)), reading).rigs) {
      const auto voted = std::find_if(count.rigs.begin(), count.rigs.end(),
                                      [&](const Preferred& p) { return p.rig == rig.rig; });
      if (voted == count.rigs.end()) continue;
      values.push_back(rig.mean);
      strengths.push_back(voted->strength);
    }
    one.rigs = values.size();
    if (one.rigs < kFewestRigs) {
      one.tooFew = fmt::format("too few to tell: {} of {} rigs", one.rigs, kFewestRigs);
    } else if (count.voters < kFewestVoters) {
      one.tooFew = fmt::format("too few to tell: {} of {} voters", count.voters, kFewestVoters);
    } else if (const auto agreement = spearman(values, strengths, kSeed)) {
      one.agreement = *agreement;
    } else {
      one.tooFew = agreement.error().message;
    }
    out.push_back(std::move(one));
  }
  std::vector<double> p;
  for (const ReadingAndVote& one : out) {
    if (one.tooFew.empty()) p.push_back(one.agreement.p);
  }
  const std::vector<double> adjusted = holm(p);
  std::size_t next = 0;
  for (ReadingAndVote& one : out) {
    if (one.tooFew.empty()) one.p = adjusted[next++];
  }
  return out;
}

}  // namespace fin
