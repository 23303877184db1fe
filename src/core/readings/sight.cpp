// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/sight.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace fin {
namespace {

constexpr double kUsualFocal = 0.82;  ///< of the picture's width

/// Where a mark is in the flat picture, in a frame that shows it surely.
std::optional<PixelPoint> placeOf(const Track& track, MarkName name, std::size_t i,
                                  const Geometry& geometry) {
  const MarkTrack* mark = track.find(name);
  if (mark == nullptr || !mark->samples[i].seen || mark->samples[i].quality < kDoubtfulBelow)
    return std::nullopt;
  return geometry.picture.flat(mark->samples[i].at);
}

}  // namespace

double SightTrace::sightRange_rad() const {
  if (sight_rad.empty()) return 0.0;
  const auto [least, most] = std::minmax_element(sight_rad.begin(), sight_rad.end());
  return *most - *least;
}

SightTrace traceSight(const Track& track, std::span<const double> time_s, const Geometry& geometry,
                      const SightView& view) {
  SightTrace out;
  out.view = view;
  const double focal = view.focal_px.value_or(kUsualFocal * view.width_px);
  SightCue length{{}, false};
  SightCue bob{{}, false};
  SightCue pitch{{}, true};
  SightCue flank{{}, true};
  SightCue parts{{}, true};
  double ahead = 1.0;
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    const auto nose = placeOf(track, MarkName::Nose, i, geometry);
    const auto tail = placeOf(track, MarkName::Tail, i, geometry);
    if (!nose || !tail) continue;
    const PixelPoint axis = *nose - *tail;
    const double apart = fin::length(axis).value();
    if (apart <= 0.0) continue;
    if (out.t_s.empty()) ahead = axis.x_px < 0.0 ? -1.0 : 1.0;
    const PixelPoint centre = midpoint(*nose, *tail);
    const double sight = std::atan(ahead * (centre.x_px - view.middle.x_px) / focal);
    out.t_s.push_back(time_s[i]);
    out.sight_rad.push_back(sight);
    out.length_px.push_back(apart * std::cos(sight));
    length.px.add(time_s[i], out.length_px.back());
    bob.px.add(time_s[i], centre.y_px);
    pitch.px.add(time_s[i], tail->y_px - nose->y_px);
    const PixelPoint across{-axis.y_px / apart, axis.x_px / apart};
    if (const auto spot = placeOf(track, MarkName::Flank, i, geometry))
      flank.px.add(time_s[i], dot(*spot - centre, across));
    if (const auto mid = placeOf(track, MarkName::Mid, i, geometry)) {
      // The parts before and behind it grow and shrink by turns, whatever the whole does.
      parts.px.add(time_s[i], dot(*mid - *tail, axis) / (apart * apart));
    }
  }
  if (flank.px.size() >= 8) out.rollSwing_px = std::numbers::sqrt2 * robustSpread(flank.px.y);
  for (double& share : parts.px.y) share *= median(out.length_px);
  for (SightCue* cue : {&length, &bob, &pitch, &flank, &parts}) {
    if (cue->px.size() >= 8) out.cues.push_back(std::move(*cue));
  }
  if (out.cues.empty()) return {};
  const double spacing = out.cues.front().px.spacing_s();
  out.frameRate_Hz = spacing > 0.0 ? 1.0 / spacing : 0.0;
  return out;
}

}  // namespace fin
