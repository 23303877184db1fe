// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/water_day.h"

#include <array>

#include "core/units/names.h"

namespace fin {
namespace {

constexpr std::array<std::string_view, 25> kConditions{"surface_temperature_C",
                                                       "lure_temperature_C",
                                                       "temperature_change_C",
                                                       "salinity_g_kg",
                                                       "clarity_m",
                                                       "wind",
                                                       "wind_from_deg",
                                                       "light",
                                                       "cloud_eighths",
                                                       "current_m_s",
                                                       "current_to_deg",
                                                       "tide",
                                                       "hours_from_high",
                                                       "depth_m",
                                                       "bottom",
                                                       "cover",
                                                       "prey_mm",
                                                       "prey_known_by",
                                                       "prey_at_surface",
                                                       "fish_depth",
                                                       "fish",
                                                       "much_fished",
                                                       "pull",
                                                       "place",
                                                       "hemisphere"};
constexpr std::array<std::string_view, 10> kEvents{"tie",      "fish",   "rest", "caught", "missed",
                                                   "followed", "fouled", "lost", "tier",   "gap"};
constexpr std::array<std::string_view, 4> kTakenOn{"unknown", "pause", "pull", "fall"};
constexpr std::array<std::string_view, 3> kHooked{"unknown", "mouth", "outside"};
constexpr std::array<std::string_view, 13> kSides{"none", "by_speed", "by_prey", "steady", "hunting",
                                                  "loud", "quiet",    "plumb",   "glide",  "bright",
                                                  "dull", "search",   "finesse"};

}  // namespace

std::string_view toString(Condition what) {
  return kConditions[static_cast<std::size_t>(what)];
}
std::optional<Condition> conditionNamed(std::string_view text) {
  return enumNamed<Condition>(kConditions, text);
}
std::string_view toString(RunEventKind kind) {
  return kEvents[static_cast<std::size_t>(kind)];
}
std::optional<RunEventKind> runEventKindNamed(std::string_view text) {
  return enumNamed<RunEventKind>(kEvents, text);
}
std::string_view toString(TakenOn on) {
  return kTakenOn[static_cast<std::size_t>(on)];
}
std::optional<TakenOn> takenOnNamed(std::string_view text) {
  return enumNamed<TakenOn>(kTakenOn, text);
}
std::string_view toString(HookedWhere where) {
  return kHooked[static_cast<std::size_t>(where)];
}
std::optional<HookedWhere> hookedWhereNamed(std::string_view text) {
  return enumNamed<HookedWhere>(kHooked, text);
}
std::string_view toString(SchoolSide side) {
  return kSides[static_cast<std::size_t>(side)];
}
std::optional<SchoolSide> schoolSideNamed(std::string_view text) {
  return enumNamed<SchoolSide>(kSides, text);
}

SchoolSide oppositeOf(SchoolSide side) {
  const int number = static_cast<int>(side);
  if (number == 0) return SchoolSide::None;
  return static_cast<SchoolSide>(number % 2 == 1 ? number + 1 : number - 1);
}

}  // namespace fin
