// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/demo_day.h"

#include <algorithm>
#include <future>
#include <map>
#include <string>
#include <vector>

#include "core/measuring/session.h"
#include "core/planning/questions.h"
#include "core/records/log.h"
#include "core/records/log_merge.h"
#include "core/records/taken_out.h"
#include "core/rehearsal/board_film.h"
#include "core/rehearsal/rehearse.h"
#include "demo/demo_judges.h"
#include "demo/demo_passes.h"
#include "demo/demo_season.h"
#include "demo/demo_vote.h"

namespace fin {
namespace {

namespace fs = std::filesystem;

constexpr std::int64_t kTrough = 131;
constexpr double kDay_s = 86400.0;
constexpr const char* kBoardTitle = "The board before the fixed camera";

/// Eight invented models over the four families: one on two heads, two near twins, one that is not graded.
Rack demoRack() {
  Rack rack;
  const auto plastic = [](ModelId id, const char* name, double length, double weight, double price) {
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
  const auto hard = [](ModelId id, const char* name, Family family, double length, double weight,
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
  const Finish finishes[] = {Finish::Dull,   Finish::Plain, Finish::Bright, Finish::Bright,
                             Finish::Bright, Finish::Plain, Finish::Bright, Finish::Dull};
  for (std::size_t i = 0; i < rack.models.size(); ++i) rack.models[i].finish = finishes[i];
  rack.claims = {
      {.id = 121,
       .model = 3,
       .words = "hangs on the pause",
       .reading = ReadingId::PauseDrift,
       .least = -5.0,
       .most = 5.0},
      {.id = 122, .model = 1, .words = "falls like a leaf", .reading = ReadingId::FallRate, .most = 150.0},
      {.id = 123,
       .model = 5,
       .words = "four wobbles a second",
       .reading = ReadingId::WobbleFrequency,
       .least = 3.5,
       .most = 4.5}};
  rack.pieces = {
      {.id = kWornPiece, .model = 1, .number = 1, .state = PieceState::Worn, .paid = 1.9, .currency = "EUR"},
      {.id = kUnusedPiece,
       .model = 1,
       .number = 2,
       .state = PieceState::Spare,
       .paid = 1.9,
       .currency = "EUR"},
      {.id = 103,
       .model = 2,
       .number = 1,
       .state = PieceState::Lost,
       .paid = 2.4,
       .currency = "EUR",
       .note = "in the piles"},
      {.id = 104, .model = 1, .number = 3, .paid = 1.9, .currency = "EUR"},
      {.id = 105, .model = 1, .number = 4, .state = PieceState::Lost, .paid = 1.9, .currency = "EUR"},
      {.id = 106, .model = 3, .paid = 17.5, .currency = "EUR"},
      {.id = 107, .model = 5, .paid = 7.2, .currency = "EUR"},
      {.id = 108, .model = 6, .paid = 4.1, .currency = "EUR"},
      {.id = 109, .model = 7, .paid = 9.8, .currency = "EUR"},
      {.id = 110, .model = 8, .paid = 8.4, .currency = "EUR"}};
  rack.prices = {
      {.id = 111, .model = 1, .amount = 1.9, .currency = "EUR", .shop = "Vemmelin", .date = "2026-08-30"},
      {.id = 112, .model = 1, .amount = 2.1, .currency = "EUR", .shop = "Haddlewick", .date = "2026-09-12"},
      {.id = 113, .model = 3, .amount = 17.5, .currency = "EUR", .shop = "Vemmelin", .date = "2026-08-30"},
      {.id = 114, .model = 3, .amount = 15.9, .currency = "EUR", .shop = "Haddlewick", .date = "2026-10-24"}};
  rack.rigs = {{.id = kVinto7, .model = 1, .name = "7 g head", .head_g = 7.0},
               {.id = kVinto4, .model = 1, .name = "4 g head", .head_g = 4.0},
               {.id = kMirk7, .model = 2, .name = "7 g head", .head_g = 7.0},
               {.id = kSkrell, .model = 3, .name = "size 4 hooks", .hook_g = 0.9, .hookSize = "4"},
               {.id = kPellow, .model = 4, .name = "size 2 hooks", .hook_g = 1.4, .hookSize = "2"},
               {.id = kOblig, .model = 5, .name = "single hook", .hook_g = 1.1},
               {.id = kOblag, .model = 6, .name = "single hook", .hook_g = 1.1},
               {.id = kTavver, .model = 7, .name = "rubber skirt", .skirt = "rubber"},
               {.id = kHasp, .model = 8, .name = "silicone skirt", .skirt = "silicone"}};
  rack.rigs[2].heard = {300.0, 700.0, {}, {}, "a neighbour at the quay"};
  rack.rigs[0].heard = {250.0, 600.0, 600.0, 1500.0, "a neighbour at the quay"};
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
  plan.waters = {{.id = kTrough, .name = "The trough", .note = "indoors; fills in two hours"},
                 {.id = kCanal, .name = "The harbour canal", .note = "brackish; piles on the east side"},
                 {.id = kReservoir, .name = "The upper reservoir"}};
  plan.waterBody = kTrough;
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
  std::vector<RigId> rigs;
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
    pass.salinity_g_kg = plan.water.wantedSalinity_g_kg;  // the salt went in before
    pass.finished_s = kMorning_s + 240.0 * static_cast<double>(++made);
  }
  const auto first = std::find_if(plan.sheet.begin(), plan.sheet.end(),
                                  [](const PlannedPass& p) { return p.state == PassState::Done; });
  if (first == plan.sheet.end()) return;
  PlannedPass again = againAfter(*first, static_cast<std::int64_t>(plan.sheet.size() + 1));
  again.state = PassState::Done;
  again.finished_s = first->finished_s + 120.0;
  first->state = PassState::Fouled;
  first->whyFouled = "caught on line or leaf";
  plan.sheet.insert(first + 1, again);
  // What was made stands before what is still to be made.
  std::stable_partition(plan.sheet.begin(), plan.sheet.end(),
                        [](const PlannedPass& p) { return p.state != PassState::Planned; });
}

struct LaterDay {
  std::int64_t id = 0;
  const char* name = "";
  int after_days = 0;
  double salinity_g_kg = 0.0;
  std::vector<DemoPass> passes;
};
/// Two more afternoons at the trough.
std::vector<LaterDay> laterDays() {
  return {{140, "Net loft, with salt in the trough", 21, 12.0, saltDayPasses()},
          {170, "Net loft, a worn one beside an unused", 42, 6.0, wornDayPasses()}};
}

/// All its passes made, the control's marked as such.
DayPlan planOf(const LaterDay& day, const DayPlan& first) {
  DayPlan plan = first;
  plan.foretold = {};
  plan.id = day.id;
  plan.name = day.name;
  plan.water.salinity_g_kg = day.salinity_g_kg;
  plan.options.controlRig = kOblag;
  plan.sheet.clear();
  std::map<std::pair<RigId, PieceId>, int> blocks;
  for (const DemoPass& pass : day.passes) {
    const std::size_t before = plan.sheet.size();
    PlannedPass planned{.id = day.id + 1 + static_cast<std::int64_t>(before),
                        .rig = pass.rig,
                        .protocol = protocolOf(pass.scene.motion),
                        .view = pass.scene.camera.view};
    planned.block = ++blocks[{pass.rig, pass.piece}];
    planned.control = pass.rig == RigId(kOblag);
    planned.piece = pass.piece;
    planned.state = PassState::Done;
    planned.finished_s = kMorning_s + kDay_s * day.after_days + 240.0 * static_cast<double>(before + 1);
    plan.sheet.push_back(planned);
  }
  return plan;
}

std::optional<PlannedPassId> plannedFor(const DayPlan& plan, const DemoPass& pass) {
  const Protocol protocol = protocolOf(pass.scene.motion);
  int nth = 0;
  for (const PlannedPass& p : plan.sheet) {
    if (p.rig == pass.rig && p.protocol == protocol && p.state == PassState::Done && ++nth == pass.nth)
      return p.id;
  }
  return std::nullopt;
}

Result<void> film(const DemoPass& pass, const fs::path& clip, const JobControl& job) {
  if (fs::exists(clip)) return {};
  return filmRehearsal(pass.scene, clip, Hertz(30.0), job);
}

Result<void> keep(Log& log, const DayPlan& plan, const DemoPass& pass, const fs::path& file) {
  const PassRequest request = demoRequest(pass, file, plan.rack);
  const View view = pass.scene.camera.view;
  const std::string camera = view == View::Top ? "top" : view == View::Chase ? "pole" : "fixed";
  const auto clip = Clip::open(file);
  if (!clip) return tl::unexpected(clip.error());
  const ClipFingerprint fingerprint = (*clip)->info().fingerprint;
  const auto measured = measure({request, fingerprint, nullptr}, *clip);
  if (!measured) return tl::unexpected(measured.error());
  return log.together([&]() -> Result<void> {
    const auto id = log.addPass({pass.title, request, fingerprint,
                                 pass.onSheet ? plannedFor(plan, pass) : std::nullopt, camera, plan.id});
    if (!id) return tl::unexpected(id.error());
    return log.saveMeasurement(*id, *measured->measurement);
  });
}

/// The log of a helper who changed one thing that was changed here too comes in: one conflict to decide on.
Result<void> mergeHelpers(const fs::path& log, const fs::path& folder) {
  const fs::path helpers = folder / "helper.finlog";
  std::error_code failed;
  fs::remove(helpers, failed);
  if (auto copied = thinCopy(log, helpers); !copied) return copied;
  const auto weigh = [](const fs::path& file, const char* who, double weight_g) -> Result<void> {
    if (auto said = sayEditor(file, who); !said) return said;
    const auto open = Log::open(file);
    if (!open) return tl::unexpected(open.error());
    const auto before = (*open)->plan(1);
    if (!before) return tl::unexpected(before.error());
    DayPlan after = *before;
    for (Model& model : after.rack.models) {
      if (model.name == "Tavver 12") model.weight_g = weight_g;
    }
    return (*open)->savePlan(*before, after);
  };
  if (auto done = weigh(helpers, "the helper", 12.6); !done) return done;
  if (auto done = weigh(log, "", 12.2); !done) return done;
  const auto merged = mergeLogs(log, helpers);
  fs::remove(helpers, failed);
  if (!merged) return tl::unexpected(merged.error());
  return {};
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
  const auto fingerprint = fingerprintOf(clip);
  if (!fingerprint) return tl::unexpected(fingerprint.error());
  const auto id = log.addPass({kBoardTitle, request, *fingerprint, std::nullopt, "fixed"});
  if (!id) return tl::unexpected(id.error());
  return {};
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
    const auto ok =
        log.keepCalibration(camera, day, std::nullopt,
                            KeptCalibration{camera, day, calibrationOf(first->request), first->request.clip});
    if (!ok) return ok;
  }
  return {};
}

}  // namespace

PassRequest demoRequest(const DemoPass& pass, const fs::path& clip, const Rack& rack) {
  const RehearsalTank tank(pass.scene);
  PassRequest request = requestFor(tank, clip);
  request.rigName = rack.fullName(*rack.rig(pass.rig));
  if (pass.quiet) {
    request.protocol = Protocol::Sound;
    request.quiet = pass.quiet;
    request.marks.clear();
    request.firstFrame = tank.frameCount() / 4;
    request.lastFrame.reset();
  }
  if (pass.outlined) request.outline = outlineFor(tank, request.firstFrame);
  if (pass.saidRate) request.captureRate = pass.saidRate;
  return request;
}

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
  plan.foretold = demoForecast(kMorning_s);
  if (kept->empty()) {
    if (auto ok = (*log)->savePlan(DayPlan{}, plan); !ok) return tl::unexpected(ok.error());
    VerdictPlan verdict;
    verdict.interest = "One of us designed the Pellow 110, so it is shown and not graded.";
    verdict.pricesFrom = "list of the harbour shop, the week before";
    verdict.vote = demoVote(plan.rack);
    verdict.judgements = demoJudgements(plan.rack);
    verdict.wishes = {{.reading = ReadingId::WobbleFrequency, .weight = 2.0},
                      {.reading = ReadingId::WobbleAngle}};
    verdict.conclusion =
        "For a quick shimmy take the Tavver 12. The two spoons are one lure at two prices. Salt lifts the "
        "Skrell 95 out of its pause: it does not hang in every water.";
    if (auto ok = (*log)->saveVerdict(VerdictPlan{}, verdict); !ok) return tl::unexpected(ok.error());
  }
  const auto known = [&](const std::string& title) {
    return std::any_of(kept->begin(), kept->end(), [&](const LoggedPass& p) { return p.title == title; });
  };
  std::size_t done = 0;
  const std::vector<LaterDay> later = laterDays();
  std::size_t all = first.size() + further.size();
  for (const LaterDay& day : later) all += day.passes.size();
  const auto filmAll = [&](const DayPlan& of, const std::vector<DemoPass>& passes) -> Result<void> {
    const auto count = static_cast<double>(all);
    const auto begin = [&](std::size_t i) {
      const double from = static_cast<double>(done + i) / count;
      const double to = static_cast<double>(done + i + 1) / count;
      return std::async(std::launch::async, film, std::cref(passes[i]), folder / passes[i].file,
                        partOf(job, from, to));
    };
    // While one clip is followed and read, the next is filmed.
    auto filming = begin(0);
    for (std::size_t i = 0; i < passes.size(); ++i) {
      if (auto ok = filming.get(); !ok) return ok;
      if (i + 1 < passes.size()) filming = begin(i + 1);
      if (known(passes[i].title)) continue;
      if (auto ok = keep(**log, of, passes[i], folder / passes[i].file); !ok) return ok;
    }
    done += passes.size();
    return {};
  };
  if (auto ok = filmAll(plan, first); !ok) return tl::unexpected(ok.error());
  if (!known(kBoardTitle)) {
    if (auto ok = addBoard(**log, folder / "board-in-the-water.mp4"); !ok) return tl::unexpected(ok.error());
    if (auto ok = keepCalibrations(**log); !ok) return tl::unexpected(ok.error());
  }
  if (auto ok = filmAll(plan, further); !ok) return tl::unexpected(ok.error());
  if (const auto scored = (*log)->eyeScores(); scored && scored->empty()) {
    const auto passes = (*log)->passes();
    if (!passes) return tl::unexpected(passes.error());
    if (auto ok = (*log)->addEyeScores(demoEyeScores(*passes)); !ok) return tl::unexpected(ok.error());
  }
  for (const LaterDay& day : later) {
    const DayPlan made = planOf(day, plan);
    if ((*log)->plan(made.id)->sheet.empty()) {
      DayPlan none;
      none.id = made.id;
      none.rack = plan.rack;
      none.waters = plan.waters;
      if (auto ok = (*log)->savePlan(none, made); !ok) return tl::unexpected(ok.error());
    }
    if (auto ok = filmAll(made, day.passes); !ok) return tl::unexpected(ok.error());
  }
  if ((*log)->plan(kFirstWaterDay)->events.empty()) {
    for (const DayPlan& day : demoWaterDays(plan, kMorning_s)) {
      DayPlan none;
      none.id = day.id;
      none.rack = plan.rack;
      none.waters = plan.waters;
      if (auto ok = (*log)->savePlan(none, day); !ok) return tl::unexpected(ok.error());
    }
    if (auto ok = mergeHelpers(file, folder); !ok) return tl::unexpected(ok.error());
  }
  return file;
}

}  // namespace fin
