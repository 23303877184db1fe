// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/reading_id.h"

#include "core/units/names.h"

namespace fin {
namespace {

/// In the order of the enumeration.
constexpr std::array<std::string_view, kReadingCount> kReadingWords{
    "travel_speed",
    "wobble_frequency",
    "wobble_angle",
    "tail_sweep",
    "strouhal",
    "roll_frequency",
    "roll_angle",
    "roll_list",
    "spin_turns",
    "twist_per_metre",
    "kick_frequency",
    "kick_angle",
    "cycle_variation",
    "breakouts",
    "running_depth",
    "rise_rate",
    "flash_rate",
    "fall_rate",
    "time_per_metre",
    "settle_distance",
    "glide_ratio",
    "glide_angle",
    "fall_travel",
    "fall_attitude",
    "fall_rock_frequency",
    "fall_rock_angle",
    "fall_kick_frequency",
    "fall_kick_angle",
    "spiral_rate",
    "spiral_radius",
    "tumble_rate",
    "fall_mode",
    "twitch_count",
    "twitch_interval",
    "twitch_interval_variation",
    "advance",
    "spring_back",
    "spring_back_ratio",
    "spring_back_time",
    "stop_time",
    "stop_distance",
    "dart_spread",
    "erraticness",
    "pause_drift",
    "pause_class",
    "pause_attitude",
    "rise_per_twitch",
    "side_switch",
    "swing_angle",
    "flare_moving",
    "flare_rest",
    "flare_peak_ratio",
    "flare_half_life",
    "quiver",
    "stand_angle",
    "stand_time",
    "rattle_level",
    "rattle_rate",
    "rattle_peak_frequency",
    "hop_count",
    "hop_interval",
    "hop_interval_variation",
    "hop_height",
    "fall_back_time",
    "fall_back_rate",
    "hop_kick_frequency",
    "hop_kick_angle",
    "drag_turning",
    "drag_kick",
    "own_scale",
    "course_angle",
    "course_sway",
    "course_bend",
    "surface_share",
    "blade_frequency",
    "beat_ratio",
    "beat_coherence",
    "beat_class",
    "rattle_share",
    "rattle_delay",
    "rattles_per_twitch",
    "lift_kick_frequency",
    "lift_kick_angle",
    "low_share",
    "body_pulse",
    "body_weight",
    "kick_fall_rate",
    "kick_head",
    "onset_speed",
    "blowout_speed",
};
static_assert(!kReadingWords.back().empty());

}  // namespace

std::string_view toString(ReadingId reading) {
  return kReadingWords[static_cast<std::size_t>(reading)];
}
std::optional<ReadingId> readingNamed(std::string_view word) {
  return enumNamed<ReadingId>(kReadingWords, word);
}

}  // namespace fin
