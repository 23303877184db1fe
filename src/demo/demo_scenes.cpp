// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/demo_scenes.h"

#include <algorithm>

#include "demo/demo_lures.h"

namespace fin {
namespace {

constexpr double kPulled_px = 2900.0;  ///< focal lengths: a pull and a twitch fill the picture
constexpr double kFallen_px = 2150.0;
constexpr double kLookAround_mm = 295.0;  ///< to either side of the middle, with a pull
constexpr double kLongestPull_s = 2.6;
constexpr int kQuality = 28;  ///< small enough to be shipped

/// What touches the floor stands on it.
double floorOf(const Motion& motion) {
  constexpr double kBodyHalf_mm = 10.0;
  if (std::holds_alternative<Sink>(motion)) return -252.0;
  if (const auto* hops = std::get_if<Hops>(&motion)) return hops->bottom_mm - 2.0 * kBodyHalf_mm;
  if (const auto* stand = std::get_if<Stand>(&motion)) return stand->bottom_mm - 0.4 * kBodyHalf_mm;
  return -210.0;
}

}  // namespace

/// In the trough: its tiles, its light, and from the side its surface and its floor.
RehearsalScene scene(LureBuild lure, Motion motion, View view, double seconds, unsigned seed) {
  RehearsalScene out;
  out.lure = std::move(lure);
  out.motion = motion;
  out.camera.view = view;
  const bool falls = std::holds_alternative<Sink>(motion);
  out.camera.focal_px = falls ? kFallen_px : kPulled_px;
  out.basin = BasinLook{};
  if (view == View::Side) {
    out.basin->surface_mm = falls ? 226.0 : 164.0;
    out.basin->floor_mm = floorOf(motion);
  }
  out.length = Seconds(seconds);
  out.noise_grey = 1.2;
  out.specks = 24;
  out.quality = kQuality;
  out.seed = seed;
  return out;
}

/// From one side of the picture to the other, or as far as it comes.
RehearsalScene pulled(LureBuild lure, StraightPull pull, View view, unsigned seed) {
  pull.start_mm = -kLookAround_mm;
  return scene(std::move(lure), pull, view, std::min(2.0 * kLookAround_mm / pull.speed_mm_s, kLongestPull_s),
               seed);
}

/// A pull as it was, once more: a lure is never pulled twice in quite the same way.
DemoPass again(const char* file, const char* title, RigId rig, LureBuild lure, StraightPull pull, double Hz,
               double wobble_deg, unsigned seed) {
  pull.wobble_Hz = Hz;
  pull.wobble_deg = wobble_deg;
  pull.seed = seed;
  return {file, title, rig, pulled(std::move(lure), pull, View::Top, seed + 40), false, false};
}

/// Pulled and stopped, seen from the side: does the skirt stay spread, and how fast does it settle?
DemoPass skirted(const char* file, const char* title, RigId rig, LureBuild lure, SkirtStop stop,
                 unsigned seed) {
  return {file, title, rig, scene(withSkirtOpen(std::move(lure)), stop, View::Side, 4.6, seed), true, false};
}

/// Twitched at true speed with the sound on; every twitch knocks twice.
DemoPass heard(const char* file, const char* title, RigId rig, LureBuild lure, double gain, double tone_Hz,
               unsigned seed) {
  const Jerks jerks{
      .count = 4, .first_s = 1.3, .every_s = 0.8, .start_mm = -220.0, .advance_mm = 110.0, .seed = seed};
  RehearsalScene out = scene(std::move(lure), jerks, View::Side, 4.8, seed);
  out.rate = Hertz(30.0);
  out.sound = RehearsalSound{.gain = gain, .tone_Hz = tone_Hz};
  for (int i = 0; i < jerks.count; ++i) {
    const double start_s = jerks.first_s + i * jerks.every_s;
    out.sound->knocks_s.insert(out.sound->knocks_s.end(), {start_s + 0.06, start_s + 0.26});
  }
  return {file, title, rig, std::move(out), false, false, QuietStretch{Seconds(0.05), Seconds(1.1)}};
}

/// Where a sinking lure is worked along the bottom.
DemoPass hopped(const char* file, const char* title, RigId rig, LureBuild lure, Hops hops, unsigned seed) {
  return {file, title, rig, scene(std::move(lure), hops, View::Side, 4.6, seed), false, false};
}

/// Twitched and left alone: in the pause it drifts up by so much.
Jerks skrellTwitches(double drift_mm_s, unsigned seed) {
  return {.first_s = 0.35,
          .every_s = 1.05,
          .uneven_s = 0.03,
          .start_mm = -230.0,
          .height_mm = 10.0,
          .advance_mm = 118.0,
          .advanceSpread_mm = 4.0,
          .back_mm = 31.0,
          .drift_mm_s = drift_mm_s,
          .attitude_deg = 4.0,
          .seed = seed};
}

/// A fall on the 7 g head, as on the first day but for its speed and its kick.
Sink vintoFall(double speed_mm_s, double kick_deg) {
  return {.speed_mm_s = speed_mm_s,
          .timeConstant_s = 0.16,
          .from_mm = 190.0,
          .bottom_mm = -212.0,
          .aside_mm = -40.0,
          .glide = 0.06,
          .attitude_deg = 58.0,
          .kick_Hz = 4.4,
          .kick_deg = kick_deg};
}

DemoPass fallen(const char* file, const char* title, RigId rig, LureBuild lure, const Sink& sink,
                unsigned seed) {
  const double seconds = 0.4 + (sink.from_mm - sink.bottom_mm) / sink.speed_mm_s + 0.2;
  return {file, title, rig, scene(std::move(lure), sink, View::Side, seconds, seed)};
}

DemoPass besideTheSheet(DemoPass pass) {
  pass.onSheet = false;
  return pass;
}

}  // namespace fin
