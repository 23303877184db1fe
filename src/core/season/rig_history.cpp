// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/rig_history.h"

#include <algorithm>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>
#include <map>
#include <set>

#include "core/readings/registry.h"
#include "core/readings/scaling.h"

namespace fin {
namespace {

constexpr double kOtherSalinity_g_kg = 1.0;
constexpr double kOtherTemperature_C = 3.0;
constexpr double kOtherBeat = 0.15;

std::vector<ComparedPass> ofDay(const std::vector<ComparedPass>& passes, DayId day) {
  std::vector<ComparedPass> out;
  std::copy_if(passes.begin(), passes.end(), std::back_inserter(out),
               [day](const ComparedPass& p) { return p.day == day; });
  return out;
}

/// The rig that came again all day on most days; empty where none did.
std::string controlOf(const std::vector<ComparedPass>& passes) {
  std::map<std::string, std::set<DayId>> days;
  for (const ComparedPass& pass : passes) {
    if (pass.control) days[pass.rig].insert(pass.day);
  }
  const auto most = std::max_element(days.begin(), days.end(), [](const auto& a, const auto& b) {
    return a.second.size() < b.second.size();
  });
  return most == days.end() ? std::string() : most->first;
}

/// By rig, its values of one day.
std::vector<double> valuesIn(const std::vector<ComparedRig>& rigs, const std::string& rig) {
  std::vector<double> out;
  for (const ComparedRig& one : rigs) {
    if (one.rig != rig) continue;
    for (const ComparedValue& v : one.values) out.push_back(v.value);
  }
  return out;
}

bool isHeard(ReadingId reading) {
  const auto sounds = readingsOf(Protocol::Sound);
  const ReadingSpec* spec = specOf(reading);
  return (spec != nullptr && spec->askedWith == AskedWith::Sound) ||
         std::any_of(sounds.begin(), sounds.end(),
                     [reading](const ReadingSpec& s) { return s.id == reading; });
}

/// From one twitch or hop to the next, s; none where nothing was twitched.
std::optional<double> beatOf(const ComparedPass& pass) {
  const auto twitch = numberIn(pass.readings, ReadingId::TwitchInterval);
  return twitch ? twitch : numberIn(pass.readings, ReadingId::HopInterval);
}

/// What was twitched or hopped at another beat than most passes of a rig goes; how many of those had the
/// reading.
std::size_t dropOtherBeats(std::vector<ComparedPass>& passes, const std::string& rig, ReadingId reading) {
  std::vector<double> beats;
  for (const ComparedPass& pass : passes) {
    const auto beat = beatOf(pass);
    if (beat && pass.rig == rig && numberIn(pass.readings, reading)) beats.push_back(*beat);
  }
  if (beats.empty()) return 0;
  const auto middle = beats.begin() + static_cast<std::ptrdiff_t>(beats.size() / 2);
  std::nth_element(beats.begin(), middle, beats.end());
  return std::erase_if(passes, [&](const ComparedPass& pass) {
    const auto beat = beatOf(pass);
    return pass.rig == rig && beat && numberIn(pass.readings, reading) &&
           std::abs(*beat / *middle - 1.0) > kOtherBeat;
  });
}

ReadRange rangeOf(const std::vector<double>& values, double ownU95) {
  const double mean = meanOf(values);
  double half = ownU95;
  if (const auto scatter = pooledScatter({values})) {
    const auto n = static_cast<double>(values.size());
    const double t = boost::math::quantile(boost::math::students_t(n - 1.0), 0.975);
    half = std::hypot(t * scatter->sd / std::sqrt(n), ownU95);
  }
  return {mean - half, mean + half};
}

/// Cameras, their gain, distance and tank are in a loudness: without the control on both days nothing is
/// said of the lure.
void refuseUnbridged(History& history) {
  const std::size_t before = history.pairs.size();
  std::erase_if(history.pairs, [](const History::Pair& pair) { return !pair.change.bridged; });
  if (history.pairs.size() < before) history.test.reset();
}

/// One rig and reading; no days where nobody read it.
RigHistory historyIn(std::vector<ComparedPass> passes, const std::vector<DayHead>& days,
                     const std::string& rig, ReadingId reading) {
  RigHistory out{.rig = rig, .reading = reading, .heard = isHeard(reading)};
  out.otherBeat = dropOtherBeats(passes, rig, reading);
  std::vector<ComparedPass> own;
  std::copy_if(passes.begin(), passes.end(), std::back_inserter(own),
               [&](const ComparedPass& p) { return p.rig == rig; });
  const std::string control = controlOf(passes);
  const auto speed = commonSpeed(own, reading);
  double leastU95 = 0.0;
  for (const DayHead& day : days) {
    const std::vector<ComparedPass> those = ofDay(passes, day.id);
    const auto rigs = valuesOf(those, reading, speed);
    RigDay one{.day = day.id, .date = day.date, .values = {valuesIn(rigs, rig), {}}};
    for (const ComparedPass& pass : those) {
      if (pass.rig == rig && numberIn(pass.readings, reading) && pass.pulledOtherwise(speed)) ++out.setAside;
    }
    if (one.values.rig.empty()) continue;
    if (control != rig) one.values.control = valuesIn(rigs, control);
    leastU95 = 1e300;
    for (const ComparedRig& r : rigs) {
      for (const ComparedValue& v : r.values) {
        if (r.rig == rig) leastU95 = std::min(leastU95, v.u95);
      }
    }
    out.days.push_back(std::move(one));
  }
  std::vector<BridgedDay> values;
  for (const RigDay& day : out.days) values.push_back(day.values);
  out.history = historyOf(values, scalingOf(reading));
  if (out.heard) refuseUnbridged(out.history);
  if (!values.empty()) out.latest = rangeOf(values.back().rig, leastU95);
  return out;
}

}  // namespace

std::vector<RigHistory> historiesOf(const std::vector<ComparedPass>& passes, const std::vector<DayHead>& days,
                                    const std::vector<std::string>& rigs) {
  std::vector<RigHistory> out;
  for (const std::string& rig : rigs) {
    std::vector<ComparedPass> own;
    std::copy_if(passes.begin(), passes.end(), std::back_inserter(own),
                 [&](const ComparedPass& p) { return p.rig == rig; });
    for (const ReadingId reading : readingsAmong(own)) {
      if (reading == ReadingId::TravelSpeed) continue;  // it is what was set
      RigHistory one = historyIn(passes, days, rig, reading);
      if (!one.days.empty()) out.push_back(std::move(one));
    }
  }
  return out;
}

WaterDiffers waterDiffers(const std::vector<WaterPlan>& waters) {
  WaterDiffers out;
  if (waters.empty()) return out;
  const auto range = [&waters](double WaterPlan::*of) {
    const auto [least, most] = std::minmax_element(
        waters.begin(), waters.end(), [of](const WaterPlan& a, const WaterPlan& b) { return a.*of < b.*of; });
    return std::pair((*least).*of, (*most).*of);
  };
  std::tie(out.leastSalinity_g_kg, out.mostSalinity_g_kg) = range(&WaterPlan::salinity_g_kg);
  std::tie(out.least_C, out.most_C) = range(&WaterPlan::temperature_C);
  out.salinity = out.mostSalinity_g_kg - out.leastSalinity_g_kg > kOtherSalinity_g_kg;
  out.temperature = out.most_C - out.least_C > kOtherTemperature_C;
  return out;
}

}  // namespace fin
