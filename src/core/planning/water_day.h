// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/units/ids.h"

namespace fin {

/// What can be noted of a day on the water.
enum class Condition {
  SurfaceTemperature,  ///< °C
  LureTemperature,     ///< °C, where the lure runs
  TemperatureChange,   ///< °C over three days
  Salinity,            ///< g/kg
  Clarity,             ///< m at which a white disc of 0.3 m vanishes
  Wind,                ///< m/s, or a word
  WindDirection,       ///< where it comes from, degrees
  Light,
  Cloud,             ///< eighths
  Current,           ///< m/s
  CurrentDirection,  ///< where it goes to, degrees
  Tide,
  HoursFromHigh,
  Depth,  ///< m
  Bottom,
  Cover,
  PreyLength,  ///< mm
  PreyKnownBy,
  PreyAtSurface,
  FishDepth,
  Fish,
  MuchFished,
  Pull,   ///< with the current or against it
  Place,  ///< whether it is known
  Hemisphere
};

/// One thing noted at one time; a change is a new line. Neither number nor word: asked, and unknown.
struct ConditionLine {
  double at_s = 0.0;  ///< wall clock, seconds since 1970
  Condition what = Condition::SurfaceTemperature;
  std::optional<double> number;
  std::string word;

  [[nodiscard]] bool unknown() const { return !number && word.empty(); }
  friend bool operator==(const ConditionLine&, const ConditionLine&) = default;
};

/// What happens while fishing.
enum class RunEventKind { Tie, Fish, Rest, Caught, Missed, Followed, Fouled, Lost, Tier, Gap };
enum class TakenOn { Unknown, Pause, Pull, Fall };
enum class HookedWhere { Unknown, Mouth, Outside };

/// One event of a day on the water. `Fish` puts a rod to work, `Rest` takes it out of the water; `Tie` ties a
/// rig on; `Lost` is the lure.
struct RunEvent {
  EventId id;
  double at_s = 0.0;  ///< wall clock, seconds since 1970
  RunEventKind kind = RunEventKind::Tie;
  int rod = 1;
  RigId rig;  ///< of Tie; of a catch the one that was on
  PieceId piece;
  std::optional<double> speed_mm_s;  ///< at which it is pulled, of Tie
  int block = 0;                     ///< of place and hour, where rods are swapped by plan; 0 for none
  std::optional<double> length_mm;   ///< of a fish
  TakenOn on = TakenOn::Unknown;
  HookedWhere hooked = HookedWhere::Unknown;
  std::optional<bool> released;
  double until_s = 0.0;  ///< of Gap: its end
  bool fished = false;   ///< of Gap: whether the rods were at work
  int tier = 0;          ///< of Tier: the one that is fished from now on, from 1
  std::string note;

  friend bool operator==(const RunEvent&, const RunEvent&) = default;
};

/// The ways of choosing that anglers quarrel about; each is one side of a switch.
enum class SchoolSide {
  None,
  BySpeed,
  ByPrey,
  Steady,
  Hunting,
  Loud,
  Quiet,
  Plumb,
  Glide,
  Bright,
  Dull,
  Search,
  Finesse
};

/// How a day on the water is meant to be fished.
struct WaterDayPlan {
  std::vector<SchoolSide>
      schools;  ///< sides that were chosen; of a switch that is not here: as the water says
  int rods = 2;
  double patience_min = 30.0;  ///< rod-minutes without a touch before a step down
  double blockMinutes = 30.0;
  unsigned seed = 1;  ///< of the order in which rods are swapped

  friend bool operator==(const WaterDayPlan&, const WaterDayPlan&) = default;
};

/// An anglers' opinion: where the water is so, lures that read so are wanted. Both are in the words of
/// season/tie_rules.h.
struct TieRule {
  RuleId id;
  std::string name;  ///< "1"
  std::string when;
  std::string wants;
  std::string because;
  bool on = true;

  friend bool operator==(const TieRule&, const TieRule&) = default;
};

std::string_view toString(Condition what);
std::optional<Condition> conditionNamed(std::string_view text);
std::string_view toString(RunEventKind kind);
std::optional<RunEventKind> runEventKindNamed(std::string_view text);
std::string_view toString(TakenOn on);
std::optional<TakenOn> takenOnNamed(std::string_view text);
std::string_view toString(HookedWhere where);
std::optional<HookedWhere> hookedWhereNamed(std::string_view text);
std::string_view toString(SchoolSide side);
std::optional<SchoolSide> schoolSideNamed(std::string_view text);

/// The other side of the switch; None of None.
SchoolSide oppositeOf(SchoolSide side);

}  // namespace fin
