// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/board_film.h"

#include <Eigen/Geometry>
#include <Eigen/LU>
#include <algorithm>
#include <cmath>
#include <numbers>
#include <opencv2/core.hpp>
#include <random>

namespace fin {
namespace {

constexpr int kSide = 3;  ///< samples of a pixel, each way
constexpr double kMargin_fields = 1.0;
constexpr double kFill = 0.42;  ///< of the picture's width that the board takes up

constexpr float kWall = 70.0F;
constexpr float kPaper = 215.0F;
constexpr float kInk = 28.0F;

/// Grey of the board at a place counted in fields from its first inner corner.
float greyAt(const LensBoard& board, float u, float v) {
  const auto margin = static_cast<float>(1.0 + kMargin_fields);
  if (u < -margin || v < -margin || u > static_cast<float>(board.columns - 1) + margin ||
      v > static_cast<float>(board.rows - 1) + margin) {
    return kWall;
  }
  const bool inside =
      u > -1.0F && v > -1.0F && u < static_cast<float>(board.columns) && v < static_cast<float>(board.rows);
  const int sum = static_cast<int>(std::floor(u)) + static_cast<int>(std::floor(v));
  return inside && (sum & 1) == 0 ? kInk : kPaper;
}

}  // namespace

void BoardFilm::castRays() {
  if (!rays_.empty()) return;
  rays_.reserve(static_cast<std::size_t>(scene_.width_px * scene_.height_px * kSide * kSide));
  for (int y = 0; y < scene_.height_px; ++y) {
    for (int x = 0; x < scene_.width_px; ++x) {
      for (int s = 0; s < kSide * kSide; ++s) {
        const double dx = (s % kSide + 0.5) / kSide - 0.5;
        const double dy = (s / kSide + 0.5) / kSide - 0.5;
        const PixelPoint p = scene_.lens.straightened({x + dx, y + dy});
        rays_.emplace_back(static_cast<float>((p.x_px - scene_.lens.cx) / scene_.lens.fx),
                           static_cast<float>((p.y_px - scene_.lens.cy) / scene_.lens.fy));
      }
    }
  }
}

/// Round the picture in a slow figure, tilted to and fro and in depth.
BoardFilm::Pose BoardFilm::poseAt(std::size_t frame) const {
  const double t = 2.0 * std::numbers::pi * static_cast<double>(frame) / static_cast<double>(scene_.frames);
  const double field = scene_.board.field.value();
  const double breadth_mm = field * (scene_.board.columns + 1);
  const double distance =
      breadth_mm * scene_.lens.fx / (kFill * scene_.width_px) * (1.0 + 0.15 * std::sin(5.0 * t));
  const double sideways = scene_.reach * 0.30 * scene_.width_px / scene_.lens.fx * std::sin(2.0 * t);
  const double down = scene_.reach * 0.22 * scene_.height_px / scene_.lens.fy * std::sin(3.0 * t + 0.5);
  const double tilt = scene_.mostTilt_deg * std::numbers::pi / 180.0;
  const Eigen::Matrix3d turn = (Eigen::AngleAxisd(tilt * std::sin(4.0 * t), Eigen::Vector3d::UnitX()) *
                                Eigen::AngleAxisd(tilt * std::cos(7.0 * t), Eigen::Vector3d::UnitY()) *
                                Eigen::AngleAxisd(0.25 * std::sin(t), Eigen::Vector3d::UnitZ()))
                                   .toRotationMatrix();
  return {turn, distance * Eigen::Vector3d(sideways, down, 1.0)};
}

std::vector<PixelPoint> BoardFilm::cornersAt(std::size_t frame) const {
  const Pose pose = poseAt(frame);
  const double field = scene_.board.field.value();
  std::vector<PixelPoint> out;
  for (int r = 0; r < scene_.board.rows; ++r) {
    for (int c = 0; c < scene_.board.columns; ++c) {
      const Eigen::Vector3d onBoard(field * (c - 0.5 * (scene_.board.columns - 1)),
                                    field * (r - 0.5 * (scene_.board.rows - 1)), 0.0);
      const Eigen::Vector3d p = pose.turn * onBoard + pose.middle_mm;
      out.push_back(scene_.lens.distorted({p.x() / p.z() * scene_.lens.fx + scene_.lens.cx,
                                           p.y() / p.z() * scene_.lens.fy + scene_.lens.cy}));
    }
  }
  return out;
}

Result<Picture> BoardFilm::frame(std::size_t frame) {
  castRays();
  const Pose pose = poseAt(frame);
  // A ray (x, y, 1) meets the board at u, v fields: the columns of turn and the middle make a homography.
  Eigen::Matrix3d toRay;
  toRay << pose.turn.col(0) * scene_.board.field.value(), pose.turn.col(1) * scene_.board.field.value(),
      pose.middle_mm;
  const Eigen::Matrix3f toBoard = toRay.inverse().cast<float>();
  const auto middleU = static_cast<float>(0.5 * (scene_.board.columns - 1));
  const auto middleV = static_cast<float>(0.5 * (scene_.board.rows - 1));
  std::mt19937 random(scene_.seed * 7919U + static_cast<unsigned>(frame));
  std::normal_distribution<float> noise(0.0F, static_cast<float>(scene_.noise_grey));
  cv::Mat grey(scene_.height_px, scene_.width_px, CV_8UC1);
  const Eigen::Vector2f* ray = rays_.data();
  for (int y = 0; y < grey.rows; ++y) {
    auto* row = grey.ptr<uchar>(y);
    for (int x = 0; x < grey.cols; ++x) {
      float sum = 0.0F;
      for (int s = 0; s < kSide * kSide; ++s, ++ray) {
        const Eigen::Vector3f p = toBoard * Eigen::Vector3f(ray->x(), ray->y(), 1.0F);
        sum += greyAt(scene_.board, p.x() / p.z() + middleU, p.y() / p.z() + middleV);
      }
      row[x] = static_cast<uchar>(std::clamp(sum / (kSide * kSide) + noise(random), 0.0F, 255.0F));
    }
  }
  return Picture::fromMat(grey);
}

}  // namespace fin
