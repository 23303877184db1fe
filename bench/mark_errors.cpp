// SPDX-License-Identifier: GPL-3.0-or-later
// What a followed mark is off by, by the body's length in the picture: the long run's part (markPlaceU95)
// and the part that goes with the pose (kMarkMoveU95), without what a hand adds. A table in Markdown.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <filesystem>
#include <vector>

#include "core/footage/clip.h"
#include "core/rehearsal/rehearse.h"
#include "core/tracking/marks/follow.h"

namespace {

struct Errors {
  std::vector<double> place_px;  ///< mean offset of a mark over a pass, along and across
  std::vector<double> move_px;   ///< from one end of the swing to the other
};

/// The picture is as wide as four and a half bodies.
fin::RehearsalScene sceneFor(double body_px, unsigned seed) {
  fin::RehearsalScene scene;
  scene.seed = seed;
  scene.camera.view = fin::View::Top;
  scene.lure.length_mm = 90.0;
  scene.camera.focal_px = scene.camera.distance_mm * body_px / scene.lure.length_mm;
  scene.camera.width_px = std::max(480, static_cast<int>(4.5 * body_px) / 16 * 16);
  scene.camera.height_px = scene.camera.width_px * 9 / 16 / 2 * 2;
  const double seen_mm = scene.camera.width_px * scene.camera.distance_mm / scene.camera.focal_px;
  fin::StraightPull pull{.speed_mm_s = 160.0 + 17.0 * seed, .start_mm = -0.5 * seen_mm + 100.0};
  pull.wobble_Hz = 4.0 + 0.6 * seed;
  pull.wobble_deg = 18.0 + 4.0 * seed;
  scene.motion = pull;
  scene.length = fin::Seconds((seen_mm - 200.0) / pull.speed_mm_s);
  scene.noise_grey = 2.0;
  scene.dancingLight = 0.05;
  return scene;
}

double meanOf(const std::vector<double>& values) {
  double sum = 0.0;
  for (const double v : values) sum += v;
  return values.empty() ? 0.0 : sum / static_cast<double>(values.size());
}

bool addErrors(const fin::RehearsalScene& scene, Errors& out) {
  const fin::RehearsalTank tank(scene);
  const auto file = std::filesystem::temp_directory_path() / "agile-fin-mark-errors.mp4";
  if (!fin::filmRehearsal(scene, file)) return false;
  const auto clip = fin::Clip::open(file);
  if (!clip) return false;
  const auto source = fin::Clip::reader(*clip, {});
  const fin::PassRequest said = requestFor(tank, file);
  const auto track = followMarks(
      **source, {said.marks, said.firstFrame, said.lastFrame.value_or(tank.frameCount() - 1), {}});
  std::filesystem::remove(file);
  if (!track) return false;
  for (const fin::MarkTrack& mark : track->marks) {
    std::vector<double> along, across, left, right;
    for (std::size_t i = 0; i < track->frameCount; ++i) {
      if (!mark.samples[i].seen) continue;
      const std::size_t n = track->firstFrame + i;
      const fin::PixelPoint nose = tank.markAt(fin::MarkName::Nose, n);
      const fin::PixelPoint axis = nose - tank.markAt(fin::MarkName::Tail, n);
      const fin::PixelPoint off = mark.samples[i].at - tank.markAt(mark.name, n);
      along.push_back(off.x_px);
      across.push_back(off.y_px);
      const double turned_deg = std::atan2(axis.y_px, std::abs(axis.x_px)) * fin::kDegreesPerRadian;
      if (std::abs(turned_deg) > 0.35 * std::get<fin::StraightPull>(scene.motion).wobble_deg)
        (turned_deg > 0.0 ? left : right).push_back(off.y_px);
    }
    out.place_px.push_back(meanOf(along));
    out.place_px.push_back(meanOf(across));
    if (!left.empty() && !right.empty()) out.move_px.push_back(meanOf(left) - meanOf(right));
  }
  return true;
}

/// Within which 95 of 100 lie, taken as normal about nought.
double u95Of(const std::vector<double>& values) {
  double squares = 0.0;
  for (const double v : values) squares += v * v;
  return 1.96 * std::sqrt(squares / static_cast<double>(std::max<std::size_t>(values.size(), 1)));
}

}  // namespace

int main(int argc, char** argv) {
  const unsigned passes = argc > 1 ? static_cast<unsigned>(std::max(std::atoi(argv[1]), 1)) : 6;
  fmt::print("| body, px | long run, px (95 %) | with the pose, px (95 %) | marks |\n|---|---|---|---|\n");
  for (const double body_px : {50.0, 90.0, 150.0, 220.0, 300.0}) {
    Errors errors;
    for (unsigned seed = 1; seed <= passes; ++seed) {
      if (!addErrors(sceneFor(body_px, seed), errors))
        fmt::print(stderr, "{} px, {}: not followed\n", body_px, seed);
    }
    fmt::print("| {:.0f} | {:.2f} | {:.2f} | {} |\n", body_px, u95Of(errors.place_px), u95Of(errors.move_px),
               errors.move_px.size());
  }
}
