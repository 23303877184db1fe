// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/backdrop.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace fin {
namespace {

constexpr int kTile_px = 64;
constexpr std::size_t kMostSamples = 11;
constexpr std::size_t kFewestSamples = 3;
constexpr std::size_t kStretch_frames = 16;  ///< in which a moving background is taken to stay the same
constexpr double kLeastCover = 0.25;         ///< of a tile, that a sample of a moving background must show
constexpr double kScatterOfMad = 1.4826;
constexpr int kSmooth_px = 9;
const cv::Scalar kNoise_grey(2.0, 1.2, 1.2);
constexpr int kLight_px = 41;  ///< over which the light is averaged
constexpr double kShake_px = 0.2;
constexpr double kWholeShift_px = 0.02;

/// Sorts pictures pixel by pixel (odd-even transposition), so that the middle one is the median.
void sortEach(std::vector<cv::Mat>& pictures) {
  cv::Mat low;
  for (std::size_t round = 0; round < pictures.size(); ++round) {
    for (std::size_t i = round % 2; i + 1 < pictures.size(); i += 2) {
      cv::min(pictures[i], pictures[i + 1], low);
      cv::max(pictures[i], pictures[i + 1], pictures[i + 1]);
      low.copyTo(pictures[i]);
    }
  }
}

cv::Mat medianOf(const std::vector<cv::Mat>& pictures) {
  std::vector<cv::Mat> sorted;
  for (const cv::Mat& picture : pictures) sorted.push_back(picture.clone());
  sortEach(sorted);
  return sorted[sorted.size() / 2];
}

cv::Rect wholeOf(const Picture& picture) {
  return {0, 0, picture.width(), picture.height()};
}

/// A tile of a picture from any corner; past the picture's edge the nearest pixel is repeated.
cv::Mat partAt(const Picture& picture, PixelPoint corner) {
  const cv::Point first(static_cast<int>(std::floor(corner.x_px)), static_cast<int>(std::floor(corner.y_px)));
  const cv::Rect box = cv::Rect(first, cv::Size(kTile_px + 2, kTile_px + 2)) & wholeOf(picture);
  // The middle of a tile of even size lies between pixels.
  const double half = 0.5 * (kTile_px - 1);
  cv::Mat out;
  cv::getRectSubPix(picture.colours(box), cv::Size(kTile_px, kTile_px),
                    cv::Point2f(static_cast<float>(corner.x_px + half - box.x),
                                static_cast<float>(corner.y_px + half - box.y)),
                    out);
  return out;
}

std::int64_t tileAt(int px) {
  return static_cast<std::int64_t>(std::floor(static_cast<double>(px) / kTile_px));
}

}  // namespace

void Backdrop::hide(const std::vector<cv::Rect>& lures) {
  for (std::size_t i = 0; i < samples_.size(); ++i) samples_[i].lure = lures[i];
  tiles_.clear();
}

const Backdrop::View& Backdrop::tile(const Key& key) {
  auto found = tiles_.find(key);
  if (found == tiles_.end()) found = tiles_.emplace(key, learnt(key)).first;
  return found->second;
}

Backdrop::View Backdrop::learnt(const Key& key) const {
  const cv::Size size(kTile_px, kTile_px);
  const cv::Point2d corner(static_cast<double>(key[0]) * kTile_px, static_cast<double>(key[1]) * kTile_px);
  std::vector<const Sample*> clean;
  for (const Sample& s : samples_) {
    const cv::Rect shown(cv::Point(static_cast<int>(std::lround(corner.x + s.moved.x_px)),
                                   static_cast<int>(std::lround(corner.y + s.moved.y_px))),
                         size);
    const cv::Rect inside = shown & wholeOf(s.picture);
    const double least = moving_ ? kLeastCover * size.area() : 1.0;
    if (inside.area() < least || !(shown & s.lure).empty()) continue;
    clean.push_back(&s);
  }
  if (moving_) {
    const auto now = static_cast<double>(key[2]) * static_cast<double>(kStretch_frames);
    std::stable_sort(clean.begin(), clean.end(), [now](const Sample* a, const Sample* b) {
      return std::abs(static_cast<double>(a->frame) - now) < std::abs(static_cast<double>(b->frame) - now);
    });
    clean.resize(std::min(clean.size(), kMostSamples));
  }
  View out{cv::Mat::zeros(size, CV_32FC3), cv::Mat(size, CV_32FC3, kNoise_grey),
           cv::Mat::zeros(size, CV_8UC1)};
  if (clean.size() < kFewestSamples) return out;

  std::vector<cv::Mat> shown;
  const std::size_t count = std::min(clean.size(), kMostSamples);
  for (std::size_t i = 0; i < count; ++i) {
    const Sample& s = *clean[i * clean.size() / count];
    shown.push_back(partAt(s.picture, {corner.x + s.moved.x_px, corner.y + s.moved.y_px}));
  }
  const cv::Mat middle = medianOf(shown);
  middle.convertTo(out.middle, CV_32F);
  const cv::Mat all(size, CV_8UC1, cv::Scalar(255));
  std::vector<cv::Mat> away;
  for (const cv::Mat& part : shown) {
    cv::Mat off;
    part.convertTo(off, CV_32F);
    cv::absdiff(off, inLight(out.middle, lightOver(off, out.middle, all)), off);
    away.push_back(off);
  }
  cv::Mat scatter = medianOf(away) * kScatterOfMad;
  cv::blur(scatter, scatter, cv::Size(kSmooth_px, kSmooth_px));
  // At an edge of what lies behind, a small shake or the coding moves it a little.
  cv::Mat low, high;
  cv::erode(out.middle, low, cv::Mat());
  cv::dilate(out.middle, high, cv::Mat());
  scatter += kShake_px * (high - low);
  cv::max(scatter, kNoise_grey, out.scatter);
  out.known.setTo(255);
  return out;
}

