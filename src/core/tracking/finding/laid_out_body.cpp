// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/finding/laid_out_body.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <opencv2/imgproc.hpp>
#include <span>

#include "core/tracking/quantile.h"

namespace fin {
namespace {

constexpr double kShortest_px = 16.0;
constexpr double kEndsOff = 0.005;    ///< of the silhouette's pixels
constexpr double kWire = 0.12;        ///< of the body's thickness: what is thinner is a hook or the line
constexpr double kSpotRadius = 0.16;  ///< of the body's width
constexpr double kLeastSpotRadius_px = 2.5;
constexpr double kAround = 2.0;  ///< radii to what a spot is held against
constexpr float kOnBody = 0.5F;  ///< of a disc that must be body
constexpr std::size_t kFewestAround = 4;
constexpr double kLow = 0.34;  ///< quantile
constexpr double kLightness = 0.7;
constexpr double kColour = 1.4;
constexpr double kOffMiddle = 0.3;  ///< of the width
constexpr float kLeastStrength = 4.0F;
constexpr double kUsualWidth = 0.8;  ///< quantile

/// A disc that sums to one over its own pixels when it is convolved.
cv::Mat disc(int radius) {
  cv::Mat out = cv::getStructuringElement(cv::MORPH_ELLIPSE, {2 * radius + 1, 2 * radius + 1});
  out.convertTo(out, CV_32FC1);
  return out;
}

cv::Mat summed(const cv::Mat& image, const cv::Mat& kernel) {
  cv::Mat out;
  cv::filter2D(image, out, CV_32F, kernel, {-1, -1}, 0.0, cv::BORDER_REPLICATE);
  return out;
}

/// Low quantile, over the discs around a pixel that lie on the body, of how far it differs from them the way
/// it differs from all of them.
float standingOut(const cv::Mat& means, const cv::Mat& covered, cv::Point at,
                  const std::array<cv::Point, 8>& around, const cv::Rect& room) {
  const cv::Vec3f here = means.at<cv::Vec3f>(at);
  std::vector<cv::Vec3f> away;
  cv::Vec3f sum{};
  for (const cv::Point& step : around) {
    const cv::Point there = at + step;
    if (!room.contains(there) || covered.at<float>(there) < kOnBody) continue;
    away.push_back(here - means.at<cv::Vec3f>(there));
    sum += away.back();
  }
  const double length = cv::norm(sum);
  if (away.size() < kFewestAround || length < 1e-6) return 0.0F;
  std::vector<float> along;
  for (const cv::Vec3f& v : away) along.push_back(static_cast<float>(v.dot(sum) / length));
  return std::max(quantileOf(std::span(along), kLow), 0.0F);
}

/// How far each pixel's disc differs from the discs around it on the body, in nearly every direction: a spot,
/// and neither an edge nor a stripe.
cv::Mat spotMap(const LaidOutBody& body, int radius) {
  const cv::Mat inner = disc(radius);
  cv::Mat on;
  body.mask.convertTo(on, CV_32FC1, 1.0 / 255.0);
  const cv::Mat covered = summed(on, inner) / cv::sum(inner)[0];
  std::array<cv::Mat, 3> planes;
  cv::split(body.look, planes.data());
  cv::Mat means(body.mask.size(), CV_32FC3);
  for (std::size_t c = 0; c < 3; ++c)
    planes[c] = summed(planes[c].mul(on), inner) / (cv::sum(inner)[0] * covered + 1e-3) *
                (c == 0 ? kLightness : kColour);
  cv::merge(planes.data(), 3, means);
  std::array<cv::Point, 8> around;
  for (std::size_t i = 0; i < around.size(); ++i)
    around[i] = {cvRound(kAround * radius * std::cos(0.25 * std::numbers::pi * static_cast<double>(i))),
                 cvRound(kAround * radius * std::sin(0.25 * std::numbers::pi * static_cast<double>(i)))};
  cv::Mat out = cv::Mat::zeros(body.mask.size(), CV_32FC1);
  const cv::Rect room({}, body.mask.size());
  for (int y = 0; y < out.rows; ++y) {
    for (int x = 0; x < out.cols; ++x) {
      if (body.mask.at<uchar>(y, x) != 0)
        out.at<float>(y, x) = standingOut(means, covered, {x, y}, around, room);
    }
  }
  return out;
}

/// The largest part of a silhouette that holds together without what is as thin as a hook.
cv::Mat withoutWires(const cv::Mat& mask) {
  cv::Mat depth;
  cv::Mat framed;
  cv::copyMakeBorder(mask, framed, 1, 1, 1, 1, cv::BORDER_CONSTANT, cv::Scalar(0));
  cv::distanceTransform(framed, depth, cv::DIST_L2, cv::DIST_MASK_PRECISE);
  double deepest = 0.0;
  cv::minMaxLoc(depth, nullptr, &deepest);
  const int thick = std::max(3, cvRound(2.0 * kWire * deepest));
  cv::Mat open;
  cv::morphologyEx(mask, open, cv::MORPH_OPEN, cv::getStructuringElement(cv::MORPH_ELLIPSE, {thick, thick}));
  cv::Mat labels, stats, centroids;
  const int count = cv::connectedComponentsWithStats(open, labels, stats, centroids, 8);
  int largest = 0;
  for (int i = 1; i < count; ++i) {
    if (largest == 0 || stats.at<int>(i, cv::CC_STAT_AREA) > stats.at<int>(largest, cv::CC_STAT_AREA))
      largest = i;
  }
  return largest == 0 ? mask : cv::Mat(labels == largest);
}

void measureWidths(LaidOutBody& body) {
  body.width.assign(LaidOutBody::kColumns, 0.0);
  body.centre.assign(LaidOutBody::kColumns, 0.5 * LaidOutBody::kRows);
  for (int x = 0; x < body.mask.cols; ++x) {
    double rows = 0.0;
    double sum = 0.0;
    for (int y = 0; y < body.mask.rows; ++y) {
      if (body.mask.at<uchar>(y, x) == 0) continue;
      rows += 1.0;
      sum += y;
    }
    if (rows < 1.0) continue;
    body.width[static_cast<std::size_t>(x)] = rows;
    body.centre[static_cast<std::size_t>(x)] = sum / rows;
  }
}

/// A silhouette as a mask.
struct Cut {
  cv::Rect box;
  cv::Mat mask;  ///< CV_8UC1
};
Cut cutOf(const OutlineSample& outline) {
  std::vector<std::vector<cv::Point>> rims;
  std::vector<cv::Point> all;
  for (const auto& contour : outline.contours) {
    auto& rim = rims.emplace_back();
    for (const PixelPoint& p : contour) rim.emplace_back(cvRound(p.x_px), cvRound(p.y_px));
    all.insert(all.end(), rim.begin(), rim.end());
  }
  Cut out{cv::boundingRect(all), {}};
  out.mask = cv::Mat::zeros(out.box.size(), CV_8UC1);
  for (auto& rim : rims) {
    for (cv::Point& p : rim) p -= out.box.tl();
  }
  cv::fillPoly(out.mask, rims, cv::Scalar(255));
  return out;
}

/// Of values whose means are nought.
struct Correlation {
  double top = 0.0, left = 0.0, right = 0.0;
  void add(double p, double q) {
    top += p * q;
    left += p * p;
    right += q * q;
  }
  [[nodiscard]] double value() const {
    return left > 0.0 && right > 0.0 ? top / std::sqrt(left * right) : 0.0;
  }
};

}  // namespace

PixelPoint LaidOutBody::inPicture(double column, double row) const {
  const double along = shareAt(column) * length_px + rear_px;
  const double across = (row + 0.5 - 0.5 * kRows) / kLength * length_px;
  return middle + ahead * along + PixelPoint{-ahead.y_px, ahead.x_px} * across;
}

std::pair<double, double> LaidOutBody::onBody(PixelPoint at) const {
  const PixelPoint d = at - middle;
  const double along = d.x_px * ahead.x_px + d.y_px * ahead.y_px;
  const double across = d.y_px * ahead.x_px - d.x_px * ahead.y_px;
  return {((along - rear_px) / length_px + kRoom) * kLength - 0.5,
          across / length_px * kLength + 0.5 * kRows - 0.5};
}

LaidOutBody LaidOutBody::turnedRound() const {
  LaidOutBody out = *this;
  out.look = cv::Mat();  // not to be turned in place, as it is shared
  out.mask = cv::Mat();
  cv::flip(look, out.look, -1);
  cv::flip(mask, out.mask, -1);
  static_cast<BodyAxis&>(out) = BodyAxis::turnedRound();
  measureWidths(out);
  return out;
}

double LaidOutBody::widthAt(double share) const {
  double sum = 0.0;
  int n = 0;
  for (int x = columnAt(share - 0.03); x <= columnAt(share + 0.03); ++x, ++n)
    sum += width[static_cast<std::size_t>(std::clamp(x, 0, kColumns - 1))];
  return sum / n;
}

std::optional<BodyAxis> longAxisOf(const OutlineSample& outline) {
  if (!outline.seen || outline.contours.empty()) return std::nullopt;
  const Cut cut = cutOf(outline);
  const cv::Mat whole = withoutWires(cut.mask);
  BodyAxis out{outline.centre, {std::cos(outline.angle_rad), std::sin(outline.angle_rad)}};
  std::vector<double> along;
  for (int y = 0; y < whole.rows; ++y) {
    for (int x = 0; x < whole.cols; ++x) {
      if (whole.at<uchar>(y, x) == 0) continue;
      const PixelPoint d = PixelPoint{1.0 * (x + cut.box.x), 1.0 * (y + cut.box.y)} - out.middle;
      along.push_back(d.x_px * out.ahead.x_px + d.y_px * out.ahead.y_px);
    }
  }
  if (along.empty()) return std::nullopt;
  std::sort(along.begin(), along.end());
  const auto off = static_cast<std::size_t>(kEndsOff * static_cast<double>(along.size()));
  out.rear_px = along[off];
  out.length_px = along[along.size() - 1 - off] - along[off];
  return out.length_px < kShortest_px ? std::nullopt : std::optional(out);
}

LaidOutBody laidOut(const Picture& picture, const OutlineSample& outline, const BodyAxis& axis) {
  LaidOutBody out{axis};
  cv::Mat x(LaidOutBody::kRows, LaidOutBody::kColumns, CV_32FC1), y = x.clone();
  for (int row = 0; row < LaidOutBody::kRows; ++row) {
    for (int column = 0; column < LaidOutBody::kColumns; ++column) {
      const PixelPoint at = out.inPicture(column, row);
      x.at<float>(row, column) = static_cast<float>(at.x_px);
      y.at<float>(row, column) = static_cast<float>(at.y_px);
    }
  }
  cv::Mat turned, lab;
  cv::remap(picture.rgb(), turned, x, y, cv::INTER_LINEAR, cv::BORDER_REPLICATE);
  cv::cvtColor(turned, lab, cv::COLOR_RGB2Lab);
  lab.convertTo(out.look, CV_32FC3);
  const Cut cut = cutOf(outline);
  cv::remap(cut.mask, out.mask, x - cut.box.x, y - cut.box.y, cv::INTER_LINEAR, cv::BORDER_CONSTANT,
            cv::Scalar(0));
  out.mask = out.mask > 127;
  measureWidths(out);
  return out;
}

double alikeness(const LaidOutBody& a, const LaidOutBody& b) {
  const cv::Mat both = a.mask & b.mask;
  if (cv::countNonZero(both) < 50) return 0.0;
  Correlation looks;
  const cv::Scalar meanA = cv::mean(a.look, both);
  const cv::Scalar meanB = cv::mean(b.look, both);
  for (int y = 0; y < both.rows; ++y) {
    for (int x = 0; x < both.cols; ++x) {
      if (both.at<uchar>(y, x) == 0) continue;
      for (int c = 0; c < 3; ++c)
        looks.add(a.look.at<cv::Vec3f>(y, x)[c] - meanA[c], b.look.at<cv::Vec3f>(y, x)[c] - meanB[c]);
    }
  }
  Correlation shapes;
  const double widthA = cv::mean(a.width)[0], widthB = cv::mean(b.width)[0];
  for (std::size_t i = 0; i < a.width.size(); ++i) shapes.add(a.width[i] - widthA, b.width[i] - widthB);
  return 0.5 * (looks.value() + shapes.value());
}

std::vector<BodySpot> spotsOn(const LaidOutBody& body, double fromShare, double toShare, std::size_t most) {
  std::vector<double> widths;
  for (const double w : body.width) {
    if (w > 0.0) widths.push_back(w);
  }
  if (widths.empty()) return {};
  const double usual = quantileOf(std::span(widths), kUsualWidth);
  const int radius = cvRound(std::max(kLeastSpotRadius_px, kSpotRadius * usual));
  cv::Mat map = spotMap(body, radius);
  const int pupil = cvRound(std::max(kLeastSpotRadius_px, 0.5 * kSpotRadius * usual));
  if (pupil < radius) map = cv::max(map, spotMap(body, pupil));
  for (int x = 0; x < map.cols; ++x) {
    const auto column = static_cast<std::size_t>(x);
    const double reach = std::max(kOffMiddle * body.width[column], 1.5);
    for (int y = 0; y < map.rows; ++y) {
      if (std::abs(y - body.centre[column]) > reach) map.at<float>(y, x) = 0.0F;
    }
  }
  cv::Mat highest;
  cv::dilate(map, highest, cv::Mat::ones(5, 5, CV_8UC1));
  std::vector<BodySpot> out;
  for (int y = 0; y < map.rows; ++y) {
    for (int x = 0; x < map.cols; ++x) {
      const float strength = map.at<float>(y, x);
      const double share = LaidOutBody::shareAt(x);
      if (strength < kLeastStrength || strength < highest.at<float>(y, x) || share < fromShare ||
          share > toShare)
        continue;
      out.push_back({strength, share, 1.0 * x, 1.0 * y});
    }
  }
  std::sort(out.begin(), out.end(),
            [](const BodySpot& a, const BodySpot& b) { return a.strength > b.strength; });
  out.resize(std::min(out.size(), most));
  return out;
}

}  // namespace fin
