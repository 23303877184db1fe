// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/basin.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "core/rehearsal/caustics.h"
#include "core/rehearsal/chance.h"

namespace fin {
namespace {

using Eigen::Vector3d;

constexpr int kCell_px = 4;
constexpr double kDancing_mm = 130.0;  ///< of the dancing light
constexpr double kJoint_mm = 3.0;
constexpr double kVeil[] = {46.0, 104.0, 120.0};
constexpr double kTileColour[] = {112.0, 164.0, 172.0};
constexpr double kJointColour[] = {150.0, 184.0, 184.0};
constexpr double kRipple_px = 5.0;

}  // namespace

Basin::Basin(const BasinLook& look, const RehearsalCamera& camera, double travel_mm_s, double length_s)
    : look_(look), camera_(camera), travel_mm_s_(travel_mm_s) {
  const auto& setup = camera_.setup();
  still_.create(setup.height_px, setup.width_px + static_cast<int>(std::ceil(passed_px(length_s))), CV_8UC3);
  paintTiles();
  const int columns = setup.width_px / kCell_px + 2;
  const int rows = setup.height_px / kCell_px + 2;
  for (int r = 0; r < rows; ++r) {
    for (int c = 0; c < columns; ++c) cells_.push_back(meets(c * kCell_px, r * kCell_px));
  }
  if (camera_.setup().view != View::Top) {
    const PixelPoint water =
        camera_.project(-camera_.back() * look_.wallBehind_mm + Vector3d(0.0, look_.surface_mm, 0.0));
    surfaceRow_ = std::clamp(static_cast<int>(std::lround(water.y_px)), 0, still_.rows / 2);
  }
}

Basin::Meets Basin::meets(double x_px, double y_px) const {
  const auto sight = camera_.sight(x_px, y_px);
  const Vector3d back = camera_.back();
  Vector3d from = sight.from;
  Vector3d along = sight.along;
  Meets out;
  double far = -(from.dot(back) + look_.wallBehind_mm) / along.dot(back);
  const bool level = camera_.setup().view != View::Top;
  if (level && (from + far * along).y() > look_.surface_mm) {
    // The surface from below mirrors all that comes flat.
    from.y() = 2.0 * look_.surface_mm - from.y();
    along.y() = -along.y();
    out.tone = 1.12;
  }
  Vector3d place = from + far * along;
  if (level && place.y() < look_.floor_mm) {
    far = (look_.floor_mm - from.y()) / along.y();
    place = from + far * along;
    out.u_mm = place.dot(camera_.right());
    out.v_mm = place.dot(back);
    out.tone *= 1.08;
  } else {
    out.u_mm = place.dot(camera_.right());
    out.v_mm = place.dot(camera_.up());
    // Light comes from above: a wall is darker farther down.
    if (level) out.tone *= 1.0 + 0.0006 * place.y();
  }
  out.beyond_mm = std::max(-place.dot(back), 0.0);
  return out;
}

void Basin::paintTiles() {
  for (int y = 0; y < still_.rows; ++y) {
    auto* row = still_.ptr<cv::Vec3b>(y);
    for (int x = 0; x < still_.cols; ++x) {
      const Meets at = meets(x, y);
      const double u = at.u_mm / look_.tile_mm;
      const double v = at.v_mm / look_.tile_mm;
      const double off = std::min(std::abs(std::remainder(at.u_mm, look_.tile_mm)),
                                  std::abs(std::remainder(at.v_mm, look_.tile_mm)));
      const double joint = std::clamp(1.5 - off / kJoint_mm, 0.0, 1.0);
      const int a = static_cast<int>(std::floor(u + 0.5));
      const int b = static_cast<int>(std::floor(v + 0.5));
      const double tone = at.tone * (0.95 + 0.10 * chanceOf(a, b) + 0.01 * chanceOf(x, y));
      const double veil = 1.0 - std::exp(-look_.haze * (at.beyond_mm + 400.0) / 1000.0);
      for (int c = 0; c < 3; ++c) {
        const double tile = kTileColour[c] + joint * (kJointColour[c] - kTileColour[c]);
        row[x][c] = cv::saturate_cast<uchar>((1.0 - veil) * tone * tile + veil * kVeil[c]);
      }
    }
  }
}

double Basin::passed_px(double time_s) const {
  const auto& setup = camera_.setup();
  return travel_mm_s_ * time_s * setup.focal_px / (setup.distance_mm + look_.wallBehind_mm);
}

cv::Mat Basin::pictureAt(double time_s) const {
  const auto& setup = camera_.setup();
  const int columns = setup.width_px / kCell_px + 2;
  const double gone_mm = travel_mm_s_ * time_s;
  cv::Mat light(still_.rows / kCell_px + 2, columns, CV_32FC1);
  for (int r = 0; r < light.rows; ++r) {
    auto* row = light.ptr<float>(r);
    for (int c = 0; c < columns; ++c) {
      const Meets& at = cells_[static_cast<std::size_t>(r * columns + c)];
      row[c] = static_cast<float>(
          1.0 + look_.caustics * (causticAt(at.u_mm + gone_mm, at.v_mm, time_s, kDancing_mm) - 0.45));
    }
  }
  cv::Mat fine;
  cv::resize(light, fine, {}, kCell_px, kCell_px);
  cv::Mat behind = still_;
  if (travel_mm_s_ > 0.0) {
    const double moves[] = {1.0, 0.0, -passed_px(time_s), 0.0, 1.0, 0.0};
    cv::warpAffine(still_, behind, cv::Mat(2, 3, CV_64FC1, const_cast<double*>(moves)),
                   {setup.width_px, setup.height_px}, cv::INTER_LINEAR, cv::BORDER_REPLICATE);
  }
  cv::Mat out(setup.height_px, setup.width_px, CV_8UC3);
  for (int y = 0; y < out.rows; ++y) {
    const auto* from = behind.ptr<cv::Vec3b>(y);
    const auto* lit = fine.ptr<float>(y);
    auto* to = out.ptr<cv::Vec3b>(y);
    for (int x = 0; x < out.cols; ++x) {
      for (int c = 0; c < 3; ++c) to[x][c] = cv::saturate_cast<uchar>(lit[x] * from[x][c]);
    }
  }
  return out;
}

void Basin::ripple(cv::Mat& picture, double time_s) const {
  if (surfaceRow_ <= 2) return;
  const cv::Mat above = picture.rowRange(0, surfaceRow_);
  cv::Mat x(above.size(), CV_32FC1);
  cv::Mat y(above.size(), CV_32FC1);
  for (int r = 0; r < above.rows; ++r) {
    // Nearer to us, higher up in the picture, ripples look larger.
    const double large = 0.25 + 0.75 * (1.0 - static_cast<double>(r) / above.rows);
    for (int c = 0; c < above.cols; ++c) {
      const double wave = std::sin(0.045 * c / large + 0.21 * r + 3.2 * time_s) +
                          0.6 * std::sin(0.083 * c / large - 0.13 * r - 4.1 * time_s);
      x.at<float>(r, c) = static_cast<float>(c + 0.4 * kRipple_px * large * wave);
      y.at<float>(r, c) = static_cast<float>(std::min(r + kRipple_px * large * wave, above.rows - 1.0));
    }
  }
  cv::Mat moved;
  cv::remap(above, moved, x, y, cv::INTER_LINEAR, cv::BORDER_REPLICATE);
  moved.copyTo(above);
  // Where air, water and wall meet there is a bright line.
  picture.rowRange(surfaceRow_ - 2, surfaceRow_) += cv::Scalar(34, 30, 28);
}

}  // namespace fin
