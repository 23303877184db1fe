// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/wishes.h"

#include <algorithm>
#include <map>
#include <set>

namespace fin {
namespace {

using enum Direction;

struct Usual {
  std::string_view reading;
  Direction direction;
};

/// Readings that most testers score by, in the order of the protocols, as most of them want them. Targets are
/// nought: upright, and hanging still.
constexpr Usual kUsual[] = {
    {"wobble_angle", More},    {"kick_angle", More},        {"cycle_variation", Less},
    {"roll_list", Target},     {"spin_turns", Less},        {"fall_rate", Less},
    {"fall_kick_angle", More}, {"spring_back_ratio", More}, {"stop_time", Less},
    {"erraticness", More},     {"pause_drift", Target},     {"rise_per_twitch", Less},
    {"side_switch", More},     {"swing_angle", More},       {"stand_angle", More},
    {"stand_time", More},      {"flare_peak_ratio", More},  {"quiver", More},
    {"rattle_level", More},    {"onset_speed", Less},       {"blowout_speed", More},
    {"time_per_metre", More},  {"glide_angle", Less},       {"hop_height", More},
    {"drag_turning", More},
};

Wish wish(std::string_view reading, Direction direction, double weight = 1.0) {
  return {.reading = std::string(reading), .direction = direction, .weight = weight};
}

}  // namespace

std::vector<Purpose> usualPurposes() {
  return {
      {"Slow roll", {wish("onset_speed", Less, 2.0), wish("wobble_angle", More), wish("kick_angle", More)}},
      {"Fast search",
       {wish("blowout_speed", More, 2.0), wish("cycle_variation", Less), wish("spin_turns", Less)}},
      {"Deep hop", {wish("fall_rate", More, 2.0), wish("fall_kick_angle", More)}},
      {"Hover on the pause", {wish("pause_drift", Target, 2.0), wish("stop_time", Less)}},
      {"Thick cover, straight down", {wish("glide_angle", More, 2.0), wish("fall_rate", More)}},
      {"Over weed, gliding", {wish("glide_angle", Less, 2.0), wish("fall_rate", Less)}},
      {"Shy fish", {wish("wobble_angle", Less), wish("fall_rate", Less), wish("rattle_level", Less)}},
      {"Wind and stain",
       {wish("wobble_angle", More), wish("rattle_level", More), wish("flare_peak_ratio", More)}},
      {"Cold and slow",
       {wish("fall_rate", Less, 2.0), wish("onset_speed", Less), wish("pause_drift", Target)}},
      {"Quiet water", {wish("rattle_level", Less, 2.0), wish("wobble_angle", Less), wish("fall_rate", Less)}},
  };
}

Wish usualWish(std::string_view reading) {
  const auto found = std::find_if(std::begin(kUsual), std::end(kUsual),
                                  [&](const Usual& u) { return u.reading == reading; });
  return wish(reading, found == std::end(kUsual) ? More : found->direction);
}

std::vector<Wish> proposedWishes(const std::vector<ComparedPass>& passes) {
  std::map<Protocol, std::map<std::string_view, std::set<std::string>>> rigs;
  for (const ComparedPass& pass : passes) {
    for (const Usual& usual : kUsual) {
      if (numberIn(pass.readings, usual.reading)) rigs[pass.protocol][usual.reading].insert(pass.rig);
    }
  }
  std::size_t most = 1;
  const std::map<std::string_view, std::set<std::string>>* best = nullptr;
  for (const auto& [protocol, readings] : rigs) {
    for (const auto& [reading, having] : readings) {
      if (having.size() <= most) continue;
      most = having.size();
      best = &readings;
    }
  }
  std::vector<Wish> out;
  for (const Usual& usual : kUsual) {
    if (best != nullptr && best->contains(usual.reading) && best->at(usual.reading).size() == most)
      out.push_back(wish(usual.reading, usual.direction));
  }
  return out;
}

std::string_view toString(Direction direction) {
  switch (direction) {
    case More:
      return "more";
    case Less:
      return "less";
    case Target:
      return "target";
  }
  return "more";
}

std::optional<Direction> directionNamed(std::string_view text) {
  for (const Direction direction : {More, Less, Target}) {
    if (toString(direction) == text) return direction;
  }
  return std::nullopt;
}

}  // namespace fin
