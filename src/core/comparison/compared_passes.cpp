// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/compared_passes.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/readings/registry.h"
#include "core/readings/scaling.h"

namespace fin {
namespace {

constexpr double kOtherLine = 0.05;  ///< and line out
constexpr double kOtherSpeed = 0.1;  ///< share by which pulls differ in speed
constexpr double kHour_s = 3600.0;
constexpr std::size_t kFewestInCommon = 3;  ///< passes of two cameras, to lay one's values over the other's

template <class Value>
std::vector<Value>& of(ByRig<Value>& rigs, const std::string& name) {
  const auto found = std::find_if(rigs.begin(), rigs.end(), [&](const auto& r) { return r.first == name; });
  return found == rigs.end() ? rigs.emplace_back(name, std::vector<Value>()).second : found->second;
}

/// A value, and the pass that it is of.
struct Seen {
  const ComparedPass* pass = nullptr;
  ComparedValue value;
};

ComparedValue valueIn(const ComparedPass& pass, const Reading& reading, double number) {
  return {.pass = pass.id,
          .title = pass.title,
          .value = number,
          .u95 = reading.u95.value_or(0.0),
          .n = reading.n,
          .block = pass.block,
          .tiedOnAgain = pass.control,
          .speed_mm_s = pass.speed(),
          .hour = pass.made_s ? std::optional(*pass.made_s / kHour_s) : std::nullopt,
          .cameraDay = pass.cameraDay,
          .lengthU95 = pass.lengthU95};
}

/// Of several clips of one camera that show one planned pass the surest.
std::vector<Seen> seenOnce(const std::vector<ComparedPass>& passes, ReadingId reading,
                           std::optional<double> speed_mm_s) {
  std::vector<Seen> out;
  std::map<std::pair<PlannedPassId, std::string>, std::size_t> known;  // planned pass and camera → its place
  for (const ComparedPass& pass : passes) {
    const auto number = numberIn(pass.readings, reading);
    if (!number || pass.pulledOtherwise(speed_mm_s)) continue;
    Seen seen{&pass, valueIn(pass, *pass.readings.find(reading), *number)};
    if (pass.planned) {
      const auto [twin, fresh] = known.try_emplace({*pass.planned, pass.camera}, out.size());
      if (!fresh) {
        if (seen.value.u95 < out[twin->second].value.u95) out[twin->second] = std::move(seen);
        continue;
      }
    }
    out.push_back(std::move(seen));
  }
  return out;
}

/// How far another camera reads over the first one: on the scale on which rigs are compared.
struct Shift {
  std::size_t inCommon = 0;
  double mean = 0.0;
};
Shift shiftOf(const std::string& other, const std::map<PlannedPassId, double>& first,
              const std::vector<Seen>& all, bool ratio) {
  Shift out;
  for (const Seen& seen : all) {
    if (seen.pass->camera != other || !seen.pass->planned) continue;
    const auto twin = first.find(*seen.pass->planned);
    if (twin == first.end()) continue;
    out.mean += ratio ? std::log(seen.value.value / twin->second) : seen.value.value - twin->second;
    ++out.inCommon;
  }
  out.mean /= static_cast<double>(std::max<std::size_t>(out.inCommon, 1));
  return out;
}

std::vector<Seen> seenByOneCamera(std::vector<Seen> all, ReadingId reading) {
  std::map<std::string, std::size_t> counts;
  for (const Seen& seen : all) ++counts[seen.pass->camera];
  if (counts.size() < 2) return all;
  const std::string first = std::max_element(counts.begin(), counts.end(), [](const auto& a, const auto& b) {
                              return a.second < b.second;
                            })->first;
  const bool ratio = scalingOf(reading) == Scaling::Ratio &&
                     std::all_of(all.begin(), all.end(), [](const Seen& s) { return s.value.value > 0.0; });
  std::map<PlannedPassId, double> firsts;
  for (const Seen& seen : all) {
    if (seen.pass->camera == first && seen.pass->planned) firsts[*seen.pass->planned] = seen.value.value;
  }
  std::map<std::string, Shift> shifts;
  for (const auto& [camera, count] : counts) shifts[camera] = shiftOf(camera, firsts, all, ratio);
  std::vector<Seen> out;
  for (Seen& seen : all) {
    if (seen.pass->camera != first) {
      if (seen.pass->planned && firsts.contains(*seen.pass->planned)) continue;
      const Shift& shift = shifts[seen.pass->camera];
      if (shift.inCommon > 0 && shift.inCommon < kFewestInCommon) continue;
      seen.value.value = ratio ? seen.value.value / std::exp(shift.mean) : seen.value.value - shift.mean;
    }
    out.push_back(std::move(seen));
  }
  return out;
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
  for (const Seen& seen : seenByOneCamera(seenOnce(passes, reading, speed_mm_s), reading))
    of(rigs, seen.pass->rig).push_back(seen.value);
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
