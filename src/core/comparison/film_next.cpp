// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/film_next.h"

#include <algorithm>
#include <map>
#include <set>

#include "core/comparison/apart/passes_needed.h"
#include "core/readings/registry.h"

namespace fin {
namespace {

using Names = std::set<std::string>;
using NamePair = std::pair<std::string, std::string>;

/// What the looks so far have found of one reading.
struct Found {
  std::set<NamePair> apart;
  Names notMost;
  Names notLeast;
  Spread last;
};

NamePair inOrder(const std::string& a, const std::string& b) {
  return a < b ? NamePair{a, b} : NamePair{b, a};
}

std::vector<ComparedRig> firstOf(const std::vector<ComparedRig>& rigs, std::size_t passes) {
  std::vector<ComparedRig> out = rigs;
  for (ComparedRig& rig : out) rig.values.resize(std::min(rig.values.size(), passes));
  return out;
}

Found lookThrough(const std::vector<ComparedRig>& rigs, ReadingId reading, std::size_t have,
                  std::optional<double> worth) {
  Found out;
  for (const Look& look : kLooks) {
    if (look.passes > have) break;
    out.last = compare(firstOf(rigs, look.passes), reading,
                       {.furtherPasses = true, .share = look.share, .worth = worth});
    for (const RigPair& pair : out.last.pairs) {
      if (pair.apart) out.apart.insert(inOrder(out.last.rigs[pair.a].rig, out.last.rigs[pair.b].rig));
    }
    for (const RigMean& rig : out.last.rigs) {
      if (!rig.mayBeMost) out.notMost.insert(rig.rig);
      if (!rig.mayBeLeast) out.notLeast.insert(rig.rig);
    }
  }
  return out;
}

/// Pairs that are still to be settled, with the passes that it takes.
std::map<NamePair, std::size_t> openPairs(const Found& found, const Wish& wish, ToSettle question,
                                          std::size_t most, std::optional<double> worth) {
  const bool best = question == ToSettle::Best && wish.direction != Direction::Target;
  const Names& out = wish.direction == Direction::Less ? found.notLeast : found.notMost;
  std::map<NamePair, std::size_t> open;
  for (const RigPair& pair : found.last.pairs) {
    const std::string& a = found.last.rigs[pair.a].rig;
    const std::string& b = found.last.rigs[pair.b].rig;
    if (found.apart.contains(inOrder(a, b)) || (best && (out.contains(a) || out.contains(b)))) continue;
    if (!best && worth && std::abs(pair.difference) < *worth) continue;
    if (pair.morePasses && *pair.morePasses <= most) open[inOrder(a, b)] = *pair.morePasses;
  }
  return open;
}

}  // namespace

FilmNext filmNext(const std::vector<ComparedPass>& passes, const std::vector<Wish>& wishes, ToSettle question,
                  const std::vector<Worth>& worths) {
  FilmNext out;
  std::vector<std::string> all;
  Names open;
  for (const Wish& wish : wishes) {
    if (!wish.judged.empty() || !(wish.weight > 0.0) || isClass(wish.reading) || isOfLadder(wish.reading))
      continue;
    const auto rigs =
        valuesOf(passes, wish.reading, wish.speed_mm_s ? wish.speed_mm_s : commonSpeed(passes, wish.reading));
    if (rigs.size() < 2) continue;
    std::size_t have = kLooks.back().passes;
    for (const ComparedRig& rig : rigs) {
      have = std::min(have, rig.values.size());
      if (std::find(all.begin(), all.end(), rig.rig) == all.end()) all.push_back(rig.rig);
    }
    if (have < kLooks.front().passes) {
      if (out.state == FilmNext::State::Nothing) out.state = FilmNext::State::TooEarly;
      continue;
    }
    if (out.state != FilmNext::State::Open) out.state = FilmNext::State::Settled;
    const auto worth = worthOf(worths, wish.reading);
    const auto pairs = openPairs(lookThrough(rigs, wish.reading, have, worth), wish, question,
                                 kLooks.back().passes - std::min(have, kLooks.back().passes - 1), worth);
    if (pairs.empty()) continue;
    out.state = FilmNext::State::Open;
    out.by.push_back(wish.reading);
    for (const auto& [pair, more] : pairs) {
      open.insert({pair.first, pair.second});
      out.more = std::max(out.more, more);
    }
  }
  for (const std::string& rig : all) (open.contains(rig) ? out.open : out.settled).push_back(rig);
  return out;
}

}  // namespace fin
