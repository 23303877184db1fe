// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/mark_detail.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>
#include <opencv2/core.hpp>

namespace fin {
namespace {

constexpr int kDetailRim_px = 4;      ///< of what lies around the disc
constexpr int kMiddle_px = 2;         ///< half the side of what the colour of a place is taken from
constexpr double kRoom = 5.0;         ///< of the pose's pixels, for moving while it is settled
constexpr double kFarthest_px = 1.8;  ///< from where the wider look was found
constexpr double kLeastLikeness = 0.75;
constexpr double kClickedBeside_px =
    0.8;                         ///< a press nearer than this to a round spot's middle means its middle
constexpr double kRound = 0.88;  ///< likeness of a spot with its own mean round its middle

/// What lies around a place, averaged round it: a picture of its own, its middle at (reach, reach).
cv::Mat roundMean(const cv::Mat& image, const PatchPose& pose, int reach) {
  const std::vector<float> patch = cutPatch(image, pose, reach);
  const int side = 2 * reach + 1;
  const auto rings = static_cast<std::size_t>(2 * reach + 2);
  std::vector<double> sum(rings, 0.0);
  std::vector<double> count(rings, 0.0);
  const auto eachSample = [&](const auto& visit) {
    for (int y = 0; y < side; ++y) {
      for (int x = 0; x < side; ++x) visit(x, y, std::hypot(x - reach, y - reach));
    }
  };
  // Every sample counts for the two rings beside it, by how near it lies.
  eachSample([&](int x, int y, double away) {
    const auto ring = static_cast<std::size_t>(away);
    const double share = away - static_cast<double>(ring);
    const double value = static_cast<double>(patch[static_cast<std::size_t>(y * side + x)]);
    if (ring + 1 >= rings) return;
    sum[ring] += (1.0 - share) * value;
    count[ring] += 1.0 - share;
    sum[ring + 1] += share * value;
    count[ring + 1] += share;
  });
  cv::Mat out(side, side, CV_8UC1);
  eachSample([&](int x, int y, double away) {
    const auto ring = static_cast<std::size_t>(away);
    const double share = away - static_cast<double>(ring);
    const auto meanOf = [&](std::size_t r) {
      return r < rings && count[r] > 0.0 ? sum[r] / count[r] : 128.0;
    };
    out.at<uchar>(y, x) = cv::saturate_cast<uchar>((1.0 - share) * meanOf(ring) + share * meanOf(ring + 1));
  });
  return out;
}

/// Mean colour differences of the middle of a place; none past the edge of the picture.
std::optional<cv::Vec2d> colourOf(const Picture& picture, PixelPoint at) {
  const int x = static_cast<int>(std::lround(at.x_px));
  const int y = static_cast<int>(std::lround(at.y_px));
  const cv::Rect box = cv::Rect(x - kMiddle_px, y - kMiddle_px, 2 * kMiddle_px + 1, 2 * kMiddle_px + 1) &
                       cv::Rect(0, 0, picture.width(), picture.height());
  if (box.empty()) return std::nullopt;
  const cv::Scalar mean = cv::mean(picture.colours(box));
  return cv::Vec2d(mean[1], mean[2]);
}

/// The look of a round spot by its middle, when a place lies at the middle of one.
std::optional<PatchTemplate> roundLook(const cv::Mat& image, const PatchPose& at, int radius_px) {
  const int reach = radius_px + 2;
  PatchPose middle{at.centre, 0.0, at.scale};
  for (int i = 0; i < 3; ++i) {
    const PatchTemplate look(roundMean(image, middle, reach), {{1.0 * reach, 1.0 * reach}, 0.0}, radius_px);
    const PatchTemplate::Fit fit = look.refine(image, middle);
    if (!fit.converged || length(fit.at - at.centre).value() > kClickedBeside_px * at.scale)
      return std::nullopt;
    middle.centre = fit.at;
    if (i == 2 && fit.score < kRound) return std::nullopt;
  }
  return PatchTemplate(roundMean(image, middle, reach), {{1.0 * reach, 1.0 * reach}, 0.0}, radius_px);
}

}  // namespace

MarkView MarkDetail::viewOf(const Picture& picture, const PatchPose& pose, int reach) const {
  const double corner = std::numbers::sqrt2 * (radius_px_ + reach + 1) + kRoom;
  return channel_.view(picture, pose.centre, static_cast<int>(corner * pose.scale));
}

std::vector<PixelPoint> MarkDetail::places(const Picture& picture, const PatchPose& pose, int reach_px,
                                           std::size_t most) const {
  const PatchPose level{pose.centre, 0.0, pose.scale};
  const int reach = static_cast<int>(std::ceil(reach_px / pose.scale));
  const MarkView view = viewOf(picture, level, reach);
  const PatchSurroundings around(view.image, view.inside(level), radius_px_, reach);
  std::vector<PixelPoint> out;
  for (const auto& peak : looks_.front().search(around, most)) {
    out.push_back(level.at({1.0 * peak.dx_px, 1.0 * peak.dy_px}));
  }
  return out;
}

double MarkDetail::likenessAt(const Picture& picture, const PatchPose& pose) const {
  const MarkView view = viewOf(picture, pose);
  const PatchSurroundings around(view.image, view.inside(pose), radius_px_, 1);
  double best = -1.0;
  for (const PatchTemplate& look : looks_) {
    for (const auto& peak : look.search(around, 1)) best = std::max(best, peak.score);
  }
  return best;
}

double MarkDetail::contrastAt(const Picture& picture, PixelPoint at) const {
  const MarkView view = viewOf(picture, {at, 0.0});
  const int side = 2 * radius_px_ + 1;
  const std::vector<float> patch = cutPatch(view.image, view.inside({at, 0.0}), radius_px_);
  double disc = 0.0, ring = 0.0, inDisc = 0.0, inRing = 0.0;
  for (int y = 0; y < side; ++y) {
    for (int x = 0; x < side; ++x) {
      const double away = std::hypot(x - radius_px_, y - radius_px_);
      const auto value = static_cast<double>(patch[static_cast<std::size_t>(y * side + x)]);
      if (away <= channel_.disc()) {
        disc += value;
        inDisc += 1.0;
      } else if (away > channel_.disc() + 1.5) {
        ring += value;
        inRing += 1.0;
      }
    }
  }
  return (disc / inDisc - ring / std::max(inRing, 1.0)) / MarkChannel::kSpan_grey;
}

double MarkDetail::colourAway(const Picture& picture, PixelPoint at) const {
  const auto here = colourOf(picture, at);
  if (!here || colours_.empty()) return 0.0;
  double least = std::numeric_limits<double>::max();
  for (const cv::Vec2d& given : colours_) least = std::min(least, cv::norm(*here - given));
  return least;
}

void MarkDetail::addGiven(const Picture& picture, const PatchPose& pose, int radius_px) {
  if (const auto colour = colourOf(picture, pose.centre)) colours_.push_back(*colour);
  if (looks_.empty()) {
    channel_ = MarkChannel::learn(picture, pose.centre, radius_px);
    radius_px_ = channel_.disc() + kDetailRim_px;
  }
  const MarkView view = viewOf(picture, pose);
  const PatchPose inside = view.inside(pose);
  const auto spot = roundLook(view.image, inside, radius_px_);
  looks_.push_back(spot ? *spot : PatchTemplate(view.image, inside, radius_px_));
}

std::optional<PixelPoint> MarkDetail::settle(const Picture& picture, const PatchPose& pose) const {
  if (channel_.isLuma()) return std::nullopt;
  const MarkView view = viewOf(picture, pose);
  std::optional<PixelPoint> best;
  double likeness = kLeastLikeness;
  for (const PatchTemplate& look : looks_) {
    const PatchTemplate::Fit fit = look.refine(view.image, view.inside(pose));
    const PixelPoint at = view.outside(fit.at);
    if (fit.converged && fit.score > likeness &&
        length(at - pose.centre).value() < kFarthest_px * pose.scale) {
      best = at;
      likeness = fit.score;
    }
  }
  return best;
}

}  // namespace fin
