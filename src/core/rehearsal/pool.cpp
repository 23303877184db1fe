// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/pool.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <opencv2/imgproc.hpp>

#include "core/rehearsal/caustics.h"

namespace fin {
namespace {

constexpr int kBands = 6;          ///< in which a rolling shutter's picture is made
constexpr double kLine_px = 90.0;  ///< about so far apart are bright lines
constexpr int kCausticCell_px = 3;
constexpr double kLeafCrosses_s = 0.5;
constexpr double kMirrored = 0.5;

/// The share of a leaf's drift that has gone by, about the middle of the clip.
double driftAt(double time_s, double length_s) {
  return (time_s - 0.5 * length_s) / kLeafCrosses_s;
}

}  // namespace

RehearsalPool::RehearsalPool(RehearsalScene scene, const PoolDefects& defects)
    : tank_(std::move(scene)), defects_(defects) {}

PixelPoint RehearsalPool::swayAt(std::size_t frame) const {
  const double t = tank_.timeOf(frame).value();
  return PixelPoint{0.7 * std::sin(7.3 * t) + 0.3 * std::sin(17.0 * t + 1.0),
                    0.6 * std::sin(5.9 * t + 2.0) + 0.4 * std::sin(13.0 * t)} *
             defects_.sway_px +
         PixelPoint{-defects_.carried_px * t / tank_.scene().length.value(), 0.0};
}

PixelPoint RehearsalPool::markAt(MarkName mark, std::size_t frame) const {
  return tank_.markAt(mark, frame) + swayAt(frame);
}

Result<Picture> RehearsalPool::frame(std::size_t n) {
  if (n >= frameCount()) return failure(ErrorCode::BadRequest, "this frame is past the end of the rehearsal");
  const Seconds instant = tank_.instantOf(n);
  cv::Mat picture;
  if (defects_.rollingShutter.value() > 0.0) {
    const RehearsalCamera::Setup& camera = tank_.scene().camera;
    picture.create(camera.height_px, camera.width_px, CV_8UC3);
    for (int band = 0; band < kBands; ++band) {
      const int from = band * picture.rows / kBands;
      const int to = (band + 1) * picture.rows / kBands;
      const Seconds late = defects_.rollingShutter * (0.5 * (from + to) / picture.rows);
      pictureAt(instant + late).rowRange(from, to).copyTo(picture.rowRange(from, to));
    }
  } else {
    picture = pictureAt(instant);
  }
  changeLight(picture, instant);
  if (defects_.sway_px > 0.0 || defects_.carried_px > 0.0) {
    const PixelPoint by = swayAt(n);
    const double moves[] = {1.0, 0.0, by.x_px, 0.0, 1.0, by.y_px};
    cv::warpAffine(picture.clone(), picture, cv::Mat(2, 3, CV_64FC1, const_cast<double*>(moves)),
                   picture.size(), cv::INTER_LINEAR, cv::BORDER_REPLICATE);
  }
  tank_.addNoise(picture, n);
  return Picture::fromMat(picture);
}

cv::Mat RehearsalPool::pictureAt(Seconds instant) const {
  cv::Mat picture = tank_.pictureAt(instant);
  if (defects_.secondLure) addOtherLure(picture, instant);
  if (defects_.mirrorAbove_px > 0.0) addMirror(picture);
  if (defects_.leader) addLeader(picture, instant);
  if (defects_.leaf) addLeaf(picture, instant);
  return picture;
}

/// A thin, half see-through line from the nose to the picture's edge, level, to the side that the nose is at.
void RehearsalPool::addLeader(cv::Mat& picture, Seconds instant) const {
  const PixelPoint nose = tank_.markAtTime(MarkName::Nose, instant);
  const PixelPoint axis = nose - tank_.markAtTime(MarkName::Tail, instant);
  const PixelPoint end = nose + PixelPoint{axis.x_px < 0.0 ? -1.0 : 1.0, 0.0} * picture.cols;
  cv::Mat over = picture.clone();
  cv::line(over, {static_cast<int>(nose.x_px), static_cast<int>(nose.y_px)},
           {static_cast<int>(end.x_px), static_cast<int>(end.y_px)}, cv::Scalar(225, 228, 225), 1,
           cv::LINE_AA);
  cv::addWeighted(over, 0.5, picture, 0.5, 0.0, picture);
}

/// Past the place where the lure is in the middle of the clip, as long as the lure is high.
void RehearsalPool::addLeaf(cv::Mat& picture, Seconds instant) const {
  const double length_s = tank_.scene().length.value();
  const double share = driftAt(instant.value(), length_s);
  if (std::abs(share) > 1.0) return;
  const PixelPoint nose = tank_.markAtTime(MarkName::Nose, Seconds(0.5 * length_s));
  const PixelPoint tail = tank_.markAtTime(MarkName::Tail, Seconds(0.5 * length_s));
  const double body = length(nose - tail).value();
  const PixelPoint at = midpoint(nose, tail) + PixelPoint{0.4, 1.0} * (1.6 * body * share);
  cv::ellipse(picture,
              {{static_cast<float>(at.x_px), static_cast<float>(at.y_px)},
               {static_cast<float>(0.45 * body), static_cast<float>(0.25 * body)},
               static_cast<float>(40.0 + 60.0 * share)},
              cv::Scalar(96, 84, 40), cv::FILLED, cv::LINE_AA);
}

/// The lure of the same moment counted from the clip's end, turned over, half a body lower.
void RehearsalPool::addOtherLure(cv::Mat& picture, Seconds instant) const {
  RehearsalTank::Painted other = tank_.paintedLure(tank_.scene().length - instant);
  if (other.box.empty()) return;
  cv::flip(other.paint, other.paint, 1);
  other.box.x = picture.cols - other.box.x - other.box.width;
  other.box.y += other.box.height;
  const cv::Rect inside = other.box & cv::Rect({}, picture.size());
  if (inside.empty()) return;
  other.paint = other.paint(inside - other.box.tl());
  other.box = inside;
  RehearsalTank::layOver(picture, other);
}

void RehearsalPool::addMirror(cv::Mat& picture) const {
  const int surface = std::min(static_cast<int>(defects_.mirrorAbove_px), picture.rows / 2);
  cv::Mat turned;
  cv::flip(picture.rowRange(surface, 2 * surface), turned, 0);
  cv::Mat above = picture.rowRange(0, surface);
  cv::addWeighted(turned, kMirrored, above, 1.0 - kMirrored, 12.0, above);
}

void RehearsalPool::changeLight(cv::Mat& picture, Seconds instant) const {
  const double t = instant.value();
  const double length_s = tank_.scene().length.value();
  const double step = t > 0.5 * length_s ? 1.0 + defects_.exposureStep : 1.0;
  const double flicker = 1.0 + defects_.flicker * std::sin(2.0 * std::numbers::pi * defects_.flicker_Hz * t);
  const double drift = defects_.whiteBalanceDrift * t / length_s;
  const std::array<double, 3> gain{step * flicker * (1.0 + drift), step * flicker,
                                   step * flicker * (1.0 - drift)};
  const std::array<double, 3> water{96.0, 140.0, 150.0};
  cv::Mat light(picture.rows / kCausticCell_px + 1, picture.cols / kCausticCell_px + 1, CV_32FC1,
                cv::Scalar(1.0));
  for (int y = 0; y < light.rows && defects_.caustics > 0.0; ++y) {
    for (int x = 0; x < light.cols; ++x)
      light.at<float>(y, x) += static_cast<float>(
          defects_.caustics * causticAt(kCausticCell_px * x, kCausticCell_px * y, t, kLine_px));
  }
  cv::resize(light, light, picture.size());
  for (int y = 0; y < picture.rows; ++y) {
    auto* row = picture.ptr<cv::Vec3b>(y);
    const auto* lit = light.ptr<float>(y);
    for (int x = 0; x < picture.cols; ++x) {
      for (int c = 0; c < 3; ++c) {
        const auto k = static_cast<std::size_t>(c);
        const double seen =
            (1.0 - defects_.haze) * row[x][c] * static_cast<double>(lit[x]) + defects_.haze * water[k];
        row[x][c] = cv::saturate_cast<uchar>(gain[k] * seen);
      }
    }
  }
}

}  // namespace fin
