// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/conditions.h"

#include <fmt/format.h>
#include <algorithm>
#include <set>

namespace fin {
namespace {

constexpr double kUnequalCadence = 1.1;
constexpr double kUnequalWater_C = 1.0;

using DistinctTexts = std::set<std::string>;

const PassConditions* conditionsOf(const std::vector<PassConditions>& conditions, PassId pass) {
  const auto found = std::find_if(conditions.begin(), conditions.end(),
                                  [pass](const PassConditions& c) { return c.pass == pass; });
  return found == conditions.end() ? nullptr : &*found;
}

void addIfUnlike(Unequal::What what, const DistinctTexts& values, std::vector<Unequal>& to) {
  if (values.size() > 1) to.push_back({what, 0.0, 0.0, {values.begin(), values.end()}});
}

/// Only among those that said something.
void addIfSaidUnlike(Unequal::What what, DistinctTexts values, std::vector<Unequal>& to) {
  values.erase("");
  addIfUnlike(what, values, to);
}

/// Twitches at another pace are another test.
std::optional<Unequal> unequalCadence(const std::vector<ComparedPass>& passes) {
  std::optional<Unequal> out;
  for (const ComparedPass& pass : passes) {
    const auto interval = numberIn(
        pass.readings, pass.protocol == Protocol::Hop ? ReadingId::HopInterval : ReadingId::TwitchInterval);
    if (!interval) continue;
    if (!out) out = Unequal{Unequal::What::Cadence, *interval, *interval, {}};
    out->least = std::min(out->least, *interval);
    out->most = std::max(out->most, *interval);
  }
  if (out && out->most <= kUnequalCadence * out->least) out.reset();
  return out;
}

}  // namespace

std::vector<std::string> camerasOf(const std::vector<ComparedPass>& passes,
                                   const std::vector<PassConditions>& conditions) {
  DistinctTexts out;
  for (const ComparedPass& pass : passes) {
    const PassConditions* c = conditionsOf(conditions, pass.id);
    if (c == nullptr) continue;
    out.insert(c->cameraDistance_mm ? fmt::format("{} at {:.1f} m", c->camera, *c->cameraDistance_mm / 1000.0)
                                    : c->camera);
  }
  return {out.begin(), out.end()};
}

std::vector<Unequal> unequalConditions(const std::vector<ComparedPass>& passes,
                                       const std::vector<PassConditions>& conditions, ReadingId reading,
                                       std::optional<double> speed_mm_s) {
  std::vector<ComparedPass> shown;
  DistinctTexts lines;
  DistinctTexts links;
  DistinctTexts strengths, hooks, heads, lights, winds;
  std::vector<double> water_C;
  for (const ComparedPass& pass : passes) {
    if (!numberIn(pass.readings, reading) || pass.pulledOtherwise(speed_mm_s)) continue;
    shown.push_back(pass);
    const PassConditions* c = conditionsOf(conditions, pass.id);
    if (c == nullptr) continue;
    lights.insert(c->light);
    winds.insert(c->wind);
    if (c->water_C) water_C.push_back(*c->water_C);
    if (!c->rigKnown) continue;
    hooks.insert(c->hook);
    heads.insert(c->head_g ? fmt::format("{:g} g", *c->head_g) : "");
    lines.insert(c->line.value_or(""));
    links.insert(c->link.value_or(""));
    strengths.insert(c->lineStrength_kg ? fmt::format("{:g}", *c->lineStrength_kg) : "");
  }
  std::vector<Unequal> out;
  if (const std::vector<double> speeds = speedsOf(shown); speeds.size() > 1)
    out.push_back({Unequal::What::PullSpeed, speeds.front(), speeds.back(), {}});
  if (auto cadence = unequalCadence(shown)) out.push_back(std::move(*cadence));
  if (toString(reading).starts_with("rattle_")) {
    const auto cameras = camerasOf(shown, conditions);
    addIfUnlike(Unequal::What::Camera, {cameras.begin(), cameras.end()}, out);
  }
  addIfUnlike(Unequal::What::Line, lines, out);
  addIfUnlike(Unequal::What::LineStrength, strengths, out);
  addIfUnlike(Unequal::What::Link, links, out);
  addIfSaidUnlike(Unequal::What::Hook, hooks, out);
  addIfSaidUnlike(Unequal::What::Head, heads, out);
  addIfSaidUnlike(Unequal::What::Light, lights, out);
  addIfSaidUnlike(Unequal::What::Wind, winds, out);
  if (!water_C.empty()) {
    const auto [cold, warm] = std::minmax_element(water_C.begin(), water_C.end());
    if (*warm - *cold > kUnequalWater_C) out.push_back({Unequal::What::WaterTemperature, *cold, *warm, {}});
  }
  return out;
}

}  // namespace fin
