// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/score_table.h"

#include <algorithm>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>
#include <map>

#include "core/comparison/class_spread.h"
#include "core/comparison/judging.h"
#include "core/readings/registry.h"
#include "core/signals/count_intervals.h"

namespace fin {
namespace {

/// Half-width of a single pass by how the passes of the other rigs scatter about their own means; nought
/// where none has two.
double scatterOfOnePass(const std::vector<ComparedRig>& rigs) {
  std::vector<std::vector<double>> groups;
  for (const ComparedRig& rig : rigs) {
    auto& group = groups.emplace_back();
    for (const ComparedValue& v : rig.values) group.push_back(v.value);
  }
  const auto scatter = pooledScatter(groups);
  if (!scatter) return 0.0;
  return boost::math::quantile(boost::math::students_t(scatter->degrees), 0.975) * scatter->sd;
}

std::map<std::string, ScoredValue> overPasses(const std::vector<ComparedPass>& passes, ReadingId reading,
                                              std::optional<double> speed) {
  const std::vector<ComparedRig> values = valuesOf(passes, reading, speed);
  const Spread spread = compare(values, reading);
  // By itself a single pass does not know how passes scatter.
  const double alone = spread.pairs.empty() ? scatterOfOnePass(values) : 0.0;
  std::map<std::string, ScoredValue> out;
  for (const RigMean& rig : spread.rigs) {
    const double u95 = rig.passes < 2 ? std::hypot(rig.u95(), alone) : rig.u95();
    out[rig.rig] = {rig.mean, u95, rig.passes, rig.letters, rig.lengthU95};
  }
  return out;
}

std::map<std::string, ScoredValue> overClasses(const std::vector<ComparedPass>& passes, const Wish& wish) {
  std::map<std::string, ScoredValue> out;
  for (const RigClasses& rig : compareClasses(passes, wish.reading).rigs) {
    if (rig.passes == 0) continue;
    const std::size_t so = rig.passesOf(wish.className);
    const CountInterval share = jeffreys(so, rig.passes);
    out[rig.rig] = {100.0 * static_cast<double>(so) / static_cast<double>(rig.passes),
                    50.0 * (share.to - share.from),
                    rig.passes,
                    rig.letters,
                    0.0,
                    so};
  }
  return out;
}

std::map<std::string, ScoredValue> overLadders(const std::vector<ComparedPass>& passes, ReadingId reading) {
  std::map<std::string, ScoredValue> out;
  for (const auto& [rig, rungs] : laddersOf(passes)) {
    const SpeedLadder ladder = evaluateLadder(rungs);
    if (const auto number = numberIn(ladder.readings, reading))
      out[rig] = {*number, ladder.readings.find(reading)->u95.value_or(0.0), 1, {}};
  }
  return out;
}

std::map<std::string, ScoredValue> overJudges(const Judgements& judgements, const std::string& property) {
  const auto values = judgedValues(judgements, property);
  return {values.begin(), values.end()};
}

}  // namespace

ScoreTable tableFor(const std::vector<ComparedPass>& passes, std::vector<Entry> entries,
                    std::vector<Wish> wishes, const Judgements& judgements) {
  ScoreTable out{std::move(entries), std::move(wishes), {}, {}, {}};
  for (const Wish& wish : out.wishes) {
    const bool judged = !wish.judged.empty();
    const bool ladder = !judged && isOfLadder(wish.reading);
    const auto speed = ladder || judged  ? std::nullopt
                       : wish.speed_mm_s ? wish.speed_mm_s
                                         : commonSpeed(passes, wish.reading);
    const auto values = judged                  ? overJudges(judgements, wish.judged)
                        : ladder                ? overLadders(passes, wish.reading)
                        : isClass(wish.reading) ? overClasses(passes, wish)
                                                : overPasses(passes, wish.reading, speed);
    out.speeds_mm_s.push_back(speed);
    out.scatterKnown.push_back(
        ladder || judged ||
        std::any_of(values.begin(), values.end(), [](const auto& v) { return v.second.passes > 1; }));
    auto& row = out.cells.emplace_back();
    for (const Entry& entry : out.entries) {
      const auto found = values.find(entry.rig);
      row.push_back(found == values.end() ? std::nullopt : std::optional(found->second));
    }
  }
  return out;
}

}  // namespace fin
