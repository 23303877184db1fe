// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/conditions.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "core/units/date.h"

namespace fin {
namespace {

using Words = std::vector<std::string_view>;

const Words kWindWords{"mirror",     "scales",    "glassy ripples", "first crests",
                       "many white", "all white", "spray"};
constexpr std::array kWindBelow_m_s{0.3, 1.6, 3.4, 5.5, 8.0, 10.8};
constexpr double kSpray_m_s = 13.0;

const std::vector<ConditionSpec>& specs() {
  static const Words yesNo{"yes", "no"};
  static const std::vector<ConditionSpec> all{
      {Condition::SurfaceTemperature, "water", "°C", -2.0, 40.0, {}, true},
      {Condition::LureTemperature, "water at the lure", "°C", -2.0, 40.0, {}},
      {Condition::TemperatureChange, "change", "°C", -20.0, 20.0, {}},
      {Condition::Salinity, "salt", "g/kg", 0.0, 42.0, {}},
      {Condition::Clarity, "clarity", "m", 0.0, 40.0, {}, true},
      {Condition::Wind, "wind", "m/s", 0.0, 40.0, kWindWords, true},
      {Condition::WindDirection, "wind from", "°", 0.0, 360.0, {}},
      {Condition::Light, "light", "", 0.0, 0.0, {"dark", "dusk", "dull", "bright"}, true},
      {Condition::Cloud, "cloud", "eighths", 0.0, 8.0, {}},
      {Condition::Current, "current", "m/s", 0.0, 5.0, {}, true},
      {Condition::CurrentDirection, "current to", "°", 0.0, 360.0, {}},
      {Condition::Tide, "tide", "", 0.0, 0.0, {"rising", "falling", "slack", "none"}},
      {Condition::HoursFromHigh, "hours from high", "h", -12.0, 12.0, {}},
      {Condition::Depth, "depth", "m", 0.0, 300.0, {}, true},
      {Condition::Bottom, "bottom", "", 0.0, 0.0, {"mud", "sand", "gravel", "stone", "shell", "weed"}},
      {Condition::Cover, "cover", "", 0.0, 0.0, {"open", "weed", "wood", "piles", "wall", "edge"}},
      {Condition::PreyLength, "prey", "mm", 1.0, 1000.0, {}, true},
      {Condition::PreyKnownBy, "prey known by", "", 0.0, 0.0, {"seen", "coughed up", "guessed"}},
      {Condition::PreyAtSurface, "prey at the surface", "", 0.0, 0.0, yesNo},
      {Condition::FishDepth, "fish depth", "", 0.0, 0.0, {"surface", "middle", "low"}},
      {Condition::Fish, "fish", "", 0.0, 0.0, {"unseen", "seen", "follow", "miss"}},
      {Condition::MuchFished, "much fished", "", 0.0, 0.0, yesNo},
      {Condition::Pull, "pull", "", 0.0, 0.0, {"with the current", "against the current", "across it"}},
      {Condition::Place, "place", "", 0.0, 0.0, {"known", "strange"}},
      {Condition::Hemisphere, "hemisphere", "", 0.0, 0.0, {"north", "south"}}};
  return all;
}

}  // namespace

std::span<const ConditionSpec> conditionSpecs() {
  return specs();
}
const ConditionSpec& specOf(Condition what) {
  return specs()[static_cast<std::size_t>(what)];
}

Result<void> validate(const ConditionLine& line) {
  const ConditionSpec& spec = specOf(line.what);
  if (line.unknown()) return {};
  if (line.number) {
    if (!spec.takesNumber())
      return failure(ErrorCode::BadRequest, fmt::format("{} is told in words", spec.name));
    if (!std::isfinite(*line.number) || *line.number < spec.least || *line.number > spec.most)
      return failure(ErrorCode::BadRequest, fmt::format("{} lies between {} and {} {}", spec.name, spec.least,
                                                        spec.most, spec.unit));
    return {};
  }
  if (std::find(spec.words.begin(), spec.words.end(), line.word) == spec.words.end())
    return failure(ErrorCode::BadRequest, fmt::format("{} is never \"{}\"", spec.name, line.word));
  return {};
}

std::string_view windWord(double m_s) {
  const auto over = std::upper_bound(kWindBelow_m_s.begin(), kWindBelow_m_s.end(), m_s);
  return kWindWords[static_cast<std::size_t>(over - kWindBelow_m_s.begin())];
}

std::optional<double> windOf(std::string_view word) {
  const auto found = std::find(kWindWords.begin(), kWindWords.end(), word);
  if (found == kWindWords.end()) return std::nullopt;
  const auto i = static_cast<std::size_t>(found - kWindWords.begin());
  if (i == kWindBelow_m_s.size()) return kSpray_m_s;
  return 0.5 * ((i == 0 ? 0.0 : kWindBelow_m_s[i - 1]) + kWindBelow_m_s[i]);
}

WaterNow::WaterNow(const std::vector<ConditionLine>& lines, double at_s) {
  for (const ConditionLine& line : lines) {
    if (line.at_s > at_s) continue;
    const auto known = std::find_if(lines_.begin(), lines_.end(),
                                    [&line](const ConditionLine& l) { return l.what == line.what; });
    if (known == lines_.end()) {
      lines_.push_back(line);
    } else if (line.at_s >= known->at_s) {
      *known = line;
    }
  }
}

const ConditionLine* WaterNow::line(Condition what) const& {
  const auto found =
      std::find_if(lines_.begin(), lines_.end(), [what](const ConditionLine& l) { return l.what == what; });
  return found == lines_.end() ? nullptr : &*found;
}

std::optional<double> WaterNow::number(Condition what) const {
  const ConditionLine* noted = line(what);
  if (noted == nullptr) return std::nullopt;
  if (noted->number || what != Condition::Wind) return noted->number;
  return windOf(noted->word);
}

std::optional<std::string_view> WaterNow::word(Condition what) const& {
  const ConditionLine* noted = line(what);
  if (noted == nullptr) return std::nullopt;
  if (noted->word.empty() && noted->number && what == Condition::Wind) return windWord(*noted->number);
  return noted->word.empty() ? std::nullopt : std::optional<std::string_view>(noted->word);
}

std::vector<std::string> contradictionsIn(const WaterNow& water) {
  std::vector<std::string> out;
  const auto clarity = water.number(Condition::Clarity), depth = water.number(Condition::Depth);
  if (clarity && depth && *clarity > *depth)
    out.push_back(
        fmt::format("The disc is seen down to {:g} m, and the water is {:g} m deep.", *clarity, *depth));
  const auto tide = water.word(Condition::Tide);
  if (tide && *tide == "none" && water.number(Condition::HoursFromHigh))
    out.emplace_back("There is no tide, and yet hours from high water are noted.");
  const auto pull = water.word(Condition::Pull);
  const auto current = water.number(Condition::Current);
  if (pull && current && *current == 0.0)
    out.push_back(fmt::format("It is pulled {}, and there is no current.", *pull));
  if (const auto cloud = water.number(Condition::Cloud);
      cloud && *cloud >= 7.0 && water.word(Condition::Light) == "bright")
    out.emplace_back("The sky is all cloud, and the light is bright.");
  const auto seen = water.word(Condition::PreyAtSurface);
  if (seen && *seen == "yes" && water.word(Condition::PreyKnownBy) == "guessed")
    out.emplace_back("Prey is at the surface, and its length is only guessed.");
  return out;
}

std::optional<std::string_view> seasonOf(const std::string& date, bool southern) {
  if (!dayNumberOf(date)) return std::nullopt;
  constexpr std::array<std::string_view, 4> kSeasons{"winter", "spring", "summer", "autumn"};
  const int month = std::stoi(date.substr(5, 2));
  const int north = month % 12 / 3;
  return kSeasons[static_cast<std::size_t>((north + (southern ? 2 : 0)) % 4)];
}

}  // namespace fin
