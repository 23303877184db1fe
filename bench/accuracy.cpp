// SPDX-License-Identifier: GPL-3.0-or-later
// How well marks are followed on rehearsal footage, case by case, with what the picture allows at best beside
// it, then in a rehearsal pool, defect by defect: two tables in Markdown on standard output.
#include <fmt/format.h>

#include <cmath>
#include <filesystem>
#include <opencv2/core.hpp>
#include <vector>

#include "core/footage/clip.h"
#include "core/footage/clip_writer.h"
#include "core/rehearsal/pool.h"
#include "core/rehearsal/rehearse.h"
#include "core/tracking/background/sway.h"
#include "core/tracking/body/watch_body.h"
#include "core/tracking/marks/follow.h"

namespace {

struct Case {
  const char* what;
  fin::RehearsalScene scene;
  int quality = 0;  ///< of H.264; 0 for pictures that were never coded
};

fin::RehearsalScene base() {
  fin::RehearsalScene scene;
  scene.camera.width_px = 640;
  scene.camera.height_px = 360;
  scene.camera.view = fin::View::Top;
  scene.camera.focal_px = 1300.0;
  scene.lure.length_mm = 90.0;
  scene.motion =
      fin::StraightPull{.speed_mm_s = 240.0, .start_mm = -250.0, .wobble_Hz = 5.0, .wobble_deg = 30.0};
  scene.length = fin::Seconds(2.0);
  scene.noise_grey = 2.0;
  scene.dancingLight = 0.05;
  scene.specks = 20;
  return scene;
}

/// Paints drawn towards the wall's own colour by a share.
fin::RehearsalScene faded(double share) {
  fin::RehearsalScene scene = base();
  for (auto* paint : {&scene.lure.back, &scene.lure.belly, &scene.lure.bands}) {
    const double wall[] = {108.0, 150.0, 156.0};
    for (std::size_t c = 0; c < 3; ++c) (*paint)[c] += share * (wall[c] - (*paint)[c]);
  }
  return scene;
}

std::vector<Case> cases() {
  std::vector<Case> out{{"as usual", base()}};
  const auto with = [&](const char* what, auto change, int quality = 0) {
    Case c{what, base(), quality};
    change(c.scene);
    out.push_back(c);
  };
  with("noise 0.5 grey levels", [](auto& s) { s.noise_grey = 0.5; });
  with("noise 5", [](auto& s) { s.noise_grey = 5.0; });
  with("noise 10", [](auto& s) { s.noise_grey = 10.0; });
  out.push_back({"paint faded by half", faded(0.5)});
  out.push_back({"paint faded by three quarters", faded(0.75)});
  with("shutter open 10 % of the frame", [](auto& s) { s.exposure = 0.1; });
  with("shutter open 60 %", [](auto& s) { s.exposure = 0.6; });
  with("shutter open 95 %", [](auto& s) { s.exposure = 0.95; });
  with("body of 50 px", [](auto& s) { s.camera.focal_px = 800.0; });
  with("body of 110 px", [](auto& s) { s.camera.focal_px = 1850.0; });
  with("light that dances by 20 %", [](auto& s) { s.dancingLight = 0.2; });
  with(
      "H.264, constant rate factor 18", [](auto&) {}, 18);
  with(
      "H.264, 26", [](auto&) {}, 26);
  with(
      "H.264, 34", [](auto&) {}, 34);
  return out;
}

/// The least standard deviation in px, both ways together, that any method could have on a spot of 7 px
/// radius in white noise: the Cramér–Rao bound of a shift, from the noise-free picture's slopes.
double floorOf(fin::RehearsalScene scene, fin::MarkName mark, std::size_t frame) {
  const double noise = scene.noise_grey;
  scene.noise_grey = 0.0;
  fin::RehearsalTank tank(scene);
  const auto picture = *tank.frame(frame);
  const fin::PixelPoint at = tank.markAt(mark, frame);
  double xx = 0.0;
  double xy = 0.0;
  double yy = 0.0;
  const cv::Mat& grey = picture.grey();
  for (int dy = -7; dy <= 7; ++dy) {
    for (int dx = -7; dx <= 7; ++dx) {
      const int x = static_cast<int>(std::lround(at.x_px)) + dx;
      const int y = static_cast<int>(std::lround(at.y_px)) + dy;
      if (std::hypot(dx, dy) > 7.0 || x < 1 || y < 1 || x + 1 >= grey.cols || y + 1 >= grey.rows) continue;
      const double gx = 0.5 * (grey.at<uchar>(y, x + 1) - grey.at<uchar>(y, x - 1));
      const double gy = 0.5 * (grey.at<uchar>(y + 1, x) - grey.at<uchar>(y - 1, x));
      xx += gx * gx;
      xy += gx * gy;
      yy += gy * gy;
    }
  }
  return noise * std::sqrt((xx + yy) / std::max(xx * yy - xy * xy, 1e-9));
}

struct Errors {
  double rms = 0.0;      ///< px
  double scatter = 0.0;  ///< from frame to frame: what is left without the slow part
  double seen = 0.0;     ///< share
};

Errors errorsOf(const fin::RehearsalTank& tank, const fin::MarkTrack& mark, std::size_t first) {
  std::vector<fin::PixelPoint> errors;
  for (std::size_t i = 0; i < mark.samples.size(); ++i) {
    if (mark.samples[i].seen) errors.push_back(mark.samples[i].at - tank.markAt(mark.name, first + i));
  }
  Errors out;
  double power = 0.0;
  double step = 0.0;
  for (std::size_t i = 0; i < errors.size(); ++i) {
    power += std::pow(fin::length(errors[i]).value(), 2);
    // The second difference of white noise has six times its variance.
    if (i >= 2)
      step += std::pow(fin::length(errors[i] - errors[i - 1] * 2.0 + errors[i - 2]).value(), 2) / 6.0;
  }
  const auto n = static_cast<double>(errors.size());
  out.rms = std::sqrt(power / n);
  out.scatter = std::sqrt(step / std::max(n - 2.0, 1.0));
  out.seen = n / static_cast<double>(mark.samples.size());
  return out;
}

fin::Result<fin::Track> follow(const Case& c, fin::RehearsalTank& tank, const fin::FollowRequest& request) {
  if (c.quality == 0) return fin::followMarks(tank, request);
  const auto file = std::filesystem::temp_directory_path() / "agile-fin-accuracy.mp4";
  fin::ClipWriterOptions options;
  options.width_px = c.scene.camera.width_px;
  options.height_px = c.scene.camera.height_px;
  options.rate = c.scene.rate;
  options.quality = c.quality;
  auto writer = fin::ClipWriter::create(file, options);
  if (!writer) return tl::unexpected(writer.error());
  for (std::size_t n = 0; n < tank.frameCount(); ++n) {
    if (auto ok = (*writer)->add(tank.frame(n)->rgb(), tank.timeOf(n)); !ok)
      return tl::unexpected(ok.error());
  }
  if (auto ok = (*writer)->finish(); !ok) return tl::unexpected(ok.error());
  auto clip = fin::Clip::open(file);
  if (!clip) return tl::unexpected(clip.error());
  auto source = fin::Clip::reader(*clip, {});
  if (!source) return tl::unexpected(source.error());
  auto track = fin::followMarks(**source, request);
  std::filesystem::remove(file);
  return track;
}

struct PoolCase {
  const char* what;
  fin::PoolDefects defects;
};

std::vector<PoolCase> poolCases() {
  return {{"a clean tank", {}},
          {"caustics, 40 % of the light", {.caustics = 0.4}},
          {"haze, half of the contrast", {.haze = 0.5}},
          {"flicker, 12 %", {.flicker = 0.12, .flicker_Hz = 37.0}},
          {"exposure step, 30 %", {.exposureStep = 0.3}},
          {"white balance drift, 20 %", {.whiteBalanceDrift = 0.2}},
          {"sway of 3 px", {.sway_px = 3.0}},
          {"rolling shutter, 12 ms", {.rollingShutter = fin::Seconds(0.012)}},
          {"a leaf before it", {.leaf = true}},
          {"a leader", {.leader = true}},
          {"a mirroring surface", {.mirrorAbove_px = 100.0}},
          {"a second lure", {.secondLure = true}},
          {"all but the leaf and the others",
           {.caustics = 0.3,
            .haze = 0.3,
            .flicker = 0.05,
            .flicker_Hz = 37.0,
            .exposureStep = 0.2,
            .whiteBalanceDrift = 0.1,
            .sway_px = 2.0,
            .rollingShutter = fin::Seconds(0.008),
            .leader = true}}};
}

struct Held {
  double within = 0.0;   ///< share of the frames within 3 px
  double sure = 0.0;     ///< surely seen
  double falsely = 0.0;  ///< surely seen, and farther off
};

/// The ends of a lure in a pool, followed as a pass follows them, against their true places.
fin::Result<std::string> poolRow(const PoolCase& c, const fin::RehearsalScene& scene) {
  fin::RehearsalPool pool(scene, c.defects);
  const fin::PassRequest said = fin::requestFor(pool.tank(), {});
  std::vector<fin::MarkSeed> seeds = said.marks;
  for (fin::MarkSeed& seed : seeds) seed.at = pool.markAt(seed.name, seed.frame);
  fin::FilmingFrameSource filming(pool, fin::length(seeds[0].at - seeds[1].at).value(), 400'000'000);
  auto track = fin::followMarks(filming, {seeds, said.firstFrame, *said.lastFrame, {}});
  if (!track) return tl::unexpected(track.error());
  const auto held = [&] {
    Held out;
    double all = 0.0;
    for (const fin::MarkTrack& mark : track->marks) {
      for (std::size_t i = 0; i < track->frameCount; ++i) {
        const fin::MarkSample& s = mark.samples[i];
        const bool near =
            s.seen && fin::length(s.at - pool.markAt(mark.name, track->firstFrame + i)).value() <= 3.0;
        const bool sure = s.seen && s.quality >= fin::kDoubtfulBelow;
        all += 1.0;
        out.within += near ? 1.0 : 0.0;
        out.sure += sure ? 1.0 : 0.0;
        out.falsely += sure && !near ? 1.0 : 0.0;
      }
    }
    return Held{100.0 * out.within / all, 100.0 * out.sure / all, 100.0 * out.falsely / all};
  };
  const Held alone = held();
  if (auto ok = fin::watchBody(filming, {seeds, {}, false, fin::turnsOf(said)}, *track); !ok)
    return tl::unexpected(ok.error());
  const Held both = held();
  const auto sway = fin::findSway(filming, *track);
  if (!sway) return tl::unexpected(sway.error());
  return fmt::format("{:.0f} % | {:.0f} % | {:.1f} % | {:.0f} % | {:.0f} % | {:.1f} % | {}", alone.within,
                     alone.sure, alone.falsely, both.within, both.sure, both.falsely,
                     sway->empty() ? std::string("no") : fmt::format("{:.1f} px", fin::swayOf_px(*sway)));
}

void printPools() {
  fmt::print(
      "\n| pool | marks alone: within 3 px | sure | falsely | with the body: within 3 px | sure | falsely | "
      "sway |\n");
  fmt::print("|---|---|---|---|---|---|---|---|\n");
  fin::RehearsalScene plain = faded(0.5);
  plain.lure.rings = 0.2;
  for (const PoolCase& c : poolCases()) {
    const auto row = poolRow(c, plain);
    fmt::print("| {} | {} |\n", c.what, row ? *row : row.error().message);
  }
}

}  // namespace

int main() {
  fmt::print("| case | nose: RMS, px | scatter | floor | tail: RMS, px | scatter | floor | seen |\n");
  fmt::print("|---|---|---|---|---|---|---|---|\n");
  for (const Case& c : cases()) {
    fin::RehearsalTank tank(c.scene);
    const fin::PassRequest said = fin::requestFor(tank, {});
    const auto track = follow(c, tank, {said.marks, said.firstFrame, *said.lastFrame, {}});
    if (!track) {
      fmt::print("| {} | {} |\n", c.what, track.error().message);
      continue;
    }
    std::string row = fmt::format("| {} |", c.what);
    double seen = 1.0;
    for (const fin::MarkName name : {fin::MarkName::Nose, fin::MarkName::Tail}) {
      const Errors e = errorsOf(tank, *track->find(name), track->firstFrame);
      seen = std::min(seen, e.seen);
      row += fmt::format(" {:.2f} | {:.3f} | {:.3f} |", e.rms, e.scatter,
                         floorOf(c.scene, name, said.firstFrame + 40));
    }
    fmt::print("{} {:.0f} % |\n", row, 100.0 * seen);
  }
  printPools();
  return 0;
}