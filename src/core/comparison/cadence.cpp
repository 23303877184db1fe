// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/cadence.h"

#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <random>
#include <span>

#include "core/comparison/pooled_steps.h"
#include "core/readings/sheet.h"
#include "core/tracking/quantile.h"

namespace fin {
namespace {

constexpr double kHoldsWithin_mm = 5.0;
constexpr double kSameInterval = 0.1;
constexpr int kDraws = 400;
constexpr double kFewestDrawn = 0.8;

/// Passes at about one interval, as one point.
struct Point {
  double interval_s = 0.0;
  double rise_mm = 0.0;
};

std::vector<Point> pointsOf(const std::vector<CadenceRung>& rungs) {
  std::vector<Point> out;
  for (std::size_t i = 0; i < rungs.size();) {
    Point sum;
    std::size_t end = i;
    for (; end < rungs.size() && rungs[end].interval_s <= rungs[i].interval_s * (1.0 + kSameInterval);
         ++end) {
      sum.interval_s += rungs[end].interval_s;
      sum.rise_mm += rungs[end].rise_mm;
    }
    const auto n = static_cast<double>(end - i);
    out.push_back({sum.interval_s / n, sum.rise_mm / n});
    i = end;
  }
  return out;
}

/// The shortest interval at which the climb is no more than `most_mm`; none where the points do not tell.
std::optional<double> shortestWith(const std::vector<CadenceRung>& rungs, double most_mm) {
  const std::vector<Point> points = pointsOf(rungs);
  std::vector<double> sinking;
  for (const Point& p : points) sinking.push_back(-p.rise_mm);
  sinking = nonDecreasing(std::move(sinking));
  std::vector<double> intervals;
  for (const Point& p : points) intervals.push_back(p.interval_s);
  return firstReaching(intervals, sinking, -most_mm);
}

std::string whyNone(const std::vector<CadenceRung>& rungs, double most_mm) {
  const std::vector<Point> points = pointsOf(rungs);
  if (points.size() < 2)
    return "twitch it at two intervals and more, from quick to slow: nothing is told of those not filmed";
  const auto climbs = [most_mm](const Point& p) { return p.rise_mm > most_mm; };
  if (std::all_of(points.begin(), points.end(), climbs))
    return fmt::format("it still climbs {:.0f} mm a twitch at {:.2f} s: film slower twitches",
                       points.back().rise_mm, points.back().interval_s);
  return fmt::format("it does not climb at {:.2f} s already: film quicker twitches",
                     points.front().interval_s);
}

}  // namespace

std::optional<CadenceRung> cadenceRungOf(const std::string& name, const ReadingSet& readings) {
  const auto interval = numberIn(readings, ReadingId::TwitchInterval);
  const auto rise = numberIn(readings, ReadingId::RisePerTwitch);
  if (!interval || !rise) return std::nullopt;
  return CadenceRung{name, *interval, *rise, readings.find(ReadingId::RisePerTwitch)->u95.value_or(0.0)};
}

CadenceLadder evaluateCadence(std::vector<CadenceRung> rungs) {
  std::stable_sort(rungs.begin(), rungs.end(),
                   [](const CadenceRung& a, const CadenceRung& b) { return a.interval_s < b.interval_s; });
  CadenceLadder out{std::move(rungs), {}};
  std::mt19937 random(1);
  std::normal_distribution<double> draw(0.0, 1.0 / kNormal95);
  for (const auto& [id, most_mm] :
       {std::pair(ReadingId::HoldInterval, kHoldsWithin_mm), {ReadingId::LevelInterval, 0.0}}) {
    const auto found = shortestWith(out.rungs, most_mm);
    if (!found) {
      out.readings.refused.push_back({id, whyNone(out.rungs, most_mm)});
      continue;
    }
    std::vector<double> drawn;
    for (int i = 0; i < kDraws; ++i) {
      std::vector<CadenceRung> other = out.rungs;
      for (CadenceRung& rung : other) rung.rise_mm += rung.riseU95_mm * draw(random);
      if (const auto at = shortestWith(other, most_mm)) drawn.push_back(*at);
    }
    Reading reading{id, *found, "s", 0.0, static_cast<double>(out.rungs.size())};
    if (!drawn.empty()) {
      const std::span<double> all(drawn);
      reading.u95 = 0.5 * (quantileOf(all, 0.975) - quantileOf(all, 0.025));
    }
    reading.grade = gradeOf(*found, *reading.u95);
    if (static_cast<double>(drawn.size()) < kFewestDrawn * kDraws) {
      reading.grade = Grade::Poor;
      reading.notes.push_back("so near to what was filmed last that it may lie beyond");
    }
    out.readings.readings.push_back(std::move(reading));
  }
  return out;
}

ByRig<CadenceRung> cadencesOf(const std::vector<ComparedPass>& passes) {
  ByRig<CadenceRung> out;
  for (const ComparedPass& pass : passes) {
    auto rung = cadenceRungOf(pass.title, pass.readings);
    if (!rung) continue;
    auto rig = std::find_if(out.begin(), out.end(), [&](const auto& r) { return r.first == pass.rig; });
    if (rig == out.end()) rig = out.insert(out.end(), {pass.rig, {}});
    rig->second.push_back(std::move(*rung));
  }
  std::erase_if(out, [](const auto& rig) {
    std::vector<CadenceRung> rungs = rig.second;
    std::sort(rungs.begin(), rungs.end(),
              [](const CadenceRung& a, const CadenceRung& b) { return a.interval_s < b.interval_s; });
    return pointsOf(rungs).size() < 2;
  });
  return out;
}

}  // namespace fin
