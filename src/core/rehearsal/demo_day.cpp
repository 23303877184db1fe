// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/demo_day.h"

#include <algorithm>
#include <string>
#include <vector>

#include "core/records/log.h"
#include "core/rehearsal/rehearse.h"

namespace fin {
namespace {

namespace fs = std::filesystem;

struct DemoPass {
  std::string file;
  std::string title;
  std::string rig;
  RehearsalScene scene;
};

LureBuild jerkbait() {
  return {.length_mm = 95.0, .height_mm = 21.0, .width_mm = 13.0, .lip_mm = 12.0};
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
  const StraightPull skrell{.speed_mm_s = 330.0,
                            .start_mm = -480.0,
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
  const StraightPull tavver{.speed_mm_s = 230.0,
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
  return {
      {"skrell-95-pull.mp4", "Skrell 95, straight pull from above", "Skrell 95, size 4 hooks",
       scene(jerkbait(), skrell, View::Top, 2.8, 11)},
      {"oblig-18-pull.mp4", "Oblig 18, straight pull from above", "Oblig 18, single hook",
       scene(spoon(), oblig, View::Top, 3.4, 12)},
      {"tavver-12-pull.mp4", "Tavver 12, straight pull from above", "Tavver 12, rubber skirt",
       scene(bladedBait(), tavver, View::Top, 4.2, 13)},
      {"vinto-11-fall-7g.mp4", "Vinto 11, fall on the 7 g head", "Vinto 11, 7 g head",
       scene(paddleTail(), vinto, View::Side, 2.9, 14)},
      {"vinto-11-fall-4g.mp4", "Vinto 11, fall on the 4 g head", "Vinto 11, 4 g head",
       scene(paddleTail(), vintoLight, View::Side, 4.2, 15)},
  };
}

/// A share of a longer piece of work.
JobControl partOf(const JobControl& whole, double from, double to) {
  JobControl part = whole;
  part.progress = [&whole, from, to](double share) { whole.report(from + share * (to - from)); };
  return part;
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

Result<void> keep(Log& log, const DemoPass& pass, const fs::path& file) {
  PassRequest request = requestFor(RehearsalTank(pass.scene), file);
  request.rigName = pass.rig;
  const auto id = log.addPass(pass.title, request);
  if (!id) return tl::unexpected(id.error());
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

  const std::vector<DemoPass> passes = demoPasses();
  for (std::size_t i = 0; i < passes.size(); ++i) {
    const auto from = static_cast<double>(i) / static_cast<double>(passes.size());
    const auto to = static_cast<double>(i + 1) / static_cast<double>(passes.size());
    const fs::path clip = folder / passes[i].file;
    if (auto ok = film(passes[i], clip, partOf(job, from, to)); !ok) return tl::unexpected(ok.error());
    const bool known = std::any_of(kept->begin(), kept->end(),
                                   [&](const LoggedPass& p) { return p.title == passes[i].title; });
    if (known) continue;
    if (auto ok = keep(**log, passes[i], clip); !ok) return tl::unexpected(ok.error());
  }
  return file;
}

}  // namespace fin