cv::Mat lightOver(const cv::Mat& colours, const cv::Mat& middle, const cv::Mat& counts) {
  cv::Mat now, usual, weight;
  cv::extractChannel(colours, now, 0);
  cv::extractChannel(middle, usual, 0);
  counts.convertTo(weight, CV_32F, 1.0 / 255.0);
  const cv::Size around(kLight_px, kLight_px);
  cv::boxFilter(now.mul(weight), now, CV_32F, around, cv::Point(-1, -1), false);
  cv::boxFilter(usual.mul(weight), usual, CV_32F, around, cv::Point(-1, -1), false);
  // Where nothing around counts, the light is taken to be as usual.
  return (now + 1.0) / (usual + 1.0);
}

cv::Mat inLight(const cv::Mat& middle, const cv::Mat& light) {
  cv::Mat out(middle.size(), CV_32FC3);
  for (int y = 0; y < middle.rows; ++y) {
    const auto* from = middle.ptr<cv::Vec3f>(y);
    const auto* factor = light.ptr<float>(y);
    auto* to = out.ptr<cv::Vec3f>(y);
    for (int x = 0; x < middle.cols; ++x) {
      to[x] = {factor[x] * from[x][0], 128.0F + factor[x] * (from[x][1] - 128.0F),
               128.0F + factor[x] * (from[x][2] - 128.0F)};
    }
  }
  return out;
}

Backdrop::View Backdrop::view(const cv::Rect& box, PixelPoint moved, std::size_t frame) {
  const int dx = static_cast<int>(std::lround(moved.x_px));
  const int dy = static_cast<int>(std::lround(moved.y_px));
  const double restX = moved.x_px - dx;
  const double restY = moved.y_px - dy;
  const bool whole = std::hypot(restX, restY) < kWholeShift_px;
  const int rim = whole ? 0 : 1;
  const cv::Rect wide(box.x - dx - rim, box.y - dy - rim, box.width + 2 * rim, box.height + 2 * rim);
  View out{cv::Mat(wide.size(), CV_32FC3), cv::Mat(wide.size(), CV_32FC3), cv::Mat(wide.size(), CV_8UC1)};
  const std::int64_t stretch = moving_ ? static_cast<std::int64_t>(frame / kStretch_frames) : 0;
  for (std::int64_t row = tileAt(wide.y); row <= tileAt(wide.y + wide.height - 1); ++row) {
    for (std::int64_t column = tileAt(wide.x); column <= tileAt(wide.x + wide.width - 1); ++column) {
      const cv::Rect place(static_cast<int>(column) * kTile_px, static_cast<int>(row) * kTile_px, kTile_px,
                           kTile_px);
      const cv::Rect part = place & wide;
      const View& from = tile({column, row, stretch});
      const cv::Rect source = part - place.tl();
      const cv::Rect target = part - wide.tl();
      from.middle(source).copyTo(out.middle(target));
      from.scatter(source).copyTo(out.scatter(target));
      from.known(source).copyTo(out.known(target));
    }
  }
  if (whole) return out;
  // A background moved by +0.3 px shows at p what lay at p − 0.3.
  const cv::Rect inner(rim, rim, box.width, box.height);
  const cv::Point2f middle(static_cast<float>(rim + 0.5 * (box.width - 1) - restX),
                           static_cast<float>(rim + 0.5 * (box.height - 1) - restY));
  View shifted;
  cv::getRectSubPix(out.middle, box.size(), middle, shifted.middle);
  shifted.scatter = out.scatter(inner);
  shifted.known = out.known(inner);
  return shifted;
}

}  // namespace fin
