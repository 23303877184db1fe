// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/outline/silhouette.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <opencv2/imgproc.hpp>

#include "core/tracking/quantile.h"

namespace fin {
namespace {

constexpr float kStrong = 7.0F;  ///< scatters from the background that no light makes
constexpr float kWeak = 3.5F;
constexpr float kDeepShadow = 0.4F;  ///< of the background's brightness: darker is a thing, not a shadow
constexpr float kBrightLight = 1.9F;
constexpr float kLightCounts = 0.3F;  ///< of a squared distance that light alone could make
constexpr double kRoomOfSize = 0.25;  ///< kept free around the expected place
constexpr int kThin_px = 5;           ///< narrower counts as thin
constexpr double kLineOfSize = 0.7;   ///< a thin thing longer than this is the line
constexpr double kHoleOfArea = 0.01;  ///< smaller holes are closed
constexpr double kOwnShare = 0.25;    ///< of a loose part, that must lie where the lure is expected
constexpr double kAlike = 0.5;        ///< of the largest part's mean distance
constexpr int kNearby_px = 15;        ///< from where the lure's own distance is taken at its edge
constexpr int kRim_px = 3;            ///< in which a pixel may be partly covered
constexpr double kStrandWeight = 0.02;
constexpr int kTintEvery_px = 3;
constexpr std::size_t kFewestForTint = 100;
constexpr float kLeastTint = 1.0F;  ///< grey levels: less is as good as none
constexpr float kNoCover = 0.3F;    ///< share of that distance at which a pixel counts as not covered

using Colours = std::array<cv::Mat, 3>;  ///< luma and the two colour differences, CV_8UC1 each

/// What a frame's light makes of what lies behind.
struct FrameLight {
  cv::Mat brighter;             ///< a factor, pixel by pixel (lightOver)
  std::array<float, 3> tint{};  ///< added to the colour differences: a camera's white balance drifts
};

/// Squared distance of each pixel from what lies behind it in this light, in scatters.
cv::Mat distances(const Colours& colours, const Backdrop::View& behind, const FrameLight& frameLight,
                  SegmentationCue by) {
  const cv::Mat& light = frameLight.brighter;
  const float darkest = by == SegmentationCue::Colour ? kDeepShadow : kBrightLight;  // else no light is
  const int width = light.cols;
  std::vector<float> inColours(static_cast<std::size_t>(width));
  cv::Mat out(light.size(), CV_32FC1);
  for (int y = 0; y < out.rows; ++y) {
    const auto* known = behind.known.ptr<uchar>(y);
    const auto* usual = light.ptr<float>(y);
    const auto* shown = colours[0].ptr<uchar>(y);
    const auto* middle = behind.middle[0].ptr<float>(y);
    const auto* scatter = behind.scatter[0].ptr<float>(y);
    float* __restrict to = out.ptr<float>(y);
    float* __restrict factor = inColours.data();
    for (int x = 0; x < width; ++x) {
      const float expected = usual[x] * middle[x];
      const float away = (static_cast<float>(shown[x]) - expected) / scatter[x];
      const float brighter = static_cast<float>(shown[x]) / (expected > 1.0F ? expected : 1.0F);
      const bool lightAlone = brighter > darkest && brighter < kBrightLight;
      to[x] = (lightAlone ? kLightCounts : 1.0F) * away * away;
      // Other light changes colour differences by the same factor as brightness.
      factor[x] = usual[x] * (lightAlone ? brighter : 1.0F);
    }
    for (std::size_t k = 1; k < 3; ++k) {
      shown = colours[k].ptr<uchar>(y);
      middle = behind.middle[k].ptr<float>(y);
      scatter = behind.scatter[k].ptr<float>(y);
      for (int x = 0; x < width; ++x) {
        const float expected = factor[x] * (middle[x] - 128.0F) + frameLight.tint[k];
        const float away = (static_cast<float>(shown[x]) - 128.0F - expected) / scatter[x];
        to[x] += away * away;
      }
    }
    for (int x = 0; x < width; ++x) to[x] = known[x] != 0 ? to[x] : 0.0F;
  }
  return out;
}

/// The light of this frame, from what is seen beside the lure.
FrameLight lightAround(const Colours& colours, const Backdrop::View& behind, const cv::Mat& near) {
  cv::Mat counts;
  cv::bitwise_not(near, counts);
  counts &= behind.known;
  FrameLight out;
  out.brighter = lightOver(colours[0], behind.middle[0], counts);
  std::vector<float> off;
  for (std::size_t k = 1; k < 3; ++k) {
    off.clear();
    for (int y = 0; y < counts.rows; y += kTintEvery_px) {
      for (int x = 0; x < counts.cols; x += kTintEvery_px) {
        if (counts.at<uchar>(y, x) == 0) continue;
        const float expected = out.brighter.at<float>(y, x) * (behind.middle[k].at<float>(y, x) - 128.0F);
        off.push_back(static_cast<float>(colours[k].at<uchar>(y, x)) - 128.0F - expected);
      }
    }
    if (off.size() < kFewestForTint) continue;
    const float tint = quantileOf(std::span(off), 0.5);
    if (std::abs(tint) >= kLeastTint) out.tint[k] = tint;
  }
  return out;
}

/// Takes thin things away that run out of the picture's part or are longer than any of the lure's own.
void cutLine(cv::Mat& mask, const Expected& expected) {
  cv::Mat thick;
  cv::morphologyEx(mask, thick, cv::MORPH_OPEN,
                   cv::getStructuringElement(cv::MORPH_ELLIPSE, cv::Size(kThin_px, kThin_px)));
  if (cv::countNonZero(thick) == 0) return;
  cv::Mat thin;
  cv::subtract(mask, thick, thin);
  std::vector<std::vector<cv::Point>> parts;
  cv::findContours(thin, parts, cv::RETR_EXTERNAL, cv::CHAIN_APPROX_NONE);
  const double longest = kLineOfSize * std::max(expected.bounds.width, expected.bounds.height);
  cv::Mat line = cv::Mat::zeros(mask.size(), CV_8UC1);
  for (std::size_t i = 0; i < parts.size(); ++i) {
    const cv::Rect box = cv::boundingRect(parts[i]);
    const bool runsOut = box.x == 0 || box.y == 0 || box.br().x == mask.cols || box.br().y == mask.rows;
    if (runsOut || std::hypot(box.width, box.height) > longest)
      cv::drawContours(line, parts, static_cast<int>(i), cv::Scalar(255), cv::FILLED);
  }
  line &= thin;  // what a loop of it encloses stays
  mask.setTo(0, line);
}

/// Keeps what hangs together with strong pixels and lies near where the lure is expected. What lies beside
/// that place (`place` is the lure's own, `near` has room around it) has to differ from what lies behind
/// about as much as the largest part does.
cv::Mat belonging(const cv::Mat& weak, const cv::Mat& strong, const cv::Mat& place, const cv::Mat& near,
                  const cv::Mat& away, bool inOnePart) {
  cv::Mat labels;
  const auto count = static_cast<std::size_t>(cv::connectedComponents(weak, labels));
  std::vector<int> area(count), strongIn(count), nearIn(count), placeIn(count);
  std::vector<double> distance(count);
  for (int y = 0; y < weak.rows; ++y) {
    const int* label = labels.ptr<int>(y);
    const uchar* s = strong.ptr<uchar>(y);
    const uchar* n = near.ptr<uchar>(y);
    const uchar* p = place.ptr<uchar>(y);
    const float* d = away.ptr<float>(y);
    for (int x = 0; x < weak.cols; ++x) {
      if (label[x] == 0) continue;
      const auto i = static_cast<std::size_t>(label[x]);
      ++area[i];
      distance[i] += std::sqrt(static_cast<double>(d[x]));
      if (s[x] != 0) ++strongIn[i];
      if (n[x] != 0) ++nearIn[i];
      if (p[x] != 0) ++placeIn[i];
    }
  }
  const auto candidate = [&](std::size_t i) { return strongIn[i] > 0 && nearIn[i] > kOwnShare * area[i]; };
  std::size_t main = 0;
  for (std::size_t i = 1; i < count; ++i) {
    if (candidate(i) && (main == 0 || nearIn[i] > nearIn[main])) main = i;
  }
  std::vector<uchar> keep(count, 0);
  for (std::size_t i = 1; i < count; ++i) {
    const bool alike = distance[i] * area[main] > kAlike * distance[main] * area[i];
    if (inOnePart && i != main) continue;
    keep[i] = candidate(i) && (alike || 2 * placeIn[i] > area[i]) ? 255 : 0;
  }
  cv::Mat out(weak.size(), CV_8UC1);
  for (int y = 0; y < weak.rows; ++y) {
    const int* label = labels.ptr<int>(y);
    auto* to = out.ptr<uchar>(y);
    for (int x = 0; x < weak.cols; ++x) to[x] = keep[static_cast<std::size_t>(label[x])];
  }
  return out;
}

void closeHoles(cv::Mat& mask) {
  std::vector<std::vector<cv::Point>> contours;
  std::vector<cv::Vec4i> family;
  cv::findContours(mask.clone(), contours, family, cv::RETR_CCOMP, cv::CHAIN_APPROX_NONE);
  const double small = kHoleOfArea * cv::countNonZero(mask);
  for (std::size_t i = 0; i < contours.size(); ++i) {
    const bool hole = family[i][3] >= 0;
    if (hole && cv::contourArea(contours[i]) < small)
      cv::drawContours(mask, contours, static_cast<int>(i), cv::Scalar(255), cv::FILLED);
  }
}

/// How much of each pixel the lure covers: how far it is from what lies behind, over how far the lure's own
/// inside nearby is.
cv::Mat coverOf(const cv::Mat& away, const cv::Mat& strong, const cv::Mat& mask) {
  cv::Mat distance, deep, firm, zone;
  cv::sqrt(away, distance);
  const cv::Mat square = cv::getStructuringElement(cv::MORPH_RECT, cv::Size(3, 3));
  cv::erode(mask, deep, square, cv::Point(-1, -1), kRim_px, cv::BORDER_REPLICATE);
  cv::bitwise_and(mask, strong, firm);
  cv::dilate(mask, zone, square, cv::Point(-1, -1), 1);
  // The inside counts where there is one nearby; a thin strand has only its strong pixels.
  cv::Mat weight(mask.size(), CV_32FC1, cv::Scalar(0.0));
  weight.setTo(kStrandWeight, firm);
  weight.setTo(1.0, deep);
  cv::Mat sum;
  cv::blur(distance.mul(weight), sum, cv::Size(kNearby_px, kNearby_px));
  cv::blur(weight, weight, cv::Size(kNearby_px, kNearby_px));
  cv::Mat out(mask.size(), CV_32FC1, cv::Scalar(0.0));
  for (int y = 0; y < mask.rows; ++y) {
    const float* d = distance.ptr<float>(y);
    const float* f = sum.ptr<float>(y);
    const float* w = weight.ptr<float>(y);
    const uchar* within = deep.ptr<uchar>(y);
    const uchar* around = zone.ptr<uchar>(y);
    auto* to = out.ptr<float>(y);
    for (int x = 0; x < mask.cols; ++x) {
      if (within[x] != 0) to[x] = 1.0F;
      if (within[x] != 0 || around[x] == 0 || w[x] <= 0.0F) continue;
      const float share = d[x] * w[x] / std::max(f[x], 1e-6F);
      to[x] = std::clamp((share - kNoCover) / (1.0F - 2.0F * kNoCover), 0.0F, 1.0F);
    }
  }
  return out;
}

}  // namespace

cv::Rect Silhouette::bounds() const {
  return empty() ? cv::Rect() : cv::boundingRect(mask) + box.tl();
}

Silhouette cutOut(const Picture& picture, Backdrop& backdrop, PixelPoint moved, std::size_t frame,
                  const Expected& expected, SegmentationCue by, const cv::Mat& hidden) {
  const int size = std::max(expected.bounds.width, expected.bounds.height);
  const int room = static_cast<int>(std::ceil(kRoomOfSize * size + expected.reach_px)) + 4;
  const cv::Rect whole(0, 0, picture.width(), picture.height());
  const cv::Rect box = cv::Rect(expected.bounds.x - room, expected.bounds.y - room,
                                expected.bounds.width + 2 * room, expected.bounds.height + 2 * room) &
                       whole;
  if (box.empty()) return {};
  Colours colours;
  cv::split(picture.colours(box), colours.data());
  const Backdrop::View behind = backdrop.view(box, moved, frame);
  cv::Mat own = cv::Mat::zeros(box.size(), CV_8UC1);
  const cv::Rect place = expected.bounds & box;
  if (place.empty()) return {};
  expected.mask(place - expected.bounds.tl()).copyTo(own(place - box.tl()));
  const int reach = 2 * static_cast<int>(std::ceil(expected.reach_px)) + 1;
  // As a dilation by a square, whose cost would grow with the reach.
  cv::Mat near;
  cv::boxFilter(own, near, CV_32S, cv::Size(reach, reach), cv::Point(-1, -1), false, cv::BORDER_CONSTANT);
  near = near > 0;
  const cv::Mat away = distances(colours, behind, lightAround(colours, behind, near), by);
  cv::Mat weak = away > kWeak * kWeak;
  const cv::Mat strong = away > kStrong * kStrong;
  if (!hidden.empty()) weak.setTo(0, hidden(box));
  cutLine(weak, expected);

  Silhouette out{box, belonging(weak, strong, own, near, away, expected.inOnePart), {}};
  if (cv::countNonZero(out.mask) == 0) return {};
  closeHoles(out.mask);
  // The rim is refined in what surrounds the lure alone.
  const cv::Rect bounds = cv::boundingRect(out.mask);
  const cv::Point nearby(kNearby_px, kNearby_px);
  const cv::Rect around = cv::Rect(bounds.tl() - nearby, bounds.br() + nearby) & cv::Rect({}, box.size());
  out.cover = coverOf(away(around), strong(around), out.mask(around));
  out.mask = out.cover >= 0.5F;
  out.box = around + box.tl();
  if (cv::countNonZero(out.mask) == 0) return {};
  return out;
}

OutlineSample measured(const Silhouette& silhouette, const Picture& picture, double angleBefore_rad) {
  OutlineSample out;
  const cv::Moments m = cv::moments(silhouette.cover);
  if (m.m00 < 1.0) return out;
  out.seen = true;
  out.area_px2 = m.m00;
  const PixelPoint middle{m.m10 / m.m00, m.m01 / m.m00};
  out.centre = middle + PixelPoint{1.0 * silhouette.box.x, 1.0 * silhouette.box.y};
  // A line through the middle has no direction: of its two, the one nearer to the one before.
  double angle = 0.5 * std::atan2(2.0 * m.mu11, m.mu20 - m.mu02);
  if (std::cos(angle - angleBefore_rad) < 0.0) angle += std::numbers::pi;
  out.angle_rad = std::remainder(angle, 2.0 * std::numbers::pi);

  std::vector<std::vector<cv::Point>> contours;
  cv::findContours(silhouette.mask.clone(), contours, cv::RETR_EXTERNAL, cv::CHAIN_APPROX_NONE,
                   silhouette.box.tl());
  double along[2] = {1e9, -1e9};
  double across[2] = {1e9, -1e9};
  const double c = std::cos(angle);
  const double s = std::sin(angle);
  for (const auto& contour : contours) {
    std::vector<PixelPoint>& line = out.contours.emplace_back();
    for (const cv::Point& p : contour) {
      const PixelPoint at{1.0 * p.x, 1.0 * p.y};
      line.push_back(at);
      const double u = c * at.x_px + s * at.y_px;
      const double v = c * at.y_px - s * at.x_px;
      along[0] = std::min(along[0], u);
      along[1] = std::max(along[1], u);
      across[0] = std::min(across[0], v);
      across[1] = std::max(across[1], v);
    }
  }
  out.length_px = along[1] - along[0] + 1.0;
  out.width_px = across[1] - across[0] + 1.0;
  const cv::Rect bounds = silhouette.bounds();
  out.whole =
      bounds.x > 0 && bounds.y > 0 && bounds.br().x < picture.width() && bounds.br().y < picture.height();
  out.brightness = cv::mean(picture.grey()(silhouette.box), silhouette.mask)[0];
  return out;
}

}  // namespace fin
