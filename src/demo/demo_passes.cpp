// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/demo_passes.h"

#include <fmt/format.h>

#include "demo/demo_lures.h"
#include "demo/demo_scenes.h"

namespace fin {
namespace {

Sink mirkFall(double speed_mm_s) {
  return {.speed_mm_s = speed_mm_s,
          .timeConstant_s = 0.15,
          .from_mm = 190.0,
          .bottom_mm = -212.0,
          .aside_mm = -120.0,
          .glide = 0.35,
          .attitude_deg = 38.0,
          .kick_Hz = 2.8,
          .kick_deg = 26.0};
}

Sink lightVintoFall(double speed_mm_s) {
  return {.speed_mm_s = speed_mm_s,
          .timeConstant_s = 0.14,
          .from_mm = 190.0,
          .bottom_mm = -212.0,
          .aside_mm = -200.0,
          .glide = 0.95,
          .attitude_deg = 17.0,
          .rock_Hz = 1.1,
          .rock_deg = 9.0,
          .kick_Hz = 2.2,
          .kick_deg = 18.0};
}

StraightPull skrellPull(double speed_mm_s) {
  return {.speed_mm_s = speed_mm_s,
          .wobble_Hz = 5.4,
          .wobble_deg = 27.0,
          .roll_deg = 18.0,
          .unevenness = 0.012,
          .seed = 3};
}

/// A ladder: what a rig does at each speed, from too slow to as fast as it goes.
struct Rung {
  double speed_mm_s;
  double Hz;
  double wobble_deg;
  double unevenness;
};
void addLadder(std::vector<DemoPass>& out, const char* file, const char* model, RigId rig,
               const LureBuild& lure, StraightPull pull, const std::vector<Rung>& rungs, unsigned seed) {
  const double roll_deg = pull.roll_deg;
  for (const Rung& rung : rungs) {
    pull.speed_mm_s = rung.speed_mm_s;
    pull.wobble_Hz = rung.Hz;
    pull.wobble_deg = rung.wobble_deg;
    pull.unevenness = rung.unevenness;
    // What does not wobble yet does not roll either.
    pull.roll_deg = rung.wobble_deg > 3.0 ? roll_deg : 0.0;
    pull.seed = seed;
    const int speed = static_cast<int>(rung.speed_mm_s);
    out.push_back(besideTheSheet({fmt::format("{}-pull-{}.mp4", file, speed),
                                  fmt::format("{}, pulled at {} mm/s", model, speed), rig,
                                  pulled(lure, pull, View::Top, seed)}));
    ++seed;
  }
}

void addLadders(std::vector<DemoPass>& out) {
  addLadder(out, "hasp-14", "Hasp 14", kHasp, haspBuild(), {},
            {{95.0, 2.4, 1.2, 0.03},
             {150.0, 3.7, 9.0, 0.03},
             {255.0, 5.8, 23.0, 0.008},
             {310.0, 6.9, 25.0, 0.03},
             {400.0, 8.3, 0.5, 0.9}},
            31);
  addLadder(out, "skrell-95", "Skrell 95", kSkrell, skrellBuild(), {.roll_deg = 18.0},
            {{110.0, 2.3, 1.2, 0.02},
             {180.0, 3.7, 15.0, 0.02},
             {350.0, 7.0, 30.0, 0.015},
             {440.0, 8.6, 31.0, 0.02}},
            101);
  addLadder(
      out, "oblig-18", "Oblig 18", kOblig, obligBuild(), {.roll_deg = 30.0, .lopsided = 0.3},
      {{120.0, 1.9, 2.4, 0.03}, {190.0, 2.9, 30.0, 0.02}, {340.0, 5.0, 52.0, 0.03}, {430.0, 6.1, 0.6, 0.9}},
      111);
  addLadder(
      out, "vinto-11", "Vinto 11", kVinto7, vintoBuild(), {.kick_deg = 34.0},
      {{80.0, 1.7, 1.2, 0.03}, {140.0, 2.8, 9.0, 0.02}, {250.0, 4.7, 13.4, 0.02}, {330.0, 6.2, 14.0, 0.02}},
      121);
}

/// Each model a second time, and the ones that were not pulled yet.
void addFurtherPulls(std::vector<DemoPass>& out) {
  // The hand's pace varies from pull to pull, and with it the rate: that is taken out.
  const StraightPull pellow{.speed_mm_s = 266.0, .roll_deg = 12.0, .unevenness = 0.02};
  const StraightPull tavver{.speed_mm_s = 270.0, .kick_deg = 40.0, .unevenness = 0.11};
  const StraightPull hasp{.speed_mm_s = 272.0, .kick_deg = 30.0, .unevenness = 0.008};
  const StraightPull vinto{.speed_mm_s = 270.0, .kick_deg = 34.0, .unevenness = 0.02};
  const StraightPull oblig{.speed_mm_s = 270.0, .roll_deg = 30.0, .lopsided = 0.35, .unevenness = 0.02};
  const auto slow = [](StraightPull pull) {
    pull.speed_mm_s = 248.0;
    return pull;
  };
  out.push_back(again("skrell-95-pull-2.mp4", "Skrell 95, second pull from above", kSkrell, skrellBuild(),
                      skrellPull(249.0), 5.05, 26.1, 21));
  out.push_back(again("oblig-18-pull-2.mp4", "Oblig 18, second pull from above", kOblig, obligBuild(),
                      slow(oblig), 3.66, 42.6, 22));
  out.push_back(again("oblag-18-pull.mp4", "Oblag 18, straight pull from above", kOblag, oblagBuild(), oblig,
                      3.92, 43.1, 23));
  out.push_back(again("oblag-18-pull-2.mp4", "Oblag 18, second pull from above", kOblag, oblagBuild(),
                      slow(oblig), 3.68, 45.2, 24));
  out.push_back(again("tavver-12-pull-2.mp4", "Tavver 12, second pull from above", kTavver, tavverBuild(),
                      tavver, 8.1, 23.2, 25));
  out.push_back(again("hasp-14-pull-2.mp4", "Hasp 14, second pull from above", kHasp, haspBuild(), hasp, 6.2,
                      23.8, 26));
  out.push_back(again("pellow-110-pull.mp4", "Pellow 110, straight pull from above", kPellow, pellowBuild(),
                      pellow, 4.65, 33.0, 27));
  out.push_back(again("pellow-110-pull-2.mp4", "Pellow 110, second pull from above", kPellow, pellowBuild(),
                      slow(pellow), 4.4, 32.2, 28));
  out.push_back(again("vinto-11-pull.mp4", "Vinto 11, straight pull from above", kVinto7, vintoBuild(), vinto,
                      5.0, 13.1, 29));
}

void addFurtherFalls(std::vector<DemoPass>& out) {
  out.push_back(besideTheSheet(fallen("vinto-11-fall-7g-2.mp4", "Vinto 11, second fall on the 7 g head",
                                      kVinto7, vintoBuild(), vintoFall(212.0, 35.2), 17)));
  out.push_back(besideTheSheet(fallen("vinto-11-fall-4g-2.mp4", "Vinto 11, second fall on the 4 g head",
                                      kVinto4, vintoBuild(), lightVintoFall(125.0), 18)));
  out.push_back(besideTheSheet(
      fallen("mirk-10-fall.mp4", "Mirk 10, fall on the 7 g head", kMirk7, mirkBuild(), mirkFall(168.0), 19)));
  out.push_back(besideTheSheet(fallen("mirk-10-fall-2.mp4", "Mirk 10, second fall on the 7 g head", kMirk7,
                                      mirkBuild(), mirkFall(171.0), 20)));
}

/// Twitched with pauses seen from the side, and walked from side to side seen from above.
void addTwitches(std::vector<DemoPass>& out) {
  Jerks pellow = skrellTwitches(2.0, 52);
  pellow.advance_mm = 96.0;
  pellow.advanceSpread_mm = 14.0;
  pellow.back_mm = 12.0;
  pellow.drift_mm_s = -24.0;
  pellow.attitude_deg = 11.0;
  const auto add = [&out](const char* file, const char* title, RigId rig, LureBuild lure, const Jerks& jerks,
                          View view) {
    out.push_back(besideTheSheet({file, title, rig, scene(std::move(lure), jerks, view, 4.4, jerks.seed)}));
  };
  add("skrell-95-twitches.mp4", "Skrell 95, twitch and pause", kSkrell, skrellBuild(),
      skrellTwitches(2.0, 51), View::Side);
  add("pellow-110-twitches.mp4", "Pellow 110, twitch and pause", kPellow, pellowBuild(), pellow, View::Side);
  add("skrell-95-twitches-2.mp4", "Skrell 95, twitch and pause again", kSkrell, skrellBuild(),
      skrellTwitches(1.2, 53), View::Side);
  pellow.seed = 54;
  pellow.drift_mm_s = -22.0;
  add("pellow-110-twitches-2.mp4", "Pellow 110, twitch and pause again", kPellow, pellowBuild(), pellow,
      View::Side);
  Jerks walk{.count = 6,
             .first_s = 0.35,
             .every_s = 0.66,
             .uneven_s = 0.02,
             .start_mm = -230.0,
             .height_mm = 0.0,
             .advance_mm = 92.0,
             .advanceSpread_mm = 4.0,
             .back_mm = 9.0,
             .back_s = 0.24,
             .swing_deg = 66.0,
             .seed = 55};
  add("pellow-110-walk.mp4", "Pellow 110, walked from side to side", kPellow, pellowBuild(), walk, View::Top);
  walk.swing_deg = 38.0;
  walk.advance_mm = 104.0;
  walk.seed = 56;
  add("skrell-95-walk.mp4", "Skrell 95, walked from side to side", kSkrell, skrellBuild(), walk, View::Top);
}

/// Rubber is slow to close, silicone quick.
void addSkirts(std::vector<DemoPass>& out) {
  out.push_back(skirted("tavver-12-skirt.mp4", "Tavver 12, rubber skirt at the stop", kTavver, tavverBuild(),
                        {.peak_deg = 38.0, .rest_deg = 12.0, .halfLife_s = 0.62, .quiver_deg = 0.9}, 61));
  out.push_back(skirted("hasp-14-skirt.mp4", "Hasp 14, silicone skirt at the stop", kHasp, haspBuild(),
                        {.peak_deg = 34.0, .rest_deg = 12.0, .halfLife_s = 0.24, .quiver_deg = 0.6}, 62));
}

void addOnTheBottom(std::vector<DemoPass>& out) {
  out.push_back(hopped("vinto-11-hop-7g.mp4", "Vinto 11, hopped on the 7 g head", kVinto7, vintoBuild(),
                       {.start_mm = -180.0,
                        .bottom_mm = -120.0,
                        .height_mm = 190.0,
                        .heightSpread_mm = 9.0,
                        .speed_mm_s = 205.0,
                        .attitude_deg = 14.0,
                        .kick_Hz = 5.2,
                        .kick_deg = 34.0},
                       65));
  const Stand upright{.along_mm = 40.0, .bottom_mm = -125.0, .body_mm = 70.0, .angle_deg = 64.0};
  const Stand tipping{.along_mm = 40.0,
                      .bottom_mm = -125.0,
                      .body_mm = 58.0,
                      .angle_deg = 47.0,
                      .sway_deg = 4.0,
                      .tips_s = 2.0,
                      .tipping_s = 0.6};
  out.push_back(besideTheSheet({"vinto-11-rest.mp4", "Vinto 11, at rest on the bottom", kVinto7,
                                scene(vintoBuild(), upright, View::Side, 3.0, 66)}));
  out.push_back(besideTheSheet({"tavver-12-rest.mp4", "Tavver 12, at rest on the bottom", kTavver,
                                scene(tavverBuild(), tipping, View::Side, 3.0, 67)}));
}

/// How deep it runs at two speeds: one dives as it is pulled faster, the other climbs.
void addDepths(std::vector<DemoPass>& out) {
  struct Run {
    const char* file;
    const char* model;
    RigId rig;
    LureBuild lure;
    double speed_mm_s;
    double height_mm;
    double Hz;
    double wobble_deg;
  };
  unsigned seed = 71;
  for (const Run& run : {Run{"skrell-95", "Skrell 95", kSkrell, skrellBuild(), 180.0, 70.0, 3.7, 15.0},
                         {"skrell-95", "Skrell 95", kSkrell, skrellBuild(), 350.0, 10.0, 7.0, 30.0},
                         {"oblig-18", "Oblig 18", kOblig, obligBuild(), 190.0, -60.0, 2.9, 30.0},
                         {"oblig-18", "Oblig 18", kOblig, obligBuild(), 340.0, 40.0, 5.0, 50.0}}) {
    const StraightPull pull{.speed_mm_s = run.speed_mm_s,
                            .height_mm = run.height_mm,
                            .wobble_Hz = run.Hz,
                            .wobble_deg = run.wobble_deg,
                            .unevenness = 0.02,
                            .seed = seed};
    const int speed = static_cast<int>(run.speed_mm_s);
    out.push_back(besideTheSheet({fmt::format("{}-depth-{}.mp4", run.file, speed),
                                  fmt::format("{}, its depth at {} mm/s", run.model, speed), run.rig,
                                  pulled(run.lure, pull, View::Side, seed)}));
    ++seed;
  }
}

/// Chased by the camera on the pole; one clip of three things; one whose rate was said wrong.
void addOddOnes(std::vector<DemoPass>& out) {
  const StraightPull chased{.speed_mm_s = 14.0,
                            .start_mm = -18.0,
                            .wobble_Hz = 4.6,
                            .wobble_deg = 33.0,
                            .roll_deg = 12.0,
                            .unevenness = 0.02,
                            .seed = 3};
  DemoPass chase{"pellow-110-chased.mp4", "Pellow 110, chased by the pole camera", kPellow,
                 scene(pellowBuild(), chased, View::Chase, 2.4, 68)};
  chase.scene.chase_mm_s = 256.0;
  chase.scene.ruler_mm = 0.0;
  chase.scene.basin->caustics = 0.04;
  out.push_back(besideTheSheet(std::move(chase)));
  const TwitchPullFall things{
      .jerks = {.count = 3,
                .first_s = 0.3,
                .every_s = 0.9,
                .start_mm = -270.0,
                .height_mm = 110.0,
                .advance_mm = 92.0,
                .back_mm = 20.0,
                .drift_mm_s = -25.0,
                .seed = 69},
      .pullFrom_s = 3.1,
      .pull = {.speed_mm_s = 220.0, .wobble_Hz = 3.3, .wobble_deg = 30.0, .lopsided = 0.3},
      .fallFrom_s = 4.5,
      .sink = {.speed_mm_s = 170.0,
               .bottom_mm = -150.0,
               .glide = 0.2,
               .attitude_deg = 0.0,
               .rock_Hz = 2.4,
               .rock_deg = 40.0}};
  out.push_back(besideTheSheet({"oblag-18-three-things.mp4", "Oblag 18, twitched, pulled and let go", kOblag,
                                scene(oblagBuild(), things, View::Side, 5.7, 69)}));
  StraightPull slow = chased;
  slow.speed_mm_s = 258.0;
  DemoPass wrong{"pellow-110-pull-3.mp4", "Pellow 110, third pull, said to be at 120 a second", kPellow,
                 pulled(pellowBuild(), slow, View::Top, 70)};
  wrong.scene.rate = Hertz(60.0);
  wrong.saidRate = Hertz(120.0);
  out.push_back(besideTheSheet(std::move(wrong)));
}

}  // namespace

std::vector<DemoPass> demoPasses() {
  const StraightPull oblig{.speed_mm_s = 268.0,
                           .wobble_Hz = 3.9,
                           .wobble_deg = 44.0,
                           .roll_deg = 30.0,
                           .lopsided = 0.35,
                           .unevenness = 0.02,
                           .seed = 4};
  const StraightPull tavver{.speed_mm_s = 250.0,
                            .wobble_Hz = 7.5,
                            .wobble_deg = 24.0,
                            .kick_deg = 40.0,
                            .unevenness = 0.11,
                            .seed = 5};
  // One knock on the tank lets the two cameras of one pass be lined up by their sound.
  RehearsalScene obligTop = pulled(obligBuild(), oblig, View::Top, 12);
  obligTop.sound = RehearsalSound{.knocks_s = {0.42}};
  RehearsalScene obligSide = pulled(obligBuild(), oblig, View::Side, 16);
  obligSide.sound = RehearsalSound{.gain = 0.4, .knocks_s = {0.42}};
  obligSide.begun = Seconds(0.19);
  obligSide.length = obligSide.length - Seconds(0.19);
  return {
      {"skrell-95-pull.mp4", "Skrell 95, straight pull from above", kSkrell,
       pulled(skrellBuild(), skrellPull(270.0), View::Top, 11)},
      {"oblig-18-pull.mp4", "Oblig 18, straight pull from above", kOblig, obligTop, true},
      {"tavver-12-pull.mp4", "Tavver 12, straight pull from above", kTavver,
       pulled(tavverBuild(), tavver, View::Top, 13)},
      fallen("vinto-11-fall-7g.mp4", "Vinto 11, fall on the 7 g head", kVinto7, vintoBuild(),
             vintoFall(210.0, 36.0), 14),
      fallen("vinto-11-fall-4g.mp4", "Vinto 11, fall on the 4 g head", kVinto4, vintoBuild(),
             lightVintoFall(128.0), 15),
      {"oblig-18-pull-side.mp4", "Oblig 18, the same pull from the side", kOblig, obligSide},
  };
}

std::vector<DemoPass> furtherPasses() {
  std::vector<DemoPass> out;
  addFurtherPulls(out);
  addFurtherFalls(out);
  addTwitches(out);
  addSkirts(out);
  out.push_back(heard("skrell-95-sound.mp4", "Skrell 95, twitched for its sound", kSkrell, skrellBuild(), 0.5,
                      1400.0, 63));
  out.push_back(heard("pellow-110-sound.mp4", "Pellow 110, twitched for its sound", kPellow, pellowBuild(),
                      0.16, 640.0, 64));
  addOnTheBottom(out);
  addLadders(out);
  addDepths(out);
  addOddOnes(out);
  return out;
}

}  // namespace fin
