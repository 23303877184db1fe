// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/score_table.h"

#include <algorithm>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>
#include <map>

#include "core/readings/registry.h"

namespace fin {
namespace {

bool isOfLadder(std::string_view reading) {
  return reading == "onset_speed" || reading == "blowout_speed";
}

/// Half-width of a single pass by how the passes of the other rigs scatter about their own means; nought
/// where none has two.
double scatterOfOnePass(const std::vector<RigValues>& rigs) {
  double squares = 0.0;
  double degrees = 0.0;
  for (const RigValues& rig : rigs) {
    if (rig.values.size() < 2) continue;
    double mean = 0.0;
    for (const double v : rig.values) mean += v / static_cast<double>(rig.values.size());
    for (const double v : rig.values) squares += (v - mean) * (v - mean);
    degrees += static_cast<double>(rig.values.size() - 1);
  }
  if (degrees < 1.0) return 0.0;
  const boost::math::students_t t(degrees);
  return boost::math::quantile(t, 0.975) * std::sqrt(squares / degrees);
}

std::map<std::string, ScoredValue> overPasses(const std::vector<ComparedPass>& passes,
                                              std::string_view reading, std::optional<double> speed) {
  std::vector<RigValues> values;
  for (const ComparedRig& rig : valuesOf(passes, reading, speed)) values.push_back(numbersOf(rig));
  const double alone = scatterOfOnePass(values);
  std::map<std::string, ScoredValue> out;
  for (const RigMean& rig : compare(values).rigs) {
    const double u95 = rig.passes < 2 ? std::hypot(rig.u95, alone) : rig.u95;
    out[rig.rig] = {rig.mean, u95, rig.passes, rig.letters};
  }
  return out;
}

std::map<std::string, ScoredValue> overLadders(const std::vector<ComparedPass>& passes,
                                               std::string_view reading) {
  std::map<std::string, ScoredValue> out;
  for (const auto& [rig, rungs] : laddersOf(passes)) {
    const SpeedLadder ladder = climb(rungs);
    if (const auto number = numberIn(ladder.readings, reading))
      out[rig] = {*number, ladder.readings.find(reading)->u95.value_or(0.0), 1, {}};
  }
  return out;
}

}  // namespace

std::string_view unitOf(std::string_view reading) {
  if (isOfLadder(reading)) return "mm/s";
  const ReadingSpec* spec = readingNamed(reading);
  return spec == nullptr ? std::string_view() : spec->unit;
}

std::optional<double> commonSpeed(const std::vector<ComparedPass>& passes, std::string_view reading) {
  std::vector<ComparedPass> having;
  std::copy_if(passes.begin(), passes.end(), std::back_inserter(having),
               [&](const ComparedPass& p) { return numberIn(p.readings, reading).has_value(); });
  std::optional<double> best;
  std::pair<std::size_t, std::size_t> most{0, 0};  // rigs, passes
  for (const double speed : speedsOf(having)) {
    std::pair<std::size_t, std::size_t> count{0, 0};
    for (const ComparedRig& rig : valuesOf(having, reading, speed)) {
      ++count.first;
      count.second += rig.values.size();
    }
    if (count <= most) continue;
    most = count;
    best = speed;
  }
  return best;
}

ScoreTable tableFor(const std::vector<ComparedPass>& passes, std::vector<Entry> entries,
                    std::vector<Wish> wishes) {
  ScoreTable out{std::move(entries), std::move(wishes), {}, {}, {}};
  for (const Wish& wish : out.wishes) {
    const bool ladder = isOfLadder(wish.reading);
    const auto speed = ladder            ? std::nullopt
                       : wish.speed_mm_s ? wish.speed_mm_s
                                         : commonSpeed(passes, wish.reading);
    const auto values = ladder ? overLadders(passes, wish.reading) : overPasses(passes, wish.reading, speed);
    out.speeds_mm_s.push_back(speed);
    out.scatterKnown.push_back(ladder || std::any_of(values.begin(), values.end(),
                                                     [](const auto& v) { return v.second.passes > 1; }));
    auto& row = out.cells.emplace_back();
    for (const Entry& entry : out.entries) {
      const auto found = values.find(entry.rig);
      row.push_back(found == values.end() ? std::nullopt : std::optional(found->second));
    }
  }
  return out;
}

}  // namespace fin
