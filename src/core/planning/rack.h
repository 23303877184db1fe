// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "core/planning/holdings.h"
#include "core/units/ids.h"

namespace fin {

enum class Family { SoftPlastic, Jerkbait, Spoon, BladedBait };
enum class Buoyancy { Unknown, Floats, Hangs, Sinks };
enum class InsertPlace { None, High, Middle, Low };
enum class Finish { Unknown, Bright, Plain, Dull };

/// What is told of how a rig runs, and by whom; it was not measured.
struct HeardOf {
  std::optional<double> slowest_mm_s;  ///< through water
  std::optional<double> fastest_mm_s;
  std::optional<double> shallowest_mm;
  std::optional<double> deepest_mm;
  std::string from;

  friend bool operator==(const HeardOf&, const HeardOf&) = default;
};

/// One model as it is sold. Absent numbers are unknown.
struct Model {
  ModelId id;
  std::string name;
  Family family = Family::SoftPlastic;
  std::optional<double> length_mm;
  std::optional<double> weight_g;
  std::optional<double> price;
  std::string currency;
  std::string colours;
  std::string material;
  Buoyancy buoyancy = Buoyancy::Unknown;
  std::string hooks;
  std::string hardware;
  std::string claims;  ///< what its maker says of it
  std::string note;
  std::string photo;  ///< a file's path
  bool graded = true;
  std::string whyNotGraded;  ///< the interest a tester has in it
  Finish finish = Finish::Unknown;

  friend bool operator==(const Model&, const Model&) = default;
};

/// One way to rig a model: another hook is another rig, not another model.
struct Rig {
  RigId id;
  ModelId model;
  std::string name;
  std::optional<double> hook_g;
  std::string hookSize;
  std::optional<double> head_g;
  std::optional<double> insert_g;
  InsertPlace insertPlace = InsertPlace::None;
  std::string trailer;
  std::string skirt;
  std::string line;
  std::optional<double> lineStrength_kg;
  std::string tiePoint;
  std::string link;  ///< swivel or snap
  HeardOf heard = {};

  friend bool operator==(const Rig&, const Rig&) = default;
};

/// How a rig was tied before it was changed, and the days that it was so.
struct Edition {
  EditionId id;
  Rig was;
  std::vector<DayId> days;

  friend bool operator==(const Edition&, const Edition&) = default;
};

/// What a log holds of its lures, over all days.
struct Rack {
  std::vector<Model> models;
  std::vector<Rig> rigs;  ///< as they are now
  std::vector<Edition> editions;
  std::vector<Piece> pieces;
  std::vector<Price> prices;
  std::vector<Claim> claims;

  [[nodiscard]] const Model* model(ModelId id) const;
  [[nodiscard]] const Rig* rig(RigId id) const;
  /// As it was tied on that day.
  [[nodiscard]] const Rig* rigOn(DayId day, RigId id) const;
  /// As fullName(), and where it was tied otherwise that day and is called the same, by what it differs:
  /// "Vinto 11, 7 g head (hook 4)".
  [[nodiscard]] std::string nameOn(DayId day, RigId id) const;
  /// "Vinto 11, 7 g head"; the model's name alone where the rig has none.
  [[nodiscard]] std::string fullName(const Rig& rig) const;
  /// One more than the highest in use, over all that hangs here.
  [[nodiscard]] std::int64_t nextId() const;

  friend bool operator==(const Rack&, const Rack&) = default;
};

std::string_view toString(Family family);
std::string_view toString(Buoyancy buoyancy);
std::string_view toString(InsertPlace place);
std::string_view toString(Finish finish);
std::optional<Finish> finishNamed(std::string_view text);
std::optional<Family> familyNamed(std::string_view text);
std::optional<Buoyancy> buoyancyNamed(std::string_view text);
std::optional<InsertPlace> insertPlaceNamed(std::string_view text);

}  // namespace fin
