// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/rack.h"

#include <algorithm>
#include <array>

#include "core/units/names.h"

namespace fin {
namespace {

constexpr std::array<std::string_view, 4> kFamilies{"soft plastic", "jerkbait", "spoon", "bladed bait"};
constexpr std::array<std::string_view, 4> kBuoyancies{"unknown", "floats", "hangs", "sinks"};
constexpr std::array<std::string_view, 4> kPlaces{"none", "high", "middle", "low"};

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

std::string Rack::fullName(const Rig& rig) const {
  const Model* of = model(rig.model);
  const std::string name = of == nullptr ? std::string() : of->name;
  if (rig.name.empty()) return name;
  return name.empty() ? rig.name : name + ", " + rig.name;
}

std::int64_t Rack::nextId() const {
  std::int64_t highest = 0;
  for (const Model& m : models) highest = std::max(highest, m.id.value());
  for (const Rig& r : rigs) highest = std::max(highest, r.id.value());
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
std::optional<InsertPlace> insertPlaceNamed(std::string_view text) {
  return enumNamed<InsertPlace>(kPlaces, text);
}

}  // namespace fin
