// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/planning/filming_check.h"
#include "core/planning/foretold.h"
#include "core/planning/pacing.h"
#include "core/planning/pass_sheet.h"
#include "core/planning/rack.h"
#include "core/planning/water_day.h"
#include "core/water/water.h"

namespace fin {

/// The water as entered; whether it can be meant is for whoever computes with it.
struct WaterPlan {
  std::string name;
  double length_mm = 6000.0;
  double width_mm = 800.0;
  double depth_mm = 900.0;
  double temperature_C = 15.0;
  double salinity_g_kg = 0.0;
  double wantedSalinity_g_kg = 0.0;
  double bag_kg = 25.0;
  double emptyTank_kg = 0.0;
  double clarity_m = 5.0;  ///< how far one sees

  [[nodiscard]] CubicMetres volume() const { return CubicMetres(length_mm * width_mm * depth_mm * 1e-9); }
  [[nodiscard]] WaterState state() const { return {GramsPerKilogram(salinity_g_kg), Celsius(temperature_C)}; }

  friend bool operator==(const WaterPlan&, const WaterPlan&) = default;
};

/// One thing that must not differ between passes, and where it did all the same.
struct HeldEqual {
  std::string what;
  std::string value;
  std::string exception;

  friend bool operator==(const HeldEqual&, const HeldEqual&) = default;
};

/// The list a new day begins with.
std::vector<HeldEqual> usualHeldEqual();

enum class DayKind { Test, Water };

/// All that is planned for one day, and what the log owns beside its days (rack, waters,
/// rules). A value: undo
/// swaps whole ones.
struct DayPlan {
  DayId id = 1;
  DayKind kind = DayKind::Test;
  std::string date;   ///< yyyy-mm-dd; empty where it was not said
  WaterId waterBody;  ///< 0 where it was not said
  std::string people;
  std::vector<WaterBody> waters;
  std::vector<TieRule> rules;  ///< the log's own; none where they are as usual
  std::string name;
  std::vector<std::string> photos;     ///< files
  std::vector<std::string> questions;  ///< keys
  Rack rack;
  WaterPlan water;
  FilmingPlan filming;
  std::vector<HeldEqual> heldEqual = usualHeldEqual();
  SheetOptions options;
  std::vector<PlannedPass> sheet;
  Cadence cadence;
  double linePerTurn_mm = 700.0;
  std::string watchedFolder;
  Foretold foretold;
  WaterDayPlan waterDay;
  std::vector<ConditionLine> conditions;  ///< as they were noted
  std::vector<RunEvent> events;           ///< of a day on the water, as they came

  friend bool operator==(const DayPlan&, const DayPlan&) = default;
};

std::string_view toString(DayKind kind);
std::optional<DayKind> dayKindNamed(std::string_view text);
/// What is told of a day in a list.
struct DayHead {
  DayId id;
  DayKind kind = DayKind::Test;
  std::string name;
  std::string date;  ///< as dateOf()
  WaterId waterBody;
  std::size_t clips = 0;
  std::size_t planned = 0;  ///< passes on its sheet
  std::size_t open = 0;     ///< of them still to be made
  std::size_t fish = 0;     ///< caught, of a day on the water
};

/// As it was said, else that of the first pass that was made (UTC); empty where none was.
std::string dateOf(const DayPlan& plan);

/// Of these days, which stand by date, those from which on a rig is tied otherwise than before.
std::vector<DayId> changedFrom(const std::vector<DayHead>& days, const Rack& rack);

/// The water as it was when the passes were made: salt and temperature as they were noted last beside one
/// that was made, else as planned.
WaterPlan waterAsFilmed(const DayPlan& plan);

/// The shortest lure of the rack whose length is known; none where no length is.
std::optional<double> shortestLure_mm(const Rack& rack);
/// What is to be filmed, with what other pages say: the depth of the water, and the shortest lure of the
/// rack.
FilmingPlan filmingOf(const DayPlan& plan);

/// What the questions ask for, as tasks of the sheet; `speeds` go to those that want several. With the
/// cameras running together a protocol is made once for all its views.
std::vector<SheetTask> tasksFor(const std::vector<std::string>& questions,
                                const std::vector<double>& speeds_mm_s, bool camerasTogether);

/// The pass that a clip of this age was most likely made for: the one that was being made when its file was
/// begun. `clip_s` and the finish times are seconds since 1970; a clip from before the day, or from a clock
/// set back, goes to the pass that is next.
std::optional<std::size_t> passForClip(const std::vector<PlannedPass>& sheet, double clip_s);

}  // namespace fin
