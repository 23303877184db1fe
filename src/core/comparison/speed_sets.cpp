// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/speed_sets.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "core/comparison/ranking.h"

namespace fin {
namespace {

constexpr double kAbout = 0.05;  ///< either side of a speed that was filmed alone

std::optional<SpeedBand> bandOfLadder(const std::string& rig, const std::vector<LadderRung>& rungs) {
  const SpeedLadder ladder = evaluateLadder(rungs);
  const auto onset = numberIn(ladder.readings, ReadingId::OnsetSpeed);
  const auto blowout = numberIn(ladder.readings, ReadingId::BlowoutSpeed);
  SpeedBand band{rig, 0.0, 0.0, true, !onset, !blowout};
  bool any = false;
  for (const LadderRung& rung : ladder.rungs) {
    if (!rung.action_deg || (blowout && rung.speed_mm_s >= *blowout) || (onset && rung.speed_mm_s < *onset))
      continue;
    if (!any) band.from_mm_s = rung.speed_mm_s;
    band.to_mm_s = rung.speed_mm_s;
    any = true;
  }
  if (!any) return std::nullopt;
  if (onset) band.from_mm_s = *onset;
  return band;
}

SpeedSet sharedBy(const std::vector<const SpeedBand*>& bands) {
  SpeedSet out{{}, 0.0, 1e300};
  for (const SpeedBand* band : bands) {
    out.rigs.push_back(band->rig);
    out.from_mm_s = std::max(out.from_mm_s, band->from_mm_s);
    out.to_mm_s = std::min(out.to_mm_s, band->to_mm_s);
  }
  return out;
}

bool wider(const SpeedSet& a, const SpeedSet& b) {
  return a.to_mm_s - a.from_mm_s > b.to_mm_s - b.from_mm_s;
}

}  // namespace

std::vector<SpeedBand> bandsOf(const std::vector<ComparedPass>& passes) {
  std::vector<SpeedBand> out;
  std::set<std::string> known;
  for (const auto& [rig, rungs] : laddersOf(passes)) {
    known.insert(rig);
    if (const auto band = bandOfLadder(rig, rungs)) out.push_back(*band);
  }
  for (const ComparedPass& pass : passes) {
    const auto speed = pass.speed();
    if (!speed || pass.protocol != Protocol::Retrieve || !known.insert(pass.rig).second) continue;
    out.push_back({pass.rig, (1.0 - kAbout) * *speed, (1.0 + kAbout) * *speed, false, true, true});
  }
  std::stable_sort(out.begin(), out.end(),
                   [](const SpeedBand& a, const SpeedBand& b) { return a.to_mm_s > b.to_mm_s; });
  return out;
}

/// Bands that share anything share the beginning of one of them, so those are all the speeds to look at.
std::vector<SpeedSet> setsThatShare(const std::vector<SpeedBand>& bands) {
  std::vector<std::vector<const SpeedBand*>> found;
  for (const SpeedBand& beginning : bands) {
    std::vector<const SpeedBand*> there;
    for (const SpeedBand& band : bands) {
      if (band.from_mm_s <= beginning.from_mm_s && beginning.from_mm_s <= band.to_mm_s)
        there.push_back(&band);
    }
    if (there.size() > 1) found.push_back(std::move(there));
  }
  std::vector<SpeedSet> out;
  for (std::size_t i = 0; i < found.size(); ++i) {
    bool within = false;
    for (std::size_t j = 0; j < found.size(); ++j) {
      // In the order of `bands` all of them, so what lies within another can be told.
      const auto before = [](const SpeedBand* a, const SpeedBand* b) { return a < b; };
      if (i != j && std::includes(found[j].begin(), found[j].end(), found[i].begin(), found[i].end(), before))
        within |= found[j] != found[i] || j < i;
    }
    if (!within) out.push_back(sharedBy(found[i]));
  }
  std::stable_sort(out.begin(), out.end(), [](const SpeedSet& a, const SpeedSet& b) {
    return a.rigs.size() != b.rigs.size() ? a.rigs.size() > b.rigs.size() : wider(a, b);
  });
  return out;
}

std::vector<SpeedSet> pairsThatShare(const std::vector<SpeedBand>& bands) {
  std::vector<SpeedSet> out;
  for (std::size_t i = 0; i < bands.size(); ++i) {
    for (std::size_t j = i + 1; j < bands.size(); ++j) {
      SpeedSet pair = sharedBy({&bands[i], &bands[j]});
      if (pair.from_mm_s <= pair.to_mm_s) out.push_back(std::move(pair));
    }
  }
  std::stable_sort(out.begin(), out.end(), wider);
  return out;
}

std::vector<OrderedRig> bySpeed(std::vector<OrderedRig> rigs) {
  std::vector<double> speeds, lengths;
  for (const OrderedRig& rig : rigs) {
    speeds.push_back(rig.speed_mm_s);
    lengths.push_back(rig.length_mm.value_or(0.0));
  }
  const std::vector<double> fast = placesOf(speeds);
  const std::vector<double> big = placesOf(lengths);
  std::vector<std::size_t> order;
  for (std::size_t i = 0; i < rigs.size(); ++i) order.push_back(i);
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
    const double left = fast[a] + big[a];
    const double right = fast[b] + big[b];
    return left != right ? left < right : fast[a] < fast[b];
  });
  std::vector<OrderedRig> out;
  for (const std::size_t i : order) out.push_back(rigs[i]);
  return out;
}

std::vector<OrderedRig> byPrey(std::vector<OrderedRig> rigs, double prey_mm) {
  const auto away = [&](const OrderedRig& rig) {
    return rig.length_mm && *rig.length_mm > 0.0 && prey_mm > 0.0
               ? std::abs(std::log(*rig.length_mm / prey_mm))
               : 1e300;
  };
  std::stable_sort(rigs.begin(), rigs.end(), [&](const OrderedRig& a, const OrderedRig& b) {
    return away(a) != away(b) ? away(a) < away(b) : a.speed_mm_s > b.speed_mm_s;
  });
  return rigs;
}

}  // namespace fin
