// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rehearsal/tank.h"

#include <Eigen/Geometry>
#include <algorithm>
#include <cmath>
#include <numbers>
#include <opencv2/core.hpp>
#include <optional>

#include "core/rehearsal/chance.h"

namespace fin {
namespace {

using Eigen::Vector3d;

constexpr int kInstants = 5;  ///< over one exposure, at most
constexpr int kSamples = 2;   ///< a pixel's side
constexpr double kTile_mm = 120.0;
constexpr double kWallBehind_mm = 350.0;
constexpr int kLightCell_px = 16;  ///< dancing light is worked out on a coarse grid
constexpr std::size_t kGrainSize = 1U << 20U;
constexpr double kRulerOver_px = 46.0;  ///< its upper edge over the picture's lower edge
constexpr int kRulerHeight_px = 24;
constexpr double kMirrorShare = 0.75;  ///< share of the light that the surface gives back
constexpr double kNearer = 1.1;        ///< parts before the lure's plane look a little larger

uchar clipped(double v) {
  return static_cast<uchar>(std::clamp(v, 0.0, 255.0));
}

/// Where a ray first meets a part; the place is on its unit sphere.
struct Hit {
  double along;
  Vector3d onSphere;
};
std::optional<Hit> meet(const PosedPart& part, const Vector3d& eye, const Vector3d& ray) {
  const Vector3d o = part.toBody * (eye - part.centre_mm);
  const Vector3d d = part.toBody * ray;
  const double a = d.squaredNorm();
  const double b = o.dot(d);
  const double inside = b * b - a * (o.squaredNorm() - 1.0);
  if (inside <= 0.0) return std::nullopt;
  const double along = (-b - std::sqrt(inside)) / a;
  return Hit{along, o + d * along};
}

/// Light from above and a little from the camera.
double lightOn(const PosedPart& part, const Vector3d& onSphere, const Vector3d& towardsEye) {
  const Vector3d normal = (part.toBody.transpose() * onSphere).normalized();
  return 0.55 + 0.3 * std::max(normal.y(), 0.0) + 0.15 * std::max(normal.dot(towardsEye), 0.0);
}

}  // namespace

RehearsalTank::RehearsalTank(RehearsalScene scene)
    : scene_(std::move(scene)), camera_(scene_.camera), motion_(scene_.motion), grain_(kGrainSize) {
  std::mt19937 random(scene_.seed);
  std::normal_distribution<double> grain(0.0, scene_.noise_grey);
  for (signed char& g : grain_)
    g = static_cast<signed char>(std::clamp(std::lround(grain(random)), -127L, 127L));
  if (scene_.lure.shape != LureShape::Plain) shaped_.emplace(scene_.lure, camera_);
  if (scene_.basin)
    basin_.emplace(*scene_.basin, camera_, scene_.chase_mm_s, scene_.length.value());
  else
    paintWall();
  if (scene_.ruler_mm > 0.0) paintRuler();
}

std::size_t RehearsalTank::frameCount() const {
  return static_cast<std::size_t>(std::floor(scene_.length.value() * scene_.rate.value()));
}

Seconds RehearsalTank::timeOf(std::size_t frame) const {
  return Seconds(static_cast<double>(frame) / scene_.rate.value());
}

Seconds RehearsalTank::instantOf(std::size_t frame) const {
  return scene_.begun + timeOf(frame) + Seconds(0.5 * scene_.exposure / scene_.rate.value());
}

std::vector<float> RehearsalTank::soundBetween(Seconds from, Seconds to, double rate_Hz) const {
  constexpr double kDies_s = 0.04;
  const auto first = static_cast<std::int64_t>(std::llround(from.value() * rate_Hz));
  const auto end = static_cast<std::int64_t>(std::llround(to.value() * rate_Hz));
  std::vector<float> out(static_cast<std::size_t>(std::max<std::int64_t>(end - first, 0)), 0.0F);
  if (!scene_.sound) return out;
  std::mt19937 random(scene_.seed + static_cast<unsigned>(first));
  std::normal_distribution<double> hiss(0.0, scene_.sound->hiss);
  for (std::size_t i = 0; i < out.size(); ++i) {
    const double t = (static_cast<double>(first) + static_cast<double>(i)) / rate_Hz + scene_.begun.value();
    double sum = hiss(random);
    for (const double knock : scene_.sound->knocks_s) {
      const double since = t - knock;
      if (since > 0.0)
        sum += 0.5 * scene_.sound->gain * std::exp(-since / kDies_s) *
               std::sin(2.0 * std::numbers::pi * scene_.sound->tone_Hz * since);
    }
    out[i] = static_cast<float>(std::clamp(sum, -1.0, 1.0));
  }
  return out;
}

PixelPoint RehearsalTank::markAt(MarkName mark, std::size_t frame) const {
  return markAtTime(mark, instantOf(frame));
}

PixelPoint RehearsalTank::markAtTime(MarkName mark, Seconds instant) const {
  return camera_.project(markPlace(scene_.lure, motion_.at(instant), mark));
}

Track RehearsalTank::trueTrack(std::span<const MarkName> marks) const {
  Track track{0, frameCount(), {}};
  for (MarkName name : marks) {
    MarkTrack mark{name, {}};
    for (std::size_t n = 0; n < frameCount(); ++n) {
      const PixelPoint at = markAt(name, n);
      const bool in = at.x_px >= 0.0 && at.y_px >= 0.0 && at.x_px <= camera_.setup().width_px - 1.0 &&
                      at.y_px <= camera_.setup().height_px - 1.0;
      mark.samples.push_back({in, at, in ? 1.0 : 0.0});
    }
    track.marks.push_back(std::move(mark));
  }
  return track;
}

std::pair<PixelPoint, PixelPoint> RehearsalTank::rulerEnds() const {
  const double y = camera_.setup().height_px - kRulerOver_px;
  const auto sight = camera_.sight(0.5 * (camera_.setup().width_px - 1), y);
  const Vector3d back = camera_.right().cross(camera_.up());
  const double along = -(sight.from.dot(back) + scene_.rulerBehind_mm) / sight.along.dot(back);
  const Vector3d middle = sight.from + sight.along * along;
  const Vector3d half = camera_.right() * (0.5 * scene_.ruler_mm);
  // Its left end stands on a whole pixel, as it is painted.
  const PixelPoint from = camera_.project(middle - half);
  const PixelPoint to = camera_.project(middle + half);
  const double shift = std::round(from.x_px) - from.x_px;
  return {{from.x_px + shift, y}, {to.x_px + shift, y}};
}

Result<Picture> RehearsalTank::frame(std::size_t n) {
  if (n >= frameCount()) return failure(ErrorCode::BadRequest, "this frame is past the end of the rehearsal");
  cv::Mat picture = pictureAt(instantOf(n));
  addNoise(picture, n);
  return Picture::fromMat(picture);
}

cv::Mat RehearsalTank::pictureAt(Seconds instant) const {
  cv::Mat picture = basin_ ? basin_->pictureAt(instant.value()) : lit(instant.value());
  if (basin_ && basin_->surfaceRow() > 0) addMirrorImage(picture, instant.value());
  layOver(picture, paintedLure(instant));
  paintSpecks(picture, instant.value());
  return picture;
}

/// The surface seen from below shows the lure once more, turned over, rippled and a little fainter.
void RehearsalTank::addMirrorImage(cv::Mat& picture, double time_s) const {
  if (shaped_) {
    const auto seen = shaped_->seen(motion_.at(Seconds(time_s)), basin_->look().surface_mm);
    if (!seen.box.empty()) {
      cv::Mat sum = cv::Mat::zeros(seen.box.size(), CV_32FC4);
      shaped_->add(sum, seen.box.tl(), seen, {time_s, 0.0}, kMirrorShare);
      layOver(picture, {seen.box, sum});
    }
  }
  basin_->ripple(picture, time_s);
}

/// A tiled wall some way behind the lure, darker towards the bottom.
void RehearsalTank::paintWall() {
  const auto& setup = camera_.setup();
  wall_ = cv::Mat(setup.height_px, setup.width_px, CV_8UC3);
  const double perPixel_mm = (setup.distance_mm + kWallBehind_mm) / setup.focal_px;
  for (int y = 0; y < wall_.rows; ++y) {
    auto* row = wall_.ptr<cv::Vec3b>(y);
    const double v = y * perPixel_mm;
    const double shade = 1.0 - 0.25 * y / wall_.rows;
    for (int x = 0; x < wall_.cols; ++x) {
      const double u = x * perPixel_mm;
      const double joint =
          std::min(std::abs(std::remainder(u, kTile_mm)), std::abs(std::remainder(v, kTile_mm)));
      const int tileX = static_cast<int>(std::floor(u / kTile_mm + 0.5));
      const int tileY = static_cast<int>(std::floor(v / kTile_mm + 0.5));
      const double tone =
          shade * (joint < 3.0 ? 0.80 : 0.96 + 0.06 * chanceOf(tileX, tileY)) + 0.01 * chanceOf(x, y);
      row[x] = {clipped(108.0 * tone), clipped(150.0 * tone), clipped(156.0 * tone)};
    }
  }
}

void RehearsalTank::paintRuler() {
  const auto [from, to] = rulerEnds();
  const double perMillimetre = (to.x_px - from.x_px) / scene_.ruler_mm;
  cv::Mat& picture = basin_ ? basin_->still() : wall_;
  for (int y = 0; y < kRulerHeight_px; ++y) {
    auto* row = picture.ptr<cv::Vec3b>(static_cast<int>(from.y_px) + y);
    for (int x = std::max(static_cast<int>(from.x_px), 0);
         x <= std::min(static_cast<int>(to.x_px), picture.cols - 1); ++x) {
      const double mm = (x - from.x_px) / perMillimetre;
      const int depth = std::abs(std::remainder(mm, 50.0)) < 0.6 / perMillimetre   ? kRulerHeight_px
                        : std::abs(std::remainder(mm, 10.0)) < 0.6 / perMillimetre ? kRulerHeight_px / 2
                                                                                   : 0;
      const bool edge = y == 0 || mm < 0.6 / perMillimetre || mm > scene_.ruler_mm - 0.6 / perMillimetre;
      row[x] = y < depth || edge ? cv::Vec3b(30, 32, 34) : cv::Vec3b(222, 214, 190);
    }
  }
}

/// The wall under light that dances: three slow waves of brightness crossing it.
cv::Mat RehearsalTank::lit(double time_s) const {
  if (scene_.dancingLight <= 0.0) return wall_.clone();
  const int columns = wall_.cols / kLightCell_px + 2;
  const int rows = wall_.rows / kLightCell_px + 2;
  std::vector<double> light(static_cast<std::size_t>(columns * rows));
  for (int r = 0; r < rows; ++r) {
    for (int c = 0; c < columns; ++c) {
      const double wave = std::sin(0.41 * c + 0.23 * r + 3.1 * time_s) +
                          std::sin(0.29 * r - 0.17 * c + 2.3 * time_s) +
                          std::sin(0.13 * c - 0.37 * r - 4.3 * time_s);
      light[static_cast<std::size_t>(r * columns + c)] = 256.0 * (1.0 + scene_.dancingLight * wave / 3.0);
    }
  }
  cv::Mat out(wall_.size(), CV_8UC3);
  for (int y = 0; y < out.rows; ++y) {
    const double fy = static_cast<double>(y % kLightCell_px) / kLightCell_px;
    const double* upper = &light[static_cast<std::size_t>(y / kLightCell_px * columns)];
    const double* lower = upper + columns;
    const uchar* from = wall_.ptr<uchar>(y);
    uchar* to = out.ptr<uchar>(y);
    for (int cell = 0; cell * kLightCell_px < out.cols; ++cell) {
      const double left = upper[cell] + fy * (lower[cell] - upper[cell]);
      const double step = (upper[cell + 1] + fy * (lower[cell + 1] - upper[cell + 1]) - left) / kLightCell_px;
      const int end = std::min((cell + 1) * kLightCell_px, out.cols);
      for (int x = cell * kLightCell_px; x < end; ++x) {
        const int factor = static_cast<int>(left + step * (x - cell * kLightCell_px));
        for (int c = 3 * x; c < 3 * x + 3; ++c)
          to[c] = static_cast<uchar>(std::min(from[c] * factor >> 8, 255));
      }
    }
  }
  return out;
}

/// The part of the picture that posed parts may touch.
cv::Rect RehearsalTank::boxOf(const std::vector<PosedPart>& parts) const {
  const cv::Rect whole(0, 0, camera_.setup().width_px, camera_.setup().height_px);
  cv::Rect box;
  for (const PosedPart& part : parts) {
    const PixelPoint at = camera_.project(part.centre_mm);
    const double near = camera_.pixelsPerMillimetre() * kNearer;
    const double x = near * reachAlong(part, camera_.right()) + 2.0;
    const double y = near * reachAlong(part, camera_.up()) + 2.0;
    box |= cv::Rect(cv::Point(static_cast<int>(at.x_px - x), static_cast<int>(at.y_px - y)),
                    cv::Point(static_cast<int>(at.x_px + x) + 2, static_cast<int>(at.y_px + y) + 2));
  }
  return box & whole;
}

/// As many as it takes for nose and tail to move less than half a pixel between them.
int RehearsalTank::instantsAt(Seconds instant) const {
  const Seconds half(0.5 * scene_.exposure / scene_.rate.value());
  double moved_px = 0.0;
  for (const MarkName mark : {MarkName::Nose, MarkName::Tail})
    moved_px = std::max(moved_px,
                        length(markAtTime(mark, instant + half) - markAtTime(mark, instant - half)).value());
  return std::clamp(static_cast<int>(std::ceil(2.0 * moved_px)), 1, kInstants);
}

Seconds RehearsalTank::exposed(Seconds instant, int i, int instants) const {
  return instant + Seconds(((i + 0.5) / instants - 0.5) * scene_.exposure / scene_.rate.value());
}

RehearsalTank::Painted RehearsalTank::paintedShape(Seconds instant) const {
  const int instants = instantsAt(instant);
  std::vector<LurePainter::Seen> seen;
  cv::Rect box;
  for (int i = 0; i < instants; ++i) {
    seen.push_back(shaped_->seen(motion_.at(exposed(instant, i, instants))));
    box |= seen.back().box;
  }
  if (box.empty()) return {};
  const double caustics = basin_ ? basin_->look().caustics : 0.0;
  cv::Mat sum = cv::Mat::zeros(box.size(), CV_32FC4);
  for (const auto& one : seen) shaped_->add(sum, box.tl(), one, {instant.value(), caustics}, 1.0 / instants);
  return {box, sum};
}

RehearsalTank::Painted RehearsalTank::paintedLure(Seconds instant) const {
  if (shaped_) return paintedShape(instant);
  std::vector<std::vector<PosedPart>> poses;
  cv::Rect box;
  for (int i = 0; i < kInstants; ++i) {
    poses.push_back(posedParts(scene_.lure, motion_.at(exposed(instant, i, kInstants))));
    box |= boxOf(poses.back());
  }
  if (box.empty()) return {};
  cv::Mat sum = cv::Mat::zeros(box.size(), CV_32FC4);
  for (const auto& parts : poses) addPaint(sum, box, parts, 1.0F / (kInstants * kSamples * kSamples));
  return {box, sum};
}

double RehearsalTank::lureArea_px2(std::size_t frame) const {
  return cv::sum(paintedLure(instantOf(frame)).paint)[3];
}

void RehearsalTank::layOver(cv::Mat& picture, const Painted& painted) {
  const auto& [box, sum] = painted;
  for (int y = 0; y < box.height; ++y) {
    auto* row = picture.ptr<cv::Vec3b>(box.y + y) + box.x;
    const auto* from = sum.ptr<cv::Vec4f>(y);
    for (int x = 0; x < box.width; ++x) {
      const double clear = 1.0 - static_cast<double>(from[x][3]);
      for (int c = 0; c < 3; ++c) row[x][c] = clipped(static_cast<double>(from[x][c]) + clear * row[x][c]);
    }
  }
}

void RehearsalTank::addPaint(cv::Mat& sum, const cv::Rect& whole, const std::vector<PosedPart>& parts,
                             float share) const {
  const cv::Rect box = boxOf(parts);
  for (int y = box.y; y < box.y + box.height; ++y) {
    auto* row = sum.ptr<cv::Vec4f>(y - whole.y) - whole.x;
    for (int x = box.x; x < box.x + box.width; ++x) {
      for (int s = 0; s < kSamples * kSamples; ++s) {
        const auto sight = camera_.sight(x + (s % kSamples + 0.5) / kSamples - 0.5,
                                         y + (s / kSamples + 0.5) / kSamples - 0.5);
        std::optional<Hit> nearest;
        const PosedPart* part = nullptr;
        for (const PosedPart& p : parts) {
          const auto hit = meet(p, sight.from, sight.along);
          if (hit && (!nearest || hit->along < nearest->along)) {
            nearest = hit;
            part = &p;
          }
        }
        if (part == nullptr) continue;
        const auto colour = part->isBody ? skin(scene_.lure, nearest->onSphere) : part->paint;
        const double light = lightOn(*part, nearest->onSphere, -sight.along.normalized());
        for (int c = 0; c < 3; ++c)
          row[x][c] += share * static_cast<float>(light * colour[static_cast<std::size_t>(c)]);
        row[x][3] += share;
      }
    }
  }
}

void RehearsalTank::paintSpecks(cv::Mat& picture, double time_s) const {
  for (int i = 0; i < scene_.specks; ++i) {
    const int key = static_cast<int>(scene_.seed) + i;
    const double x = std::fmod(
        chanceOf(key, 1) * picture.cols + (chanceOf(key, 2) - 0.3) * 14.0 * time_s + 8e6, picture.cols - 2.0);
    const double y = std::fmod(
        chanceOf(key, 3) * picture.rows + (chanceOf(key, 4) - 0.2) * 9.0 * time_s + 8e6, picture.rows - 2.0);
    for (int dy = 0; dy < 2; ++dy) {
      for (int dx = 0; dx < 2; ++dx) {
        const double fx = x - std::floor(x);
        const double fy = y - std::floor(y);
        const double share = 0.5 * (dx == 1 ? fx : 1.0 - fx) * (dy == 1 ? fy : 1.0 - fy);
        auto& p = picture.at<cv::Vec3b>(static_cast<int>(y) + dy, static_cast<int>(x) + dx);
        for (int c = 0; c < 3; ++c) p[c] = clipped(p[c] + share * (235.0 - p[c]));
      }
    }
  }
}

void RehearsalTank::addNoise(cv::Mat& picture, std::size_t frame) const {
  if (scene_.noise_grey <= 0.0) return;
  std::mt19937 random(scene_.seed + 7919U * static_cast<unsigned>(frame));
  std::uniform_int_distribution<std::size_t> place(0,
                                                   kGrainSize - static_cast<std::size_t>(picture.cols) - 1);
  for (int y = 0; y < picture.rows; ++y) {
    const signed char* grain = &grain_[place(random)];
    uchar* row = picture.ptr<uchar>(y);
    for (int x = 0; x < picture.cols; ++x, row += 3) {
      for (int c = 0; c < 3; ++c) row[c] = static_cast<uchar>(std::clamp(row[c] + grain[x], 0, 255));
    }
  }
}

}  // namespace fin
