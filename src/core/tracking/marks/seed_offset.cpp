// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/seed_offset.h"

#include <Eigen/Dense>
#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

namespace fin {
namespace {

constexpr std::ptrdiff_t kEitherWay_frames = 6;
constexpr int kFewest = 6;
constexpr double kUsual_px = 0.35;    ///< how far details lie from where a person presses, all along
constexpr double kTurning_px = 0.3;   ///< and at one instant, by how the body happens to lie then
constexpr double kQuietest_px = 0.1;  ///< no following is better than this from frame to frame
constexpr double kRough_px = 0.6;     ///< residual of the smooth path: above, the mark moves otherwise
constexpr double kFarthestOffset_px = 1.5;

/// Seed minus smooth path, in the body's own directions, believed as far as it is better known than guessed.
std::optional<PixelPoint> offsetAt(const FollowedMark& mark, const SeedPlace& seed) {
  std::vector<Eigen::Vector3d> rows;
  std::vector<Eigen::Vector2d> places;
  for (std::ptrdiff_t step = -kEitherWay_frames; step <= kEitherWay_frames; ++step) {
    const auto n = static_cast<std::ptrdiff_t>(seed.frame) + step;
    if (n < 0 || n >= std::ssize(mark.frames)) continue;
    const auto& f = mark.frames[static_cast<std::size_t>(n)];
    if (!f.sample.seen || !f.byDetail) continue;
    const auto t = static_cast<double>(step);
    rows.emplace_back(1.0, t, t * t);
    places.emplace_back(f.sample.at.x_px, f.sample.at.y_px);
  }
  if (std::ssize(rows) < kFewest) return std::nullopt;
  Eigen::MatrixXd a(rows.size(), 3);
  Eigen::MatrixXd b(rows.size(), 2);
  for (std::size_t i = 0; i < rows.size(); ++i) {
    a.row(static_cast<Eigen::Index>(i)) = rows[i];
    b.row(static_cast<Eigen::Index>(i)) = places[i];
  }
  const Eigen::MatrixXd path = a.colPivHouseholderQr().solve(b);
  const double residual =
      (a * path - b).norm() / std::sqrt(std::max<double>(static_cast<double>(rows.size()) - 3.0, 1.0));
  const PixelPoint off = seed.at - PixelPoint{path(0, 0), path(0, 1)};
  if (residual > kRough_px || length(off).value() > kFarthestOffset_px) return std::nullopt;
  const double leverage = (a.transpose() * a).inverse()(0, 0);
  const double noise2 = leverage * std::pow(std::max(residual / std::numbers::sqrt2, kQuietest_px), 2) +
                        kTurning_px * kTurning_px;
  const PixelPoint believed = off * (kUsual_px * kUsual_px / (kUsual_px * kUsual_px + noise2));
  return PatchPose{{}, -seed.angle_rad, 1.0 / seed.scale}.at(believed);
}

}  // namespace

void alignToSeeds(FollowedMark& mark, std::span<const SeedPlace> seeds) {
  PixelPoint sum;
  double count = 0.0;
  for (const SeedPlace& seed : seeds) {
    if (const auto off = offsetAt(mark, seed)) {
      sum = sum + *off;
      count += 1.0;
    }
  }
  for (auto& f : mark.frames) {
    if (count > 0.0 && f.sample.seen && f.byDetail)
      f.sample.at = PatchPose{f.sample.at, f.angle_rad, f.scale}.at(sum * (1.0 / count));
  }
  for (const SeedPlace& seed : seeds) mark.frames[seed.frame].sample = {true, seed.at, 1.0};
}

}  // namespace fin
