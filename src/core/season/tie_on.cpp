// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/tie_on.h"

#include <algorithm>
#include <numeric>

#include "core/comparison/points.h"

namespace fin {
namespace {

constexpr double kHalfKnown = 0.5;
constexpr double kFinishWeight = 0.5;
constexpr double kAlikePoints = 0.5 * kMostPoints;

std::optional<double> valueOf(const TieCandidate& candidate, const TieWish& wish) {
  switch (wish.of) {
    case TieWish::Of::Length:
      return candidate.length_mm;
    case TieWish::Of::DaysUnseen:
      return candidate.daysUnseen;
    case TieWish::Of::Finish:
      break;
    case TieWish::Of::Reading: {
      const auto found = candidate.readings.find(wish.reading);
      return found == candidate.readings.end() ? std::nullopt : std::optional(found->second);
    }
  }
  return std::nullopt;
}

std::optional<double> finishPoints(Finish finish, bool bright) {
  if (finish == Finish::Unknown) return std::nullopt;
  if (finish == Finish::Plain) return kAlikePoints;
  return (finish == Finish::Bright) == bright ? kMostPoints : 0.0;
}

/// By candidate.
std::vector<std::optional<double>> pointsFor(const std::vector<TieCandidate>& candidates,
                                             const TieWish& wish) {
  std::vector<std::optional<double>> out;
  if (wish.of == TieWish::Of::Finish) {
    for (const TieCandidate& c : candidates) out.push_back(finishPoints(c.finish, wish.bright));
    return out;
  }
  const Wish by{.direction = wish.direction, .target = wish.target};
  std::vector<double> known;
  for (const TieCandidate& c : candidates) {
    if (const auto value = valueOf(c, wish)) known.push_back(*value);
  }
  const auto curve = curveFor(by, known);
  for (const TieCandidate& c : candidates) {
    const auto value = valueOf(c, wish);
    out.push_back(!value ? std::nullopt : std::optional(curve ? pointsBy(*curve, by, *value) : kAlikePoints));
  }
  return out;
}

bool sameProperty(const TieWish& a, const TieWish& b) {
  return a.of == b.of && (a.of != TieWish::Of::Reading || a.reading == b.reading);
}

bool oppose(const TieWish& a, const TieWish& b) {
  if (!sameProperty(a, b)) return false;
  if (a.of == TieWish::Of::Finish) return a.bright != b.bright;
  if (a.direction == Direction::Target && b.direction == Direction::Target) return a.target != b.target;
  return a.direction != b.direction;
}

/// A target that is the prey's length takes it from the water; none where it is not known.
std::optional<TieWish> aimed(TieWish wish, const DayFacts& facts) {
  if (!wish.targetIsPrey) return wish;
  const auto prey = facts.water.number(Condition::PreyLength);
  if (!prey) return std::nullopt;
  wish.target = *prey;
  return wish;
}

std::vector<AwakeWish> awakeWishes(const std::vector<RuleState>& rules, const DayFacts& facts) {
  std::vector<AwakeWish> out;
  for (std::size_t r = 0; r < rules.size(); ++r) {
    for (const TieWish& wish : rules[r].wishes) {
      const auto at = aimed(wish, facts);
      if (!at) continue;
      out.push_back({r, *at, wish.weight * (wish.of == TieWish::Of::Finish ? kFinishWeight : 1.0)});
    }
  }
  return out;
}

std::vector<ReadingId> worthFilming(const TieOn& all, std::size_t candidates) {
  std::map<ReadingId, double> missing;
  for (std::size_t w = 0; w < all.wishes.size(); ++w) {
    if (all.wishes[w].wish.of != TieWish::Of::Reading) continue;
    const auto lacking = std::count_if(all.choices.begin(), all.choices.end(),
                                       [w](const TieChoice& c) { return !c.points[w]; });
    if (lacking > 0)
      missing[all.wishes[w].wish.reading] +=
          all.wishes[w].weight * static_cast<double>(lacking) / static_cast<double>(candidates);
  }
  std::vector<std::pair<double, ReadingId>> byWeight;
  for (const auto& [reading, weight] : missing) byWeight.emplace_back(weight, reading);
  std::stable_sort(byWeight.begin(), byWeight.end(),
                   [](const auto& a, const auto& b) { return a.first > b.first; });
  std::vector<ReadingId> out;
  for (const auto& [weight, reading] : byWeight) out.push_back(reading);
  return out;
}

}  // namespace

std::vector<TieCandidate> candidatesOf(const Rack& rack, const std::vector<ComparedPass>& passes) {
  std::vector<TieCandidate> out;
  std::map<std::string, std::size_t> byName;
  for (const Rig& rig : rack.rigs) {
    const Model* model = rack.model(rig.model);
    if (model == nullptr || !model->graded) continue;
    byName[rack.fullName(rig)] = out.size();
    out.push_back(
        {.rig = rig.id, .name = rack.fullName(rig), .length_mm = model->length_mm, .finish = model->finish});
  }
  for (const ReadingId reading : readingsAmong(passes)) {
    for (const ComparedRig& rig : valuesOf(passes, reading, commonSpeed(passes, reading))) {
      const auto found = byName.find(rig.rig);
      if (found == byName.end() || rig.values.empty()) continue;
      double sum = 0.0;
      for (const ComparedValue& v : rig.values) sum += v.value;
      out[found->second].readings[reading] = sum / static_cast<double>(rig.values.size());
    }
  }
  for (const auto& [rig, rungs] : laddersOf(passes)) {
    const auto found = byName.find(rig);
    if (found == byName.end()) continue;
    const ReadingSet ladder = evaluateLadder(rungs).readings;
    for (const ReadingId reading : kLadderReadings) {
      if (const auto speed = numberIn(ladder, reading)) out[found->second].readings[reading] = *speed;
    }
  }
  return out;
}

TieChoice choiceOf(const std::vector<std::optional<double>>& points, const std::vector<double>& weights) {
  TieChoice out{.points = points};
  double all = 0.0, known = 0.0, earned = 0.0;
  for (std::size_t w = 0; w < weights.size(); ++w) {
    all += weights[w];
    if (!points[w]) continue;
    known += weights[w];
    earned += weights[w] * *points[w];
  }
  if (!(all > 0.0)) return out;
  out.known = known / all;
  out.floor = earned / all;
  out.ceiling = out.floor + kMostPoints * (1.0 - out.known);
  out.ranked = out.known >= kHalfKnown;
  return out;
}

TieOn tieOn(const std::vector<TieCandidate>& candidates, const std::vector<TieRule>& rules,
            const DayFacts& facts, const std::vector<SchoolSide>& schools) {
  TieOn out;
  for (const TieRule& rule : rules) out.rules.push_back(stateOf(rule, facts, schools));
  out.wishes = awakeWishes(out.rules, facts);
  for (std::size_t a = 0; a < out.wishes.size(); ++a) {
    for (std::size_t b = a + 1; b < out.wishes.size(); ++b) {
      if (oppose(out.wishes[a].wish, out.wishes[b].wish)) out.opposed.emplace_back(a, b);
    }
  }
  std::vector<double> weights;
  std::vector<std::vector<std::optional<double>>> points;  // by wish
  for (const AwakeWish& wish : out.wishes) {
    weights.push_back(wish.weight);
    points.push_back(pointsFor(candidates, wish.wish));
  }
  for (std::size_t c = 0; c < candidates.size(); ++c) {
    std::vector<std::optional<double>> own;
    for (const auto& ofWish : points) own.push_back(ofWish[c]);
    out.choices.push_back(choiceOf(own, weights));
    out.choices.back().candidate = c;
  }
  std::stable_sort(out.choices.begin(), out.choices.end(), [](const TieChoice& a, const TieChoice& b) {
    return a.ranked != b.ranked ? a.ranked : a.floor > b.floor;
  });
  if (!candidates.empty()) out.film = worthFilming(out, candidates.size());
  if (candidates.empty()) {
    out.whyNone = "there are no rigs to choose from";
  } else if (out.wishes.empty()) {
    out.whyNone = "no rule is awake: note more of the water, or nothing speaks for one lure over another";
  } else if (!out.choices.front().ranked) {
    out.whyNone = "unknown here: of no rig half is known that these waters ask for";
  }
  out.tooClose =
      out.choices.size() > 1 && out.choices[1].ranked && out.choices[1].ceiling >= out.choices[0].floor;
  return out;
}

}  // namespace fin
