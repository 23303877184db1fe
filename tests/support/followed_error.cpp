// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/followed_error.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <vector>

namespace fin::test {
namespace {

constexpr double kAllAlong_px = 0.25;
constexpr double kByTurn_px = 0.2;
constexpr double kWandering_px = 0.2;
constexpr double kWandersOver_frames = 10.0;
constexpr double kFrameToFrame_px = 0.12;

/// How far the body has turned from its middle, -1 to 1, in every frame; 0 where one mark is all there is.
std::vector<double> turnOf(const Track& track) {
  std::vector<double> turn(track.frameCount, 0.0);
  if (track.marks.size() < 2) return turn;
  double least = 1e300;
  double most = -1e300;
  for (std::size_t i = 0; i < turn.size(); ++i) {
    const PixelPoint d = track.marks[0].samples[i].at - track.marks[1].samples[i].at;
    turn[i] = std::atan2(d.y_px, d.x_px);
    if (i > 0) turn[i] = turn[i - 1] + std::remainder(turn[i] - turn[i - 1], 2.0 * std::numbers::pi);
    least = std::min(least, turn[i]);
    most = std::max(most, turn[i]);
  }
  const double half = std::max(0.5 * (most - least), 1e-9);
  for (double& t : turn) t = std::sin(std::numbers::pi / 2.0 * (t - 0.5 * (most + least)) / half);
  return turn;
}

}  // namespace

void followAsSeen(Track& track, std::mt19937& random) {
  std::normal_distribution<double> one(0.0, 1.0);
  const auto vector = [&](double sd) { return PixelPoint{sd * one(random), sd * one(random)}; };
  const std::vector<double> turn = turnOf(track);
  const double stays = std::exp(-1.0 / kWandersOver_frames);
  for (MarkTrack& m : track.marks) {
    const PixelPoint all = vector(kAllAlong_px);
    const PixelPoint turned = vector(kByTurn_px);
    PixelPoint wandering = vector(kWandering_px);
    for (std::size_t i = 0; i < m.samples.size(); ++i) {
      m.samples[i].at = m.samples[i].at + all + turned * turn[i] + wandering + vector(kFrameToFrame_px);
      wandering = wandering * stays + vector(kWandering_px * std::sqrt(1.0 - stays * stays));
    }
  }
}

void markAsPlaced(Geometry& geometry, const ScaleMark& mark, std::mt19937& random) {
  std::normal_distribution<double> half(0.0, 0.5);
  ScaleMark placed = mark;
  const auto right = Scale::create(mark, {});
  placed.length = Millimetres(mark.length.value() * (1.0 + half(random) * right->relativeU95()));
  geometry.scale = *Scale::create(placed, {});
  const double lean = half(random) * kPlumbU95_deg / kDegreesPerRadian;
  geometry.plumb = PixelLine{{0.0, 0.0}, {1000.0 * std::sin(lean), 1000.0 * std::cos(lean)}};
  if (!geometry.waterline) return;
  geometry.waterline->from.y_px += half(random) * kEndPlacingU95.value();
  geometry.waterline->to.y_px += half(random) * kEndPlacingU95.value();
}

}  // namespace fin::test
