// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/demo_day.h"

#include <algorithm>
#include <string>
#include <vector>

#include "core/planning/questions.h"
#include "core/records/log.h"
#include "core/rehearsal/board_film.h"
#include "core/rehearsal/rehearse.h"

namespace fin {
namespace {

namespace fs = std::filesystem;

constexpr const char* kBoardTitle = "The board before the fixed camera";

struct DemoPass {
  std::string file;
  std::string title;
  RowId rig;
  RehearsalScene scene;
  bool outlined = false;  ///< its outline is drawn, beside the marks
  bool onSheet = true;    ///< else it was made beside the day's sheet
};

enum DemoRig : RowId { kVinto7 = 21, kVinto4, kMirk7, kSkrell, kPellow, kOblig, kOblag, kTavver, kHasp };

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
  const Sink vinto{.speed_mm_s = 210.0,
                   .timeConstant_s = 0.16,
                   .from_mm = 230.0,
                   .bottom_mm = -260.0,
                   .aside_mm = -40.0,
                   .glide = 0.06,
                   .attitude_deg = 58.0,
                   .kick_Hz = 3.4,
                   .kick_deg = 36.0};
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

/// A pull as it was, once more: a lure is never pulled twice in quite the same way.
DemoPass again(const char* file, const char* title, RowId rig, LureBuild lure, StraightPull pull, double Hz,
               double wobble_deg, unsigned seed) {
  pull.wobble_Hz = Hz;
  pull.wobble_deg = wobble_deg;
  pull.seed = seed;
  return {file, title, rig, scene(std::move(lure), pull, View::Top, 2.4, seed + 40), false, false};
}

/// Second pulls, the near twin of one model, and one rig from dead slow to too fast.
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
  const Jerks skrellJerks{.first_s = 0.35,
                          .every_s = 1.05,
                          .uneven_s = 0.03,
                          .start_mm = -330.0,
                          .advance_mm = 118.0,
                          .advanceSpread_mm = 4.0,
                          .back_mm = 31.0,
                          .drift_mm_s = 2.0,
                          .attitude_deg = 4.0,
                          .seed = 51};
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

/// Eight invented models over the four families: one on two heads, two near twins, one that is not graded.
Rack demoRack() {
  Rack rack;
  const auto plastic = [](RowId id, const char* name, double length, double weight, double price) {
    return Model{.id = id,
                 .name = name,
                 .family = Family::SoftPlastic,
                 .length_mm = length,
                 .weight_g = weight,
                 .price = price,
                 .currency = "EUR",
                 .colours = "peat, mud green",
                 .buoyancy = Buoyancy::Floats};
  };
  const auto hard = [](RowId id, const char* name, Family family, double length, double weight,
                       double price) {
    return Model{.id = id,
                 .name = name,
                 .family = family,
                 .length_mm = length,
                 .weight_g = weight,
                 .price = price,
                 .currency = "EUR",
                 .buoyancy = family == Family::Jerkbait ? Buoyancy::Hangs : Buoyancy::Sinks};
  };
  rack.models = {plastic(1, "Vinto 11", 110.0, 9.5, 1.9),
                 plastic(2, "Mirk 10", 104.0, 8.8, 2.4),
                 hard(3, "Skrell 95", Family::Jerkbait, 95.0, 14.0, 17.5),
                 hard(4, "Pellow 110", Family::Jerkbait, 110.0, 18.0, 0.0),
                 hard(5, "Oblig 18", Family::Spoon, 64.0, 18.0, 7.2),
                 hard(6, "Oblag 18", Family::Spoon, 64.0, 18.0, 4.1),
                 hard(7, "Tavver 12", Family::BladedBait, 58.0, 12.0, 9.8),
                 hard(8, "Hasp 14", Family::BladedBait, 60.0, 14.0, 8.4)};
  rack.models[3].price.reset();
  rack.models[3].graded = false;
  rack.models[3].whyNotGraded = "one of us designed it";
  rack.models[2].claims = "hangs on the pause";
  rack.rigs = {{.id = kVinto7, .model = 1, .name = "7 g head", .head_g = 7.0},
               {.id = kVinto4, .model = 1, .name = "4 g head", .head_g = 4.0},
               {.id = kMirk7, .model = 2, .name = "7 g head", .head_g = 7.0},
               {.id = kSkrell, .model = 3, .name = "size 4 hooks", .hook_g = 0.9, .hookSize = "4"},
               {.id = kPellow, .model = 4, .name = "size 2 hooks", .hook_g = 1.4, .hookSize = "2"},
               {.id = kOblig, .model = 5, .name = "single hook", .hook_g = 1.1},
               {.id = kOblag, .model = 6, .name = "single hook", .hook_g = 1.1},
               {.id = kTavver, .model = 7, .name = "rubber skirt", .skirt = "rubber"},
               {.id = kHasp, .model = 8, .name = "silicone skirt", .skirt = "silicone"}};
  for (Rig& rig : rack.rigs) {
    rig.line = "braid";
    rig.lineStrength_kg = 8.0;
    rig.link = "small snap";
  }
  return rack;
}

/// An indoor trough beside a brackish canal harbour; what is asked, and the passes in their drawn order.
DayPlan demoPlan() {
  DayPlan plan;
  plan.name = "Net loft, first day at the trough";
  plan.questions = {"wobble", "fall"};
  plan.rack = demoRack();
  plan.water = {.name = "The trough",
                .length_mm = 6000.0,
                .width_mm = 800.0,
                .depth_mm = 900.0,
                .temperature_C = 11.0,
                .salinity_g_kg = 4.5,
                .wantedSalinity_g_kg = 6.0,
                .emptyTank_kg = 310.0};
  plan.filming.air_mm = 400.0;
  plan.filming.glass_mm = 12.0;
  plan.filming.water_mm = 800.0;
  plan.heldEqual[0].value = "2.4 m spinning rod";
  plan.heldEqual[1].value = "braid, 8 kg";
  plan.heldEqual[3].value = "6 g/kg, 11 °C";
  plan.heldEqual[5].value = "1.2 m through the glass";
  plan.options.tasks = tasksFor(plan.questions, {260.0}, true);
  plan.cadence = {1, Seconds(0.6), Seconds(1.05)};
  plan.options.repeats = 2;
  plan.options.seed = 1907;
  plan.options.controlRig = kVinto7;
  plan.options.controlEvery = 9;
  plan.options.minutesPerPass = 2.0;
  plan.options.minutesPerRig = 3.0;
  std::vector<RowId> rigs;
  for (const Rig& rig : plan.rack.rigs) rigs.push_back(rig.id);
  plan.sheet = *makeSheet(rigs, plan.options);
  return plan;
}

constexpr double kMorning_s = 1'790'000'000.0;  ///< some morning; the day's clock begins here

/// Plays the day as far as its clips go: the passes that were filmed are done, in the first block; one was
/// fouled before and made again.
void playMorning(DayPlan& plan, const std::vector<DemoPass>& filmed) {
  std::size_t made = 0;
  for (PlannedPass& pass : plan.sheet) {
    const bool has = std::any_of(filmed.begin(), filmed.end(), [&](const DemoPass& d) {
      return d.rig == pass.rig && protocolOf(d.scene.motion) == pass.protocol;
    });
    if (pass.block != 1 || pass.control || !has) continue;
    pass.state = PassState::Done;
    pass.finished_s = kMorning_s + 240.0 * static_cast<double>(++made);
  }
  const auto first = std::find_if(plan.sheet.begin(), plan.sheet.end(),
                                  [](const PlannedPass& p) { return p.state == PassState::Done; });
  if (first == plan.sheet.end()) return;
  PlannedPass again = againAfter(*first, static_cast<RowId>(plan.sheet.size() + 1));
  again.state = PassState::Done;
  again.finished_s = first->finished_s + 120.0;
  first->state = PassState::Fouled;
  first->whyFouled = "caught on line or leaf";
  plan.sheet.insert(first + 1, again);
  // What was made stands before what is still to be made.
  std::stable_partition(plan.sheet.begin(), plan.sheet.end(),
                        [](const PlannedPass& p) { return p.state != PassState::Planned; });
}

std::optional<RowId> plannedFor(const DayPlan& plan, const DemoPass& pass) {
  const Protocol protocol = protocolOf(pass.scene.motion);
  for (const PlannedPass& p : plan.sheet) {
    if (p.rig == pass.rig && p.protocol == protocol && p.state == PassState::Done) return p.id;
  }
  return std::nullopt;
}

/// Films under a name of its own, so that a clip which is there is whole.
Result<void> film(const DemoPass& pass, const fs::path& clip, const JobControl& job) {
  if (fs::exists(clip)) return {};
  fs::path unfinished = clip;
  unfinished.replace_extension("part" + clip.extension().string());
  if (auto filmed = filmRehearsal(pass.scene, unfinished, Hertz(30.0), job); !filmed) return filmed;
  std::error_code failed;
  fs::rename(unfinished, clip, failed);
  if (failed) return failure(ErrorCode::NotWritable, clip.string() + ": " + failed.message(), clip.string());
  return {};
}

Result<void> keep(Log& log, const DayPlan& plan, const DemoPass& pass, const fs::path& file) {
  const RehearsalTank tank(pass.scene);
  PassRequest request = requestFor(tank, file);
  request.rigName = plan.rack.fullName(*plan.rack.rig(pass.rig));
  if (pass.outlined) request.outline = outlineFor(tank, request.firstFrame);
  const auto id = log.addPass(pass.title, request);
  if (!id) return tl::unexpected(id.error());
  const std::string camera = pass.scene.camera.view == View::Top ? "top" : "fixed";
  const auto planned = pass.onSheet ? plannedFor(plan, pass) : std::nullopt;
  if (auto ok = log.assign(*id, planned, camera); !ok) return ok;
  const auto clip = Clip::open(file);
  if (!clip) return tl::unexpected(clip.error());
  const auto source = Clip::reader(*clip, {});
  if (!source) return tl::unexpected(source.error());
  auto track = followPass(request, **clip, **source);
  if (!track) return tl::unexpected(track.error());
  if (auto ok = log.saveTrack(*id, {*track, request}); !ok) return ok;
  const auto result = readPass(request, **clip, std::move(*track));
  if (!result) return tl::unexpected(result.error());
  return log.saveReadings(*id, result->readings);
}

/// The board carried about before the fixed camera, from which its lens is found.
Result<void> filmBoard(const fs::path& clip) {
  if (fs::exists(clip)) return {};
  BoardScene scene;
  scene.lens = {1700.0, 1700.0, 639.5, 359.5, {}};
  scene.frames = 60;
  BoardFilm film(scene);
  const auto writer = ClipWriter::create(
      clip, {.width_px = scene.width_px, .height_px = scene.height_px, .rate = scene.rate});
  if (!writer) return tl::unexpected(writer.error());
  for (std::size_t n = 0; n < film.frameCount(); ++n) {
    if (auto ok = (*writer)->add(film.frame(n)->rgb(), film.timeOf(n)); !ok) return ok;
  }
  return (*writer)->finish();
}

Result<void> addBoard(Log& log, const fs::path& clip) {
  if (auto filmed = filmBoard(clip); !filmed) return filmed;
  PassRequest request;
  request.clip = clip;
  const auto id = log.addPass(kBoardTitle, request);
  if (!id) return tl::unexpected(id.error());
  return log.assign(*id, std::nullopt, "fixed");
}

/// Size and time of a camera's first clip are kept for the day.
Result<void> keepCalibrations(Log& log) {
  const auto passes = log.passes();
  if (!passes) return tl::unexpected(passes.error());
  for (const char* camera : {"top", "fixed"}) {
    const auto first = std::find_if(passes->begin(), passes->end(),
                                    [camera](const LoggedPass& p) { return p.camera == camera; });
    if (first == passes->end()) continue;
    const std::string day = dayOf(first->request.clip);
    const auto ok = log.keepCalibration(
        camera, day, KeptCalibration{camera, day, calibrationOf(first->request), first->request.clip});
    if (!ok) return ok;
  }
  return {};
}

}  // namespace

Result<fs::path> makeDemoDay(const fs::path& folder, const JobControl& job) {
  std::error_code failed;
  fs::create_directories(folder, failed);
  if (failed)
    return failure(ErrorCode::NotWritable, folder.string() + ": " + failed.message(), folder.string());
  const fs::path file = folder / "demo-day.finlog";
  const auto log = Log::open(file);
  if (!log) return tl::unexpected(log.error());
  const auto kept = (*log)->passes();
  if (!kept) return tl::unexpected(kept.error());

  const std::vector<DemoPass> first = demoPasses();
  const std::vector<DemoPass> further = furtherPasses();
  DayPlan plan = demoPlan();
  playMorning(plan, first);
  if (kept->empty()) {
    if (auto ok = (*log)->savePlan(plan); !ok) return tl::unexpected(ok.error());
    VerdictPlan verdict;
    verdict.interest = "One of us designed the Pellow 110, so it is shown and not graded.";
    verdict.pricesFrom = "list of the harbour shop, the week before";
    if (auto ok = (*log)->saveVerdict(verdict); !ok) return tl::unexpected(ok.error());
  }
  const auto known = [&](const std::string& title) {
    return std::any_of(kept->begin(), kept->end(), [&](const LoggedPass& p) { return p.title == title; });
  };
  std::size_t done = 0;
  const auto filmAll = [&](const std::vector<DemoPass>& passes) -> Result<void> {
    const auto count = static_cast<double>(first.size() + further.size());
    for (const DemoPass& pass : passes) {
      const double from = static_cast<double>(done++) / count;
      const fs::path clip = folder / pass.file;
      if (auto ok = film(pass, clip, partOf(job, from, static_cast<double>(done) / count)); !ok) return ok;
      if (known(pass.title)) continue;
      if (auto ok = keep(**log, plan, pass, clip); !ok) return ok;
    }
    return {};
  };
  if (auto ok = filmAll(first); !ok) return tl::unexpected(ok.error());
  if (!known(kBoardTitle)) {
    if (auto ok = addBoard(**log, folder / "board-in-the-water.mp4"); !ok) return tl::unexpected(ok.error());
    if (auto ok = keepCalibrations(**log); !ok) return tl::unexpected(ok.error());
  }
  if (auto ok = filmAll(further); !ok) return tl::unexpected(ok.error());
  return file;
}

}  // namespace fin
