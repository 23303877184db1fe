// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/background/backdrop.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "core/tracking/background/pixel_median.h"

namespace fin {
namespace {

constexpr int kTile_px = 64;
constexpr std::size_t kMostSamples = 11;
constexpr std::size_t kFewestSamples = 3;
constexpr std::size_t kStretch_frames = 16;  ///< in which a moving background is taken to stay the same
constexpr double kLeastCover = 0.25;         ///< of a tile, that a sample of a moving background must show
constexpr double kScatterOfMad = 1.4826;
constexpr float kFinerSteps = 8.0F;
constexpr int kSmooth_px = 9;
constexpr std::array<double, 3> kNoise_grey{2.0, 1.2, 1.2};
constexpr std::array<float, 3> kNoColour{0.0F, 128.0F, 128.0F};
constexpr int kLight_px = 40;  ///< over which the light is averaged
constexpr int kCell_px = 8;
constexpr double kShake_px = 0.2;
constexpr double kWholeShift_px = 0.02;

cv::Rect wholeOf(const Picture& picture) {
  return {0, 0, picture.width(), picture.height()};
}

/// A tile of a picture from any corner; past the picture's edge the nearest pixel is repeated.
cv::Mat partAt(const Picture& picture, PixelPoint corner) {
  const cv::Point first(static_cast<int>(std::floor(corner.x_px)), static_cast<int>(std::floor(corner.y_px)));
  const cv::Rect exact(first, cv::Size(kTile_px, kTile_px));
  const bool onPixels = length(corner - PixelPoint{1.0 * first.x, 1.0 * first.y}).value() < kWholeShift_px;
  if (onPixels && (exact & wholeOf(picture)) == exact) return picture.colours(exact);
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

/// How far one plane of a picture is from what lies behind, as that is in the picture's own light (colour
/// differences go with brightness): CV_8UC1, in steps finer than grey levels.
cv::Mat awayFrom(const cv::Mat& middle, const cv::Mat& light, const cv::Mat& plane, float zero) {
  cv::Mat out(middle.size(), CV_8UC1);
  const int width = out.cols;
  for (int y = 0; y < middle.rows; ++y) {
    const auto* from = middle.ptr<float>(y);
    const auto* factor = light.ptr<float>(y);
    const auto* shown = plane.ptr<uchar>(y);
    uchar* __restrict to = out.ptr<uchar>(y);
    for (int x = 0; x < width; ++x) {
      const float off = static_cast<float>(shown[x]) - zero - factor[x] * (from[x] - zero);
      to[x] = static_cast<uchar>(std::min(std::abs(off) * kFinerSteps, 255.0F));
    }
  }
  return out;
}

/// A view with room for everything, and nothing in it.
Backdrop::View roomFor(cv::Size size) {
  Backdrop::View out;
  for (std::size_t k = 0; k < 3; ++k) {
    out.middle[k].create(size, CV_32FC1);
    out.scatter[k].create(size, CV_32FC1);
  }
  out.known.create(size, CV_8UC1);
  return out;
}

Backdrop::View partOf(const Backdrop::View& view, const cv::Rect& box) {
  Backdrop::View out;
  for (std::size_t k = 0; k < 3; ++k) {
    out.middle[k] = view.middle[k](box);
    out.scatter[k] = view.scatter[k](box);
  }
  out.known = view.known(box);
  return out;
}

void copy(const Backdrop::View& from, const Backdrop::View& to) {
  for (std::size_t k = 0; k < 3; ++k) {
    from.middle[k].copyTo(to.middle[k]);
    from.scatter[k].copyTo(to.scatter[k]);
  }
  from.known.copyTo(to.known);
}

std::int64_t tileAt(int px) {
  return static_cast<std::int64_t>(std::floor(static_cast<double>(px) / kTile_px));
}

}  // namespace

void Backdrop::hide(const std::vector<cv::Rect>& lures) {
  const auto touches = [&](const Key& key, std::size_t i) {
    const cv::Rect tile(
        static_cast<int>(key[0]) * kTile_px + static_cast<int>(std::lround(samples_[i].moved.x_px)),
        static_cast<int>(key[1]) * kTile_px + static_cast<int>(std::lround(samples_[i].moved.y_px)), kTile_px,
        kTile_px);
    return (tile & samples_[i].lure).empty() != (tile & lures[i]).empty();
  };
  const auto changed = [&](const Key& key) {
    for (std::size_t i = 0; i < samples_.size(); ++i) {
      if (touches(key, i)) return true;
    }
    return false;
  };
  std::erase_if(tiles_, [&](const auto& tile) { return changed(tile.first); });
  std::erase_if(stillKnown_, changed);
  for (std::size_t i = 0; i < samples_.size(); ++i) samples_[i].lure = lures[i];
}

const Backdrop::View& Backdrop::tile(const Key& key) {
  const std::lock_guard lock(*learning_);
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
  View out = roomFor(size);
  if (clean.size() < kFewestSamples) {
    for (std::size_t k = 0; k < 3; ++k) {
      out.middle[k].setTo(0.0);
      out.scatter[k].setTo(kNoise_grey[k]);
    }
    out.known.setTo(0);
    return out;
  }

  std::array<std::vector<cv::Mat>, 3> shown;
  const std::size_t count = std::min(clean.size(), kMostSamples);
  for (std::size_t i = 0; i < count; ++i) {
    const Sample& s = *clean[i * clean.size() / count];
    std::array<cv::Mat, 3> planes;
    cv::split(partAt(s.picture, {corner.x + s.moved.x_px, corner.y + s.moved.y_px}), planes.data());
    for (std::size_t k = 0; k < 3; ++k) shown[k].push_back(planes[k]);
  }
  for (std::size_t k = 0; k < 3; ++k) medianOf(shown[k]).convertTo(out.middle[k], CV_32F);
  std::vector<cv::Mat> lights;
  const cv::Mat all(size, CV_8UC1, cv::Scalar(255));
  for (const cv::Mat& luma : shown[0]) lights.push_back(lightOver(luma, out.middle[0], all));
  for (std::size_t k = 0; k < 3; ++k) {
    std::vector<cv::Mat> away;
    for (std::size_t i = 0; i < count; ++i)
      away.push_back(awayFrom(out.middle[k], lights[i], shown[k][i], kNoColour[k]));
    cv::Mat scatter;
    medianOf(away).convertTo(scatter, CV_32F, kScatterOfMad / kFinerSteps);
    cv::blur(scatter, scatter, cv::Size(kSmooth_px, kSmooth_px));
    // At an edge of what lies behind, a small shake or the coding moves it a little.
    cv::Mat low, high;
    cv::erode(out.middle[k], low, cv::Mat());
    cv::dilate(out.middle[k], high, cv::Mat());
    scatter += kShake_px * (high - low);
    cv::max(scatter, kNoise_grey[k], out.scatter[k]);
  }
  out.known.setTo(255);
  return out;
}

cv::Mat lightOver(const cv::Mat& luma, const cv::Mat& middle, const cv::Mat& counts) {
  // Light changes slowly from place to place: summed over cells, then over the cells around.
  const cv::Size cells((counts.cols + kCell_px - 1) / kCell_px, (counts.rows + kCell_px - 1) / kCell_px);
  cv::Mat now = cv::Mat::zeros(cells, CV_32FC1);
  cv::Mat usual = cv::Mat::zeros(cells, CV_32FC1);
  const int width = counts.cols;
  std::vector<float> shownSums(static_cast<std::size_t>(width)), usualSums(shownSums);
  for (int top = 0; top < counts.rows; top += kCell_px) {
    std::fill(shownSums.begin(), shownSums.end(), 0.0F);
    std::fill(usualSums.begin(), usualSums.end(), 0.0F);
    float* __restrict shown = shownSums.data();
    float* __restrict expected = usualSums.data();
    for (int y = top; y < std::min(top + kCell_px, counts.rows); ++y) {
      const auto* c = luma.ptr<uchar>(y);
      const auto* m = middle.ptr<float>(y);
      const auto* in = counts.ptr<uchar>(y);
      for (int x = 0; x < width; ++x) {
        const float counted = in[x] != 0 ? 1.0F : 0.0F;
        shown[x] += counted * static_cast<float>(c[x]);
        expected[x] += counted * m[x];
      }
    }
    auto* a = now.ptr<float>(top / kCell_px);
    auto* b = usual.ptr<float>(top / kCell_px);
    for (int x = 0; x < width; ++x) {
      a[x / kCell_px] += shown[x];
      b[x / kCell_px] += expected[x];
    }
  }
  const cv::Size around(kLight_px / kCell_px, kLight_px / kCell_px);
  cv::boxFilter(now, now, CV_32F, around, cv::Point(-1, -1), false, cv::BORDER_CONSTANT);
  cv::boxFilter(usual, usual, CV_32F, around, cv::Point(-1, -1), false, cv::BORDER_CONSTANT);
  cv::Mat out;
  // Where nothing around counts, the light is taken to be as usual.
  cv::resize((now + 1.0) / (usual + 1.0), out, cells * kCell_px, 0.0, 0.0, cv::INTER_LINEAR);
  return out(cv::Rect({}, counts.size()));
}

/// The part of the whole picture's view, learnt where it was not yet.
Backdrop::View Backdrop::stillView(const cv::Rect& box) {
  const std::lock_guard lock(*learning_);
  const cv::Rect whole = samples_.empty() ? box : wholeOf(samples_.front().picture);
  if (still_.known.empty()) still_ = roomFor(whole.size());
  std::vector<Key> fresh;
  for (std::int64_t row = tileAt(box.y); row <= tileAt(box.br().y - 1); ++row) {
    for (std::int64_t column = tileAt(box.x); column <= tileAt(box.br().x - 1); ++column) {
      const Key key{column, row, 0};
      if (stillKnown_.insert(key).second) fresh.push_back(key);
    }
  }
  cv::parallel_for_({0, static_cast<int>(fresh.size())}, [&](const cv::Range& some) {
    for (int i = some.start; i < some.end; ++i) {
      const Key& key = fresh[static_cast<std::size_t>(i)];
      const cv::Point corner(static_cast<int>(key[0]) * kTile_px, static_cast<int>(key[1]) * kTile_px);
      const cv::Rect target = cv::Rect(corner, cv::Size(kTile_px, kTile_px)) & whole;
      copy(partOf(learnt(key), target - corner), partOf(still_, target));
    }
  });
  return partOf(still_, box);
}

Backdrop::View Backdrop::view(const cv::Rect& box, PixelPoint moved, std::size_t frame) {
  if (!moving_) return stillView(box);
  const int dx = static_cast<int>(std::lround(moved.x_px));
  const int dy = static_cast<int>(std::lround(moved.y_px));
  const double restX = moved.x_px - dx;
  const double restY = moved.y_px - dy;
  const bool whole = std::hypot(restX, restY) < kWholeShift_px;
  const int rim = whole ? 0 : 1;
  const cv::Rect wide(box.x - dx - rim, box.y - dy - rim, box.width + 2 * rim, box.height + 2 * rim);
  const View out = roomFor(wide.size());
  const auto stretch = static_cast<std::int64_t>(frame / kStretch_frames);
  for (std::int64_t row = tileAt(wide.y); row <= tileAt(wide.y + wide.height - 1); ++row) {
    for (std::int64_t column = tileAt(wide.x); column <= tileAt(wide.x + wide.width - 1); ++column) {
      const cv::Rect place(static_cast<int>(column) * kTile_px, static_cast<int>(row) * kTile_px, kTile_px,
                           kTile_px);
      const cv::Rect part = place & wide;
      copy(partOf(tile({column, row, stretch}), part - place.tl()), partOf(out, part - wide.tl()));
    }
  }
  if (whole) return out;
  // A background moved by +0.3 px shows at p what lay at p − 0.3.
  const cv::Rect inner(rim, rim, box.width, box.height);
  const cv::Point2f middle(static_cast<float>(rim + 0.5 * (box.width - 1) - restX),
                           static_cast<float>(rim + 0.5 * (box.height - 1) - restY));
  View shifted = partOf(out, inner);
  for (std::size_t k = 0; k < 3; ++k) {
    cv::Mat between;  // not over the part that is read
    cv::getRectSubPix(out.middle[k], box.size(), middle, between);
    shifted.middle[k] = between;
  }
  return shifted;
}

}  // namespace fin
