// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/demo_passes.h"

#include <fmt/format.h>

#include <tuple>

namespace fin {
namespace {

LureBuild jerkbait() {
  return {.length_mm = 95.0, .height_mm = 21.0, .width_mm = 13.0, .lip_mm = 12.0};
}

LureBuild longJerkbait() {
  return {.length_mm = 110.0,
          .height_mm = 24.0,
          .width_mm = 15.0,
          .lip_mm = 10.0,
          .back = {60.0, 110.0, 70.0},
          .belly = {235.0, 230.0, 205.0},
          .bands = {40.0, 70.0, 50.0},
          .bandCount = 5};
}

LureBuild paddleTail() {
  return {.length_mm = 70.0,
          .height_mm = 18.0,
          .width_mm = 13.0,
          .tail_mm = 42.0,
          .back = {70.0, 95.0, 60.0},
          .belly = {215.0, 205.0, 150.0},
          .bands = {120.0, 70.0, 40.0},
          .bandCount = 4};
}

LureBuild spoon() {
  return {.length_mm = 64.0,
          .height_mm = 24.0,
          .width_mm = 5.0,
          .back = {190.0, 150.0, 70.0},
          .belly = {235.0, 215.0, 150.0},
          .bands = {90.0, 40.0, 30.0},
          .bandCount = 3};
}

LureBuild bladedBait() {
  return {.length_mm = 58.0,
          .height_mm = 17.0,
          .width_mm = 14.0,
          .tail_mm = 30.0,
          .lip_mm = 9.0,
          .back = {40.0, 50.0, 70.0},
          .belly = {150.0, 160.0, 175.0},
          .bands = {200.0, 190.0, 90.0},
          .bandCount = 4};
}

RehearsalScene scene(LureBuild lure, Motion motion, View view, double seconds, unsigned seed) {
  RehearsalScene out;
  out.lure = std::move(lure);
  out.motion = motion;
  out.camera.view = view;
  out.camera.focal_px = 1700.0;
  out.length = Seconds(seconds);
  out.seed = seed;
  return out;
}

/// A pull as it was, once more: a lure is never pulled twice in quite the same way.
DemoPass again(const char* file, const char* title, RigId rig, LureBuild lure, StraightPull pull, double Hz,
               double wobble_deg, unsigned seed) {
  pull.wobble_Hz = Hz;
  pull.wobble_deg = wobble_deg;
  pull.seed = seed;
  return {file, title, rig, scene(std::move(lure), pull, View::Top, 2.4, seed + 40), false, false};
}

/// Pulled and stopped, seen from the side: does the skirt stay spread, and how fast does it settle?
DemoPass skirted(const char* file, const char* title, RigId rig, LureBuild lure, SkirtStop stop,
                 unsigned seed) {
  lure.tail_mm = 0.0;
  lure.skirt_mm = 46.0;
  return {file, title, rig, scene(std::move(lure), stop, View::Side, 4.2, seed), true, false};
}

/// Twitched at true speed with the sound on; every twitch knocks twice.
DemoPass heard(const char* file, const char* title, RigId rig, LureBuild lure, double gain, double tone_Hz,
               unsigned seed) {
  const Jerks jerks{
      .count = 4, .first_s = 1.3, .every_s = 0.8, .start_mm = -320.0, .advance_mm = 110.0, .seed = seed};
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

/// The twin that comes again on every day, so that days can be told from lures.
void addControl(std::vector<DemoPass>& out, const char* day, double faster, unsigned seed) {
  const StraightPull oblag{
      .speed_mm_s = 260.0, .start_mm = -370.0, .roll_deg = 30.0, .lopsided = 0.35, .unevenness = 0.02};
  for (int n = 1; n <= 2; ++n) {
    const std::string file = fmt::format("oblag-18-{}-{}.mp4", day, n);
    const std::string title = fmt::format("Oblag 18, pull {} ({})", n, day);
    out.push_back(again(file.c_str(), title.c_str(), kOblag, spoon(), oblag, (3.78 + 0.05 * n) * faster,
                        43.4 + 0.8 * n, seed + static_cast<unsigned>(n)));
    out.back().onSheet = true;
    out.back().nth = n;
  }
}

/// Twitched and left alone: in the pause it drifts up by so much.
Jerks skrellTwitches(double drift_mm_s, unsigned seed) {
  return {.first_s = 0.35,
          .every_s = 1.05,
          .uneven_s = 0.03,
          .start_mm = -330.0,
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
          .from_mm = 230.0,
          .bottom_mm = -260.0,
          .aside_mm = -40.0,
          .glide = 0.06,
          .attitude_deg = 58.0,
          .kick_Hz = 3.4,
          .kick_deg = kick_deg};
}

}  // namespace

std::vector<DemoPass> demoPasses() {
  const StraightPull skrell{.speed_mm_s = 270.0,
                            .start_mm = -400.0,
                            .wobble_Hz = 5.4,
                            .wobble_deg = 27.0,
                            .roll_deg = 18.0,
                            .unevenness = 0.012,
                            .seed = 3};
  const StraightPull oblig{.speed_mm_s = 260.0,
                           .start_mm = -470.0,
                           .wobble_Hz = 3.8,
                           .wobble_deg = 44.0,
                           .roll_deg = 30.0,
                           .lopsided = 0.35,
                           .unevenness = 0.02,
                           .seed = 4};
  const StraightPull tavver{.speed_mm_s = 250.0,
                            .start_mm = -470.0,
                            .wobble_Hz = 7.6,
                            .wobble_deg = 24.0,
                            .kick_deg = 40.0,
                            .unevenness = 0.11,
                            .seed = 5};
  const Sink vinto = vintoFall(210.0, 36.0);
  const Sink vintoLight{.speed_mm_s = 128.0,
                        .timeConstant_s = 0.14,
                        .from_mm = 230.0,
                        .bottom_mm = -260.0,
                        .aside_mm = -260.0,
                        .glide = 0.95,
                        .attitude_deg = 17.0,
                        .rock_Hz = 1.1,
                        .rock_deg = 9.0,
                        .kick_Hz = 2.2,
                        .kick_deg = 18.0};
  // One knock on the tank lets the two cameras of one pass be lined up by their sound.
  RehearsalScene obligTop = scene(spoon(), oblig, View::Top, 3.4, 12);
  obligTop.sound = RehearsalSound{.knocks_s = {0.42}};
  RehearsalScene obligSide = scene(spoon(), oblig, View::Side, 3.2, 16);
  obligSide.sound = RehearsalSound{.gain = 0.4, .knocks_s = {0.42}};
  obligSide.begun = Seconds(0.19);
  return {
      {"skrell-95-pull.mp4", "Skrell 95, straight pull from above", kSkrell,
       scene(jerkbait(), skrell, View::Top, 2.8, 11)},
      {"oblig-18-pull.mp4", "Oblig 18, straight pull from above", kOblig, obligTop, true},
      {"tavver-12-pull.mp4", "Tavver 12, straight pull from above", kTavver,
       scene(bladedBait(), tavver, View::Top, 3.6, 13)},
      {"vinto-11-fall-7g.mp4", "Vinto 11, fall on the 7 g head", kVinto7,
       scene(paddleTail(), vinto, View::Side, 2.9, 14)},
      {"vinto-11-fall-4g.mp4", "Vinto 11, fall on the 4 g head", kVinto4,
       scene(paddleTail(), vintoLight, View::Side, 4.2, 15)},
      {"oblig-18-pull-side.mp4", "Oblig 18, the same pull from the side", kOblig, obligSide},
  };
}

std::vector<DemoPass> furtherPasses() {
  const StraightPull skrell{.speed_mm_s = 268.0, .start_mm = -400.0, .roll_deg = 18.0, .unevenness = 0.012};
  const StraightPull pellow{.speed_mm_s = 262.0, .start_mm = -400.0, .roll_deg = 12.0, .unevenness = 0.02};
  const StraightPull tavver{.speed_mm_s = 252.0, .start_mm = -400.0, .kick_deg = 40.0, .unevenness = 0.11};
  const StraightPull hasp{.speed_mm_s = 258.0, .start_mm = -310.0, .unevenness = 0.03};
  const StraightPull oblig{
      .speed_mm_s = 260.0, .start_mm = -370.0, .roll_deg = 30.0, .lopsided = 0.35, .unevenness = 0.02};
  std::vector<DemoPass> out{again("skrell-95-pull-2.mp4", "Skrell 95, second pull from above", kSkrell,
                                  jerkbait(), skrell, 5.47, 26.1, 21),
                            again("oblig-18-pull-2.mp4", "Oblig 18, second pull from above", kOblig, spoon(),
                                  oblig, 3.88, 42.6, 22),
                            again("oblag-18-pull.mp4", "Oblag 18, straight pull from above", kOblag, spoon(),
                                  oblig, 3.76, 43.1, 23),
                            again("oblag-18-pull-2.mp4", "Oblag 18, second pull from above", kOblag, spoon(),
                                  oblig, 3.86, 45.2, 24),
                            again("tavver-12-pull-2.mp4", "Tavver 12, second pull from above", kTavver,
                                  bladedBait(), tavver, 7.7, 23.2, 25),
                            again("hasp-14-pull-2.mp4", "Hasp 14, second pull at 258 mm/s", kHasp,
                                  bladedBait(), hasp, 5.9, 23.8, 26),
                            again("pellow-110-pull.mp4", "Pellow 110, straight pull from above", kPellow,
                                  longJerkbait(), pellow, 4.6, 33.0, 27)};
  struct Rung {
    double speed_mm_s;
    double Hz;
    double wobble_deg;
    double unevenness;
  };
  const Rung rungs[] = {{95.0, 2.4, 1.2, 0.03},
                        {150.0, 3.7, 9.0, 0.03},
                        {255.0, 5.8, 23.0, 0.02},
                        {310.0, 6.9, 25.0, 0.03},
                        {400.0, 8.3, 0.5, 0.9}};
  const Jerks skrellJerks = skrellTwitches(2.0, 51);
  Jerks pellowJerks = skrellJerks;
  pellowJerks.advance_mm = 96.0;
  pellowJerks.advanceSpread_mm = 14.0;
  pellowJerks.back_mm = 12.0;
  pellowJerks.drift_mm_s = -24.0;
  pellowJerks.attitude_deg = 11.0;
  pellowJerks.seed = 52;
  out.push_back({"skrell-95-twitches.mp4", "Skrell 95, twitch and pause", kSkrell,
                 scene(jerkbait(), skrellJerks, View::Side, 4.4, 51), false, false});
  out.push_back({"pellow-110-twitches.mp4", "Pellow 110, twitch and pause", kPellow,
                 scene(longJerkbait(), pellowJerks, View::Side, 4.4, 52), false, false});
  out.push_back(skirted("tavver-12-skirt.mp4", "Tavver 12, rubber skirt at the stop", kTavver, bladedBait(),
                        {.peak_deg = 30.0, .rest_deg = 11.0, .halfLife_s = 0.30, .quiver_deg = 2.0}, 61));
  out.push_back(skirted("hasp-14-skirt.mp4", "Hasp 14, silicone skirt at the stop", kHasp, bladedBait(),
                        {.peak_deg = 34.0, .rest_deg = 15.0, .halfLife_s = 0.75, .quiver_deg = 3.0}, 62));
  out.push_back(heard("skrell-95-sound.mp4", "Skrell 95, twitched for its sound", kSkrell, jerkbait(), 0.5,
                      1400.0, 63));
  out.push_back(heard("pellow-110-sound.mp4", "Pellow 110, twitched for its sound", kPellow, longJerkbait(),
                      0.16, 640.0, 64));
  out.push_back(hopped("vinto-11-hop-7g.mp4", "Vinto 11, hopped on the 7 g head", kVinto7, paddleTail(),
                       {.start_mm = -230.0,
                        .bottom_mm = -150.0,
                        .height_mm = 190.0,
                        .heightSpread_mm = 9.0,
                        .speed_mm_s = 205.0,
                        .attitude_deg = 14.0,
                        .kick_Hz = 5.2,
                        .kick_deg = 34.0},
                       65));
  unsigned seed = 31;
  for (const Rung& rung : rungs) {
    const std::string speed = std::to_string(static_cast<int>(rung.speed_mm_s));
    const StraightPull pull{.speed_mm_s = rung.speed_mm_s,
                            .start_mm = -1.2 * rung.speed_mm_s,
                            .wobble_Hz = rung.Hz,
                            .wobble_deg = rung.wobble_deg,
                            .unevenness = rung.unevenness,
                            .seed = seed};
    out.push_back({"hasp-14-pull-" + speed + ".mp4", "Hasp 14, pulled at " + speed + " mm/s", kHasp,
                   scene(bladedBait(), pull, View::Top, 2.4, seed), false, false});
    ++seed;
  }
  return out;
}

std::vector<DemoPass> saltDayPasses() {
  std::vector<DemoPass> out;
  for (int n = 1; n <= 2; ++n) {
    out.push_back({fmt::format("vinto-11-salt-{}.mp4", n), fmt::format("Vinto 11, fall {} (salt)", n),
                   kVinto7,
                   scene(paddleTail(), vintoFall(207.0 + 1.6 * n, 36.0), View::Side, 2.9,
                         70U + static_cast<unsigned>(n))});
    out.back().nth = n;
  }
  out.push_back({"skrell-95-salt.mp4", "Skrell 95, twitch and pause (salt)", kSkrell,
                 scene(jerkbait(), skrellTwitches(31.0, 75), View::Side, 4.4, 75)});
  addControl(out, "salt", 1.0, 76);
  return out;
}

std::vector<DemoPass> wornDayPasses() {
  std::vector<DemoPass> out;
  for (const auto& [piece, kick_deg, what] :
       {std::tuple(kWornPiece, 29.0, "worn"), {kUnusedPiece, 36.0, "unused"}}) {
    for (int n = 1; n <= 2; ++n) {
      const int nth = static_cast<int>(out.size()) + 1;
      out.push_back({fmt::format("vinto-11-{}-{}.mp4", what, n),
                     fmt::format("Vinto 11, {} one, fall {}", what, n), kVinto7,
                     scene(paddleTail(), vintoFall(209.0 + n, kick_deg + 0.6 * n), View::Side, 2.9,
                           80U + static_cast<unsigned>(nth))});
      out.back().nth = nth;
      out.back().piece = piece;
    }
  }
  addControl(out, "worn", 1.004, 86);
  return out;
}

}  // namespace fin
