// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/rack.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

#include "core/units/names.h"

namespace fin {
namespace {

constexpr std::array<std::string_view, 4> kFamilies{"soft plastic", "jerkbait", "spoon", "bladed bait"};
constexpr std::array<std::string_view, 4> kBuoyancies{"unknown", "floats", "hangs", "sinks"};
constexpr std::array<std::string_view, 4> kPlaces{"none", "high", "middle", "low"};
constexpr std::array<std::string_view, 4> kFinishes{"unknown", "bright", "plain", "dull"};

template <class Row>
const Row* byId(const std::vector<Row>& rows, decltype(Row::id) id) {
  const auto found = std::find_if(rows.begin(), rows.end(), [id](const Row& r) { return r.id == id; });
  return found == rows.end() ? nullptr : &*found;
}

}  // namespace

const Model* Rack::model(ModelId id) const {
  return byId(models, id);
}
const Rig* Rack::rig(RigId id) const {
  return byId(rigs, id);
}

const Rig* Rack::rigOn(DayId day, RigId id) const {
  for (const Edition& edition : editions) {
    if (edition.was.id == id &&
        std::find(edition.days.begin(), edition.days.end(), day) != edition.days.end())
      return &edition.was;
  }
  return rig(id);
}

std::string Rack::fullName(const Rig& rig) const {
  const Model* of = model(rig.model);
  const std::string name = of == nullptr ? std::string() : of->name;
  if (rig.name.empty()) return name;
  return name.empty() ? rig.name : name + ", " + rig.name;
}

std::string Rack::nameOn(DayId day, RigId id) const {
  const Rig* was = rigOn(day, id);
  const Rig* now = rig(id);
  if (was == nullptr) return {};
  const std::string name = fullName(*was);
  if (now == nullptr || was == now || name != fullName(*now)) return name;
  std::string differs;
  const auto tell = [&differs](const char* what, const std::string& before, const std::string& after) {
    if (before == after) return;
    differs +=
        (differs.empty() ? " (" : ", ") + std::string(what) + " " + (before.empty() ? "not said" : before);
  };
  const auto grams = [](const std::optional<double>& g) {
    return g ? fmt::format("{:g} g", *g) : std::string();
  };
  tell("hook", was->hookSize, now->hookSize);
  tell("hook", grams(was->hook_g), grams(now->hook_g));
  tell("head", grams(was->head_g), grams(now->head_g));
  tell("insert", grams(was->insert_g), grams(now->insert_g));
  tell("trailer", was->trailer, now->trailer);
  tell("skirt", was->skirt, now->skirt);
  tell("line", was->line, now->line);
  tell("snap", was->link, now->link);
  return name + (differs.empty() ? " (before)" : differs + ")");
}

std::int64_t Rack::nextId() const {
  std::int64_t highest = 0;
  const auto see = [&highest](const auto& rows) {
    for (const auto& row : rows) highest = std::max(highest, row.id.value());
  };
  see(models);
  see(rigs);
  see(editions);
  see(pieces);
  see(prices);
  see(claims);
  return highest + 1;
}

std::string_view toString(Family family) {
  return kFamilies[static_cast<std::size_t>(family)];
}
std::string_view toString(Buoyancy buoyancy) {
  return kBuoyancies[static_cast<std::size_t>(buoyancy)];
}
std::string_view toString(InsertPlace place) {
  return kPlaces[static_cast<std::size_t>(place)];
}
std::optional<Family> familyNamed(std::string_view text) {
  return enumNamed<Family>(kFamilies, text);
}
std::optional<Buoyancy> buoyancyNamed(std::string_view text) {
  return enumNamed<Buoyancy>(kBuoyancies, text);
}
std::string_view toString(Finish finish) {
  return kFinishes[static_cast<std::size_t>(finish)];
}
std::optional<Finish> finishNamed(std::string_view text) {
  return enumNamed<Finish>(kFinishes, text);
}
std::optional<InsertPlace> insertPlaceNamed(std::string_view text) {
  return enumNamed<InsertPlace>(kPlaces, text);
}

}  // namespace fin
