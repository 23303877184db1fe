// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/tiers.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <tuple>

namespace fin {
namespace {

constexpr double kSlower = 0.85;
constexpr std::size_t kMostTiers = 4;
constexpr double kRound = 1e-9;

/// A set of rigs as one tier, with what it is weighed by.
struct Candidate {
  Tier tier;
  double longest = -std::numeric_limits<double>::infinity();  ///< of the known lengths
  double shortest = std::numeric_limits<double>::infinity();
  int heard = 0;
};

Candidate candidateOf(const std::vector<TierRig>& rigs, const std::vector<std::size_t>& chosen) {
  Candidate out{
      .tier = {.rigs = chosen, .from_mm_s = 0.0, .to_mm_s = std::numeric_limits<double>::infinity()}};
  for (const std::size_t i : chosen) {
    out.tier.from_mm_s = std::max(out.tier.from_mm_s, rigs[i].from_mm_s);
    out.tier.to_mm_s = std::min(out.tier.to_mm_s, rigs[i].to_mm_s);
    out.heard += rigs[i].heard ? 1 : 0;
    if (!rigs[i].length_mm) continue;
    out.longest = std::max(out.longest, *rigs[i].length_mm);
    out.shortest = std::min(out.shortest, *rigs[i].length_mm);
  }
  return out;
}

/// All sets of that many rigs that share a speed, the fastest first.
std::vector<Candidate> candidatesFor(const std::vector<TierRig>& rigs, std::size_t rods) {
  std::vector<Candidate> out;
  std::vector<std::size_t> chosen;
  const auto choose = [&](const auto& self, std::size_t from) -> void {
    const Candidate now = candidateOf(rigs, chosen);
    if (!chosen.empty() && now.tier.from_mm_s > now.tier.to_mm_s) return;
    if (chosen.size() == rods) {
      out.push_back(now);
      return;
    }
    for (std::size_t i = from; i < rigs.size(); ++i) {
      chosen.push_back(i);
      self(self, i + 1);
      chosen.pop_back();
    }
  };
  choose(choose, 0);
  std::stable_sort(out.begin(), out.end(),
                   [](const Candidate& a, const Candidate& b) { return a.tier.middle() > b.tier.middle(); });
  return out;
}

bool apart(const Tier& a, const Tier& b) {
  return std::none_of(a.rigs.begin(), a.rigs.end(), [&b](std::size_t rig) {
    return std::find(b.rigs.begin(), b.rigs.end(), rig) != b.rigs.end();
  });
}

bool mayFollow(const Candidate& before, const Candidate& after) {
  return after.tier.middle() <= kSlower * before.tier.middle() * (1.0 + kRound) &&
         after.longest <= before.shortest && apart(before.tier, after.tier);
}

/// The best way down from each candidate in so many steps.
struct Way {
  bool any = false;
  int heard = 0;
  double width = 0.0;
  std::size_t next = 0;

  [[nodiscard]] auto rank() const { return std::tuple(-heard, width); }
};

}  // namespace

std::vector<TierRig> tierRigsOf(const Rack& rack, const std::vector<SpeedBand>& bands) {
  std::vector<TierRig> out;
  for (const Rig& rig : rack.rigs) {
    const std::string name = rack.fullName(rig);
    const Model* model = rack.model(rig.model);
    TierRig one{.rig = rig.id, .name = name};
    if (model != nullptr) one.length_mm = model->length_mm;
    const auto band = std::find_if(bands.begin(), bands.end(),
                                   [&name](const SpeedBand& b) { return b.rig == name && b.ladder; });
    if (band != bands.end()) {
      one.from_mm_s = band->from_mm_s;
      one.to_mm_s = band->to_mm_s;
    } else if (rig.heard.slowest_mm_s && rig.heard.fastest_mm_s) {
      one.from_mm_s = *rig.heard.slowest_mm_s;
      one.to_mm_s = *rig.heard.fastest_mm_s;
      one.heard = true;
    } else {
      continue;
    }
    out.push_back(std::move(one));
  }
  return out;
}

Result<std::vector<Tier>> tiersOf(const std::vector<TierRig>& rigs, int rods) {
  if (rods < 1) return failure(ErrorCode::BadRequest, "no rod is out");
  const std::vector<Candidate> all = candidatesFor(rigs, static_cast<std::size_t>(rods));
  if (all.empty()) return failure(ErrorCode::Unsupported, "no rigs for so many rods share a speed");
  // ways[k][i]: k further tiers below candidate i.
  std::vector<std::vector<Way>> ways(kMostTiers, std::vector<Way>(all.size()));
  for (std::size_t i = 0; i < all.size(); ++i)
    ways[0][i] = {true, all[i].heard, all[i].tier.to_mm_s - all[i].tier.from_mm_s, 0};
  for (std::size_t steps = 1; steps < kMostTiers; ++steps) {
    for (std::size_t i = 0; i < all.size(); ++i) {
      Way& best = ways[steps][i];
      for (std::size_t next = i + 1; next < all.size(); ++next) {
        const Way& below = ways[steps - 1][next];
        if (!below.any || !mayFollow(all[i], all[next])) continue;
        const Way way{true, ways[0][i].heard + below.heard, ways[0][i].width + below.width, next};
        if (!best.any || way.rank() > best.rank()) best = way;
      }
    }
  }
  for (std::size_t steps = kMostTiers - 1; steps > 0; --steps) {
    std::size_t best = all.size();
    for (std::size_t i = 0; i < all.size(); ++i) {
      if (ways[steps][i].any && (best == all.size() || ways[steps][i].rank() > ways[steps][best].rank()))
        best = i;
    }
    if (best == all.size()) continue;
    std::vector<Tier> out;
    for (std::size_t at = best, left = steps + 1; left > 0; --left) {
      out.push_back(all[at].tier);
      at = ways[left - 1][at].next;
    }
    return out;
  }
  return failure(ErrorCode::Unsupported, "all rigs that share a speed share about the same one");
}

TierAdvice adviceFor(const TierFacts& facts) {
  TierAdvice out;
  if (facts.justBitten) {
    out.because = {"a bite: stay with what they take"};
    return out;
  }
  std::vector<std::string> down, up;
  const auto add = [](std::vector<std::string>& to, bool so, const char* why) {
    if (so) to.emplace_back(why);
  };
  if (facts.sinceTouch_rodMin >= facts.patience_rodMin)
    down.push_back(fmt::format("no touch for {:.0f} rod-minutes and more", facts.patience_rodMin));
  add(down, facts.glass, "the water lies like glass");
  add(down, facts.sun, "bright sun");
  add(down, facts.fishSeen, "fish are seen and none takes");
  add(up, facts.crests, "the wind makes crests");
  add(up, facts.cloud, "it clouded over");
  add(up, facts.dusk, "dusk");
  if (!down.empty() && up.empty()) out = {TierAdvice::Go::Down, down};
  if (!up.empty() && down.empty()) out = {TierAdvice::Go::Up, up};
  if (!up.empty() && !down.empty()) {
    out.because = down;
    out.because.insert(out.because.end(), up.begin(), up.end());
  }
  return out;
}

double chanceOfSilence(double ratePerRodHour, double rodHours) {
  return std::exp(-ratePerRodHour * rodHours);
}

}  // namespace fin
