// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/rehearse.h"

#include <algorithm>
#include <array>

namespace fin {
namespace {

constexpr double kRulerU95_mm = 0.5;
constexpr int kSoundRate_Hz = 48000;
constexpr double kClear_px = 12.0;  ///< from the picture's edge

std::vector<MarkName> marksOf(const LureBuild& lure) {
  std::vector<MarkName> marks{MarkName::Nose, MarkName::Tail};
  if (lure.tail_mm > 0.0) marks.push_back(MarkName::Tip);
  if (lure.blade_mm > 0.0) marks.push_back(MarkName::Blade);
  return marks;
}

bool wellInside(const RehearsalTank& tank, std::size_t frame) {
  const auto& camera = tank.scene().camera;
  const auto marks = marksOf(tank.scene().lure);
  return std::all_of(marks.begin(), marks.end(), [&](MarkName mark) {
    const PixelPoint p = tank.markAt(mark, frame);
    return p.x_px > kClear_px && p.y_px > kClear_px && p.x_px < camera.width_px - kClear_px &&
           p.y_px < camera.height_px - kClear_px;
  });
}

/// Whoever swims along has no ruler, but knows the lure's length and that of five tiles behind it.
void addTiles(const RehearsalScene& scene, PassRequest& request) {
  constexpr double kTiles = 5.0;
  const double tiles_mm = kTiles * scene.basin->tile_mm;
  const double half_px =
      0.5 * tiles_mm * scene.camera.focal_px / (scene.camera.distance_mm + scene.basin->wallBehind_mm);
  const PixelPoint middle{0.5 * scene.camera.width_px, 0.8 * scene.camera.height_px};
  request.followBackground = true;
  request.ownLength = OwnLength{Millimetres(scene.lure.length_mm)};
  request.scale = ScaleMark{{middle.x_px - half_px, middle.y_px},
                            {middle.x_px + half_px, middle.y_px},
                            Millimetres(tiles_mm),
                            Millimetres(2.0)};
}

/// Where water and air, and the bottom, meet the lure's plane, as far as that is in the picture.
void addLevels(const RehearsalScene& scene, PassRequest& request) {
  if (!scene.basin || scene.camera.view != View::Side) return;
  const RehearsalCamera camera(scene.camera);
  const auto level = [&](double height_mm) -> std::optional<PixelLine> {
    const double y = camera.project({0.0, height_mm, 0.0}).y_px;
    if (y < 0.0 || y > scene.camera.height_px) return std::nullopt;
    return PixelLine{{0.1 * scene.camera.width_px, y}, {0.9 * scene.camera.width_px, y}};
  };
  request.waterline = level(scene.basin->surface_mm);
  if (const auto* stand = std::get_if<Stand>(&scene.motion)) request.bottom = level(stand->bottom_mm);
}

Result<void> filmInto(const RehearsalScene& scene, const std::filesystem::path& clip,
                      std::optional<Hertz> playRate, const JobControl& job) {
  RehearsalTank tank(scene);
  ClipWriterOptions options;
  options.width_px = scene.camera.width_px;
  options.height_px = scene.camera.height_px;
  options.rate = playRate.value_or(scene.rate);
  options.quality = scene.quality;
  if (scene.sound) options.soundRate_Hz = kSoundRate_Hz;
  auto writer = ClipWriter::create(clip, options);
  if (!writer) return tl::unexpected(writer.error());
  const double slowed = scene.rate / options.rate;
  for (std::size_t n = 0; n < tank.frameCount(); ++n) {
    if (job.cancelled()) return failure(ErrorCode::Cancelled, "the rehearsal was stopped");
    const auto picture = tank.frame(n);
    if (!picture) return tl::unexpected(picture.error());
    if (auto ok = (*writer)->add(picture->rgb(), tank.timeOf(n) * slowed); !ok) return ok;
    if (scene.sound) {
      // Slowed with the picture: what was one second of sound fills as many as the picture takes.
      const auto sound = tank.soundBetween(tank.timeOf(n), tank.timeOf(n + 1), kSoundRate_Hz * slowed);
      if (auto ok = (*writer)->addSound(sound); !ok) return ok;
    }
    job.report(static_cast<double>(n + 1) / static_cast<double>(tank.frameCount()));
  }
  return (*writer)->finish();
}

}  // namespace

/// Under a name of its own, so that a clip which is there is whole.
Result<void> filmRehearsal(const RehearsalScene& scene, const std::filesystem::path& clip,
                           std::optional<Hertz> playRate, const JobControl& job) {
  std::filesystem::path unfinished = clip;
  unfinished.replace_extension("part" + clip.extension().string());
  auto filmed = filmInto(scene, unfinished, playRate, job);
  std::error_code failed;
  if (filmed) std::filesystem::rename(unfinished, clip, failed);
  if (failed)
    filmed = failure(ErrorCode::NotWritable, clip.string() + ": " + failed.message(), clip.string());
  if (!filmed) std::filesystem::remove(unfinished, failed);
  return filmed;
}

Protocol protocolOf(const Motion& motion) {
  if (std::holds_alternative<Sink>(motion)) return Protocol::Fall;
  if (const auto* jerks = std::get_if<Jerks>(&motion))
    return jerks->swing_deg > 0.0 ? Protocol::Walk : Protocol::Twitch;
  if (std::holds_alternative<Stand>(motion)) return Protocol::Rest;
  if (std::holds_alternative<Hops>(motion)) return Protocol::Hop;
  return std::holds_alternative<SkirtStop>(motion) ? Protocol::Skirt : Protocol::Retrieve;
}

PassRequest requestFor(const RehearsalTank& tank, const std::filesystem::path& clip) {
  const RehearsalScene& scene = tank.scene();
  PassRequest request;
  request.clip = clip;
  request.protocol = protocolOf(scene.motion);
  request.findStretches = std::holds_alternative<TwitchPullFall>(scene.motion);
  request.view = scene.camera.view;
  request.captureRate = scene.rate;
  request.pull = scene.camera.fromLeft ? Pull::Left : Pull::Right;
  if (scene.ruler_mm > 0.0) {
    const auto [from, to] = tank.rulerEnds();
    request.scale = ScaleMark{from, to, Millimetres(scene.ruler_mm), Millimetres(kRulerU95_mm)};
  }
  addLevels(scene, request);
  if (scene.basin && scene.chase_mm_s > 0.0) addTiles(scene, request);
  std::size_t first = 0;
  while (first + 1 < tank.frameCount() && !wellInside(tank, first)) ++first;
  std::size_t last = first;
  while (last + 1 < tank.frameCount() && wellInside(tank, last + 1)) ++last;
  request.firstFrame = first;
  request.lastFrame = last;
  for (MarkName mark : marksOf(scene.lure)) request.marks.push_back({mark, first, tank.markAt(mark, first)});
  return request;
}

OutlineSeed outlineFor(const RehearsalTank& tank, std::size_t frame) {
  const PixelPoint nose = tank.markAt(MarkName::Nose, frame);
  const PixelPoint tail = tank.markAt(MarkName::Tail, frame);
  const PixelPoint half = (nose - tail) * 0.55;
  const PixelPoint aside = PixelPoint{-half.y_px, half.x_px} * 0.35;
  const PixelPoint middle = midpoint(nose, tail);
  return {frame, {middle + half, middle + aside, middle - half, middle - aside}};
}

}  // namespace fin
