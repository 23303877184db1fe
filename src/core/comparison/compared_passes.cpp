// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/compared_passes.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/readings/registry.h"

namespace fin {
namespace {

constexpr double kOtherLine = 0.05;  ///< and line out
constexpr double kOtherSpeed = 0.1;  ///< share by which pulls differ in speed
template <class Value>
std::vector<Value>& of(ByRig<Value>& rigs, const std::string& name) {
  const auto found = std::find_if(rigs.begin(), rigs.end(), [&](const auto& r) { return r.first == name; });
  return found == rigs.end() ? rigs.emplace_back(name, std::vector<Value>()).second : found->second;
}

}  // namespace

std::optional<double> ComparedPass::speed() const {
  const auto along = numberIn(readings, ReadingId::TravelSpeed);
  return along ? std::optional(std::abs(*along)) : std::nullopt;
}

bool ComparedPass::pulledOtherwise(std::optional<double> speed_mm_s) const {
  const auto own = speed();
  return own && speed_mm_s && std::abs(*own - *speed_mm_s) > kOtherSpeed * *speed_mm_s;
}

RigValues numbersOf(const ComparedRig& rig) {
  RigValues out{rig.rig, {}, {}};
  for (const ComparedValue& v : rig.values) {
    out.values.push_back(v.value);
    out.u95.push_back(v.u95);
  }
  return out;
}

std::vector<ReadingId> readingsAmong(const std::vector<ComparedPass>& passes, ReadAs as) {
  std::vector<ReadingId> out;
  for (const Protocol protocol : kAllProtocols) {
    for (const ReadingSpec& spec : readingsOf(protocol)) {
      if (as != ReadAs::Either && isClass(spec.id) != (as == ReadAs::Class)) continue;
      const bool there = std::any_of(passes.begin(), passes.end(), [&](const ComparedPass& p) {
        return p.readings.find(spec.id) != nullptr;
      });
      if (there && std::find(out.begin(), out.end(), spec.id) == out.end()) out.emplace_back(spec.id);
    }
  }
  return out;
}

std::vector<double> speedsOf(const std::vector<ComparedPass>& passes) {
  std::vector<double> all;
  for (const ComparedPass& pass : passes) {
    if (const auto speed = pass.speed()) all.push_back(*speed);
  }
  std::sort(all.begin(), all.end());
  std::vector<double> out;
  for (std::size_t i = 0; i < all.size();) {
    std::size_t end = i;
    while (end < all.size() && all[end] <= all[i] * (1.0 + kOtherSpeed)) ++end;
    out.push_back(all[(i + end - 1) / 2]);
    i = end;
  }
  return out;
}

std::vector<ComparedRig> valuesOf(const std::vector<ComparedPass>& passes, ReadingId reading,
                                  std::optional<double> speed_mm_s) {
  ByRig<ComparedValue> rigs;
  std::map<PlannedPassId, std::size_t> known;  // planned pass → its place among the rig's values
  for (const ComparedPass& pass : passes) {
    const auto number = numberIn(pass.readings, reading);
    if (!number || pass.pulledOtherwise(speed_mm_s)) continue;
    const ComparedValue value{pass.id, pass.title, *number, pass.readings.find(reading)->u95.value_or(0.0)};
    std::vector<ComparedValue>& values = of(rigs, pass.rig);
    const auto twin = pass.planned ? known.find(*pass.planned) : known.end();
    if (twin != known.end()) {
      if (value.u95 < values[twin->second].u95) values[twin->second] = value;
      continue;
    }
    if (pass.planned) known[*pass.planned] = values.size();
    values.push_back(value);
  }
  std::vector<ComparedRig> out;
  for (auto& [rig, values] : rigs) out.push_back({rig, std::move(values)});
  return out;
}

std::optional<double> commonSpeed(const std::vector<ComparedPass>& passes, ReadingId reading) {
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

ByRig<LadderRung> laddersOf(const std::vector<ComparedPass>& passes) {
  ByRig<LadderRung> out;
  for (const ComparedPass& pass : passes) {
    if (pass.protocol != Protocol::Retrieve) continue;
    if (auto rung = rungOf(pass.title, pass.readings, pass.showsAction))
      of(out, pass.rig).push_back(std::move(*rung));
  }
  std::erase_if(out, [](const auto& rig) {
    const auto [slow, fast] = std::minmax_element(
        rig.second.begin(), rig.second.end(),
        [](const LadderRung& a, const LadderRung& b) { return a.speed_mm_s < b.speed_mm_s; });
    return fast->speed_mm_s <= slow->speed_mm_s * (1.0 + kOtherSpeed);
  });
  return out;
}

std::vector<DepthCurve> depthsOf(const std::vector<ComparedPass>& passes, DepthBy by) {
  const bool bySpeed = by == DepthBy::Speed;
  const double alike = bySpeed ? kOtherLine : kOtherSpeed;
  std::vector<DepthCurve> out;
  for (const ComparedPass& pass : passes) {
    const auto depth = numberIn(pass.readings, ReadingId::RunningDepth);
    const auto speed = pass.speed();
    if (!depth || !speed || (!bySpeed && !pass.lineOut_mm)) continue;
    const std::optional<double> held = bySpeed ? pass.lineOut_mm : speed;
    auto curve = std::find_if(out.begin(), out.end(), [&](const DepthCurve& c) {
      if (c.rig != pass.rig || c.held.has_value() != held.has_value()) return false;
      return !held || std::abs(*c.held - *held) <= alike * *c.held;
    });
    if (curve == out.end()) curve = out.insert(out.end(), {pass.rig, held, {}});
    curve->points.push_back({bySpeed ? *speed : *pass.lineOut_mm, *depth,
                             pass.readings.find(ReadingId::RunningDepth)->u95.value_or(0.0)});
  }
  for (DepthCurve& curve : out) {
    std::sort(curve.points.begin(), curve.points.end(),
              [](const DepthPoint& a, const DepthPoint& b) { return a.by < b.by; });
  }
  return out;
}

}  // namespace fin
