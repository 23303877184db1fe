// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/calibration/lens.h"

#include <algorithm>
#include <cmath>

namespace fin {
namespace {

constexpr int kSteps = 40;
constexpr double kSettled = 1e-9;  ///< on the plane at unit distance

/// Distorted place of a point on the plane at unit distance.
PixelPoint bent(const Lens& lens, PixelPoint p) {
  const auto& [k1, k2, p1, p2, k3] = lens.k;
  const double x = p.x_px;
  const double y = p.y_px;
  const double r2 = x * x + y * y;
  const double radial = 1.0 + r2 * (k1 + r2 * (k2 + r2 * k3));
  return {x * radial + 2.0 * p1 * x * y + p2 * (r2 + 2.0 * x * x),
          y * radial + p1 * (r2 + 2.0 * y * y) + 2.0 * p2 * x * y};
}

}  // namespace

Result<void> Lens::validate() const {
  const bool finite = std::isfinite(cx) && std::isfinite(cy) && std::isfinite(fx) && std::isfinite(fy) &&
                      std::all_of(k.begin(), k.end(), [](double v) { return std::isfinite(v); });
  if (!finite || fx <= 0.0 || fy <= 0.0) {
    return failure(ErrorCode::BadRequest, "lens: focal lengths must be more than zero", "lens");
  }
  return {};
}

PixelPoint Lens::straightened(PixelPoint seen) const {
  const PixelPoint target{(seen.x_px - cx) / fx, (seen.y_px - cy) / fy};
  PixelPoint guess = target;
  for (int i = 0; i < kSteps; ++i) {
    const PixelPoint miss = target - bent(*this, guess);
    guess = guess + miss;
    if (std::abs(miss.x_px) + std::abs(miss.y_px) < kSettled) break;
  }
  return {guess.x_px * fx + cx, guess.y_px * fy + cy};
}

PixelPoint Lens::distorted(PixelPoint straight) const {
  const PixelPoint d = bent(*this, {(straight.x_px - cx) / fx, (straight.y_px - cy) / fy});
  return {d.x_px * fx + cx, d.y_px * fy + cy};
}

}  // namespace fin
