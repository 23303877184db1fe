// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/flank.h"

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/tracking/frame_walk.h"
#include "core/tracking/marks/mark_detail.h"

namespace fin {
namespace {

constexpr int kFlankRadius_px = 9;
constexpr double kOffLine = 0.08;  ///< of the body's length, that the spot may lie off its line
constexpr double kSurely = 0.6;    ///< likeness
constexpr double kWanders = 0.3;
constexpr double kLeastContrast = 0.4;
constexpr std::size_t kMostPlaces = 60;
constexpr double kBeside_px = 1.5;
constexpr double kRim_px = 2.0;

PixelPoint axisOf(const OutlineSample& outline) {
  return {std::cos(outline.angle_rad), std::sin(outline.angle_rad)};
}

/// px from the outline's middle, along its axis. (Its length would be no measure: a bit of line may hang on.)
double alongOf(const OutlineSample& outline, PixelPoint at) {
  const PixelPoint d = at - outline.centre;
  const PixelPoint axis = axisOf(outline);
  return d.x_px * axis.x_px + d.y_px * axis.y_px;
}

/// How far a place lies within the rim, across the body; negative outside of it.
double rimAway(const OutlineSample& outline, PixelPoint at) {
  const PixelPoint axis = axisOf(outline);
  double low = 0.0;
  double high = 0.0;
  for (const auto& rim : outline.contours) {
    for (const PixelPoint p : rim) {
      const PixelPoint d = p - at;
      if (std::abs(d.x_px * axis.x_px + d.y_px * axis.y_px) > kBeside_px) continue;
      const double across = d.y_px * axis.x_px - d.x_px * axis.y_px;
      low = std::min(low, across);
      high = std::max(high, across);
    }
  }
  return std::min(high, -low);
}

MarkSample search(const Picture& picture, const MarkDetail& detail, const OutlineSample& outline,
                  double along) {
  const PixelPoint middle = outline.centre + axisOf(outline) * along;
  const int reach = static_cast<int>(std::ceil(0.5 * outline.width_px)) + 2;
  MarkSample best;
  for (const PixelPoint at : detail.places(picture, {middle, 0.0}, reach, kMostPlaces)) {
    // The rim itself may look like a spot: before it, what lies behind the lure.
    if (std::abs(alongOf(outline, at) - along) > kOffLine * outline.length_px ||
        rimAway(outline, at) < kRim_px)
      continue;
    // Likeness knows no contrast: a faint speckle of the right shape is not the spot.
    const double contrast = detail.contrastAt(picture, at);
    const double worth = detail.likenessAt(picture, {at, 0.0}) * std::min(contrast, 1.0);
    if (contrast < kLeastContrast || worth < kSurely * kLeastContrast || worth <= best.quality) continue;
    best = {true, detail.settle(picture, {at, 0.0}).value_or(at), worth};
  }
  return best;
}

}  // namespace

Result<void> findFlank(FrameSource& source, const std::vector<MarkSeed>& seeds, Track& track,
                       const JobControl& job) {
  const auto flank = std::find_if(track.marks.begin(), track.marks.end(),
                                  [](const MarkTrack& m) { return m.name == MarkName::Flank; });
  const auto seed =
      std::find_if(seeds.begin(), seeds.end(), [](const MarkSeed& s) { return s.name == MarkName::Flank; });
  if (flank == track.marks.end() || seed == seeds.end() || track.outline.empty()) return {};
  const OutlineSample& there = track.outline[seed->frame - track.firstFrame];
  if (!there.seen || !there.whole) return {};
  const auto picture = source.frame(seed->frame);
  if (!picture) return tl::unexpected(picture.error());
  MarkDetail detail;
  detail.addGiven(*picture, {seed->at, 0.0}, kFlankRadius_px);
  if (!detail.standsOut()) return {};

  std::vector<MarkSample> found(track.frameCount);
  double along = alongOf(there, seed->at);
  const auto visit = [&](std::size_t n, const Picture* shown) -> Result<void> {
    const OutlineSample& outline = track.outline[n - track.firstFrame];
    if (shown == nullptr || !outline.seen || !outline.whole) return {};
    MarkSample& sample = found[n - track.firstFrame];
    sample = search(*shown, detail, outline, along);
    // The spot is nearer than the rim: it wanders along the body as the lure crosses the view.
    if (sample.seen) along += kWanders * (alongOf(outline, sample.at) - along);
    return {};
  };
  const std::size_t last = track.firstFrame + track.frameCount - 1;
  if (auto ok = walkForwards(source, seed->frame, last, partOf(job, 0.0, 0.5), visit); !ok) return ok;
  along = alongOf(there, seed->at);
  if (auto ok = walkBackwards(source, track.firstFrame, seed->frame, partOf(job, 0.5, 1.0), visit); !ok)
    return ok;
  for (const MarkSeed& s : seeds) {
    if (s.name == MarkName::Flank) found[s.frame - track.firstFrame] = {true, s.at, 1.0};
  }
  flank->samples = std::move(found);
  return {};
}

}  // namespace fin
