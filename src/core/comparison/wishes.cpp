// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/comparison/wishes.h"

#include <algorithm>
#include <map>
#include <set>

#include "core/comparison/class_spread.h"
#include "core/readings/registry.h"

namespace fin {
namespace {

using enum Direction;
using enum ReadingId;

struct Usual {
  ReadingId reading;
  Direction direction;
};

/// Readings that most testers score by, in the order of the protocols, as most of them want them. Targets are
/// nought: upright, and hanging still.
constexpr Usual kUsual[] = {
    {WobbleAngle, More},    {KickAngle, More},    {CycleVariation, Less}, {RollList, Target},
    {SpinTurns, Less},      {FallRate, Less},     {FallKickAngle, More},  {SpringBackRatio, More},
    {StopTime, Less},       {Erraticness, More},  {PauseDrift, Target},   {RisePerTwitch, Less},
    {SideSwitch, More},     {SwingAngle, More},   {StandAngle, More},     {StandTime, More},
    {FlarePeakRatio, More}, {Quiver, More},       {RattleLevel, More},    {OnsetSpeed, Less},
    {BlowoutSpeed, More},   {TimePerMetre, More}, {GlideAngle, Less},     {HopHeight, More},
    {DragTurning, More},
};

Wish wish(ReadingId reading, Direction direction, double weight = 1.0) {
  return {.reading = reading, .direction = direction, .weight = weight};
}

}  // namespace

std::vector<Purpose> usualPurposes() {
  return {
      {"Slow roll", {wish(OnsetSpeed, Less, 2.0), wish(WobbleAngle, More), wish(KickAngle, More)}},
      {"Fast search", {wish(BlowoutSpeed, More, 2.0), wish(CycleVariation, Less), wish(SpinTurns, Less)}},
      {"Deep hop", {wish(FallRate, More, 2.0), wish(FallKickAngle, More)}},
      {"Hover on the pause", {wish(PauseDrift, Target, 2.0), wish(StopTime, Less)}},
      {"Thick cover, straight down", {wish(GlideAngle, More, 2.0), wish(FallRate, More)}},
      {"Over weed, gliding", {wish(GlideAngle, Less, 2.0), wish(FallRate, Less)}},
      {"Shy fish", {wish(WobbleAngle, Less), wish(FallRate, Less), wish(RattleLevel, Less)}},
      {"Wind and stain", {wish(WobbleAngle, More), wish(RattleLevel, More), wish(FlarePeakRatio, More)}},
      {"Cold and slow", {wish(FallRate, Less, 2.0), wish(OnsetSpeed, Less), wish(PauseDrift, Target)}},
      {"Quiet water", {wish(RattleLevel, Less, 2.0), wish(WobbleAngle, Less), wish(FallRate, Less)}},
  };
}

Wish usualWish(ReadingId reading, const std::vector<ComparedPass>& passes) {
  const auto found = std::find_if(std::begin(kUsual), std::end(kUsual),
                                  [&](const Usual& u) { return u.reading == reading; });
  Wish out = wish(reading, found == std::end(kUsual) ? More : found->direction);
  if (isClass(reading)) {
    const ClassSpread spread = compareClasses(passes, reading);
    if (!spread.classes.empty()) out.className = spread.classes.front();
  }
  return out;
}

Judgements usualJudgements() {
  return {.properties = {"Look", "Parts", "Finish", "Ease of walking", "Casting", "Skipping", "Through weed",
                         "Snagging", "Feel in the mouth", "Hook strength", "Wear", "Scent", "Glow"}};
}

std::vector<Wish> proposedWishes(const std::vector<ComparedPass>& passes) {
  std::map<Protocol, std::map<ReadingId, std::set<std::string>>> rigs;
  for (const ComparedPass& pass : passes) {
    for (const Usual& usual : kUsual) {
      if (numberIn(pass.readings, usual.reading)) rigs[pass.protocol][usual.reading].insert(pass.rig);
    }
  }
  std::size_t most = 1;
  const std::map<ReadingId, std::set<std::string>>* best = nullptr;
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

std::optional<double> worthOf(const std::vector<Worth>& worths, ReadingId reading) {
  const auto found =
      std::find_if(worths.begin(), worths.end(), [&](const Worth& w) { return w.reading == reading; });
  return found == worths.end() ? std::nullopt : std::optional(found->difference);
}

}  // namespace fin
