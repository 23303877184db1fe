// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/finding/laid_out_body.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

namespace fin {
namespace {

constexpr double kShortest_px = 16.0;
constexpr double kEndsOff = 0.005;    ///< of the silhouette's pixels: a hook's tip is no end
constexpr double kSpotRadius = 0.16;  ///< of the body's width
constexpr double kLeastSpotRadius_px = 2.5;
constexpr double kAround = 2.2;        ///< radii of what a spot is held against
constexpr double kLeastAround = 0.15;  ///< of that which must be body
constexpr double kOffMiddle = 0.2;     ///< of the width
constexpr float kLeastStrength = 4.0F;
constexpr double kPercentile80 = 0.8;

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

/// How far each pixel's disc differs from the body in the ring around it.
cv::Mat spotMap(const LaidOutBody& body, int radius) {
  const cv::Mat inner = disc(radius);
  const cv::Mat outer = disc(cvRound(kAround * radius));
  cv::Mat on;
  body.mask.convertTo(on, CV_32FC1, 1.0 / 255.0);
  const cv::Mat ring = summed(on, outer) - summed(on, inner);
  const double innerSum = cv::sum(inner)[0];
  std::array<cv::Mat, 3> planes;
  cv::split(body.look, planes.data());
  cv::Mat squares = cv::Mat::zeros(body.mask.size(), CV_32FC1);
  for (std::size_t c = 0; c < 3; ++c) {
    const cv::Mat masked = planes[c].mul(on);
    const cv::Mat around = (summed(masked, outer) - summed(masked, inner)) / (ring + 1e-3);
    const cv::Mat differs = summed(planes[c], inner) / innerSum - around;
    squares += (c == 0 ? 0.5 : 2.0) * differs.mul(differs);
  }
  cv::Mat out;
  cv::sqrt(squares, out);
  out.setTo(0.0F, ring < kLeastAround * cv::sum(outer)[0]);
  out.setTo(0.0F, body.mask == 0);
  return out;
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

}  // namespace

PixelPoint LaidOutBody::inPicture(double column, double row) const {
  const double along = shareAt(column) * length_px + rear_px;
  const double across = (row + 0.5 - 0.5 * kRows) / kLength * length_px;
  return middle + ahead * along + PixelPoint{-ahead.y_px, ahead.x_px} * across;
}

LaidOutBody LaidOutBody::turnedRound() const {
  LaidOutBody out = *this;
  out.look = cv::Mat();  // not to be turned in place, as it is shared
  out.mask = cv::Mat();
  cv::flip(look, out.look, -1);
  cv::flip(mask, out.mask, -1);
  out.ahead = ahead * -1.0;
  out.rear_px = -(rear_px + length_px);
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

std::optional<LaidOutBody> laidOut(const Picture& picture, const OutlineSample& outline) {
  if (!outline.seen || outline.contours.empty()) return std::nullopt;
  std::vector<std::vector<cv::Point>> rims;
  std::vector<cv::Point> all;
  for (const auto& contour : outline.contours) {
    auto& rim = rims.emplace_back();
    for (const PixelPoint& p : contour) rim.emplace_back(cvRound(p.x_px), cvRound(p.y_px));
    all.insert(all.end(), rim.begin(), rim.end());
  }
  const cv::Rect box = cv::boundingRect(all);
  cv::Mat mask = cv::Mat::zeros(box.size(), CV_8UC1);
  for (auto& rim : rims) {
    for (cv::Point& p : rim) p -= box.tl();
  }
  cv::fillPoly(mask, rims, cv::Scalar(255));
  LaidOutBody out;
  out.middle = outline.centre;
  out.ahead = {std::cos(outline.angle_rad), std::sin(outline.angle_rad)};
  std::vector<double> along;
  for (int y = 0; y < mask.rows; ++y) {
    for (int x = 0; x < mask.cols; ++x) {
      if (mask.at<uchar>(y, x) == 0) continue;
      const PixelPoint d = PixelPoint{1.0 * (x + box.x), 1.0 * (y + box.y)} - out.middle;
      along.push_back(d.x_px * out.ahead.x_px + d.y_px * out.ahead.y_px);
    }
  }
  if (along.empty()) return std::nullopt;
  std::sort(along.begin(), along.end());
  const auto off = static_cast<std::size_t>(kEndsOff * static_cast<double>(along.size()));
  out.rear_px = along[off];
  out.length_px = along[along.size() - 1 - off] - along[off];
  if (out.length_px < kShortest_px) return std::nullopt;
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
  cv::remap(mask, out.mask, x - box.x, y - box.y, cv::INTER_LINEAR, cv::BORDER_CONSTANT, cv::Scalar(0));
  out.mask = out.mask > 127;
  measureWidths(out);
  return out;
}

double alikeness(const LaidOutBody& a, const LaidOutBody& b) {
  const cv::Mat both = a.mask & b.mask;
  if (cv::countNonZero(both) < 50) return 0.0;
  double top = 0.0, left = 0.0, right = 0.0;
  const cv::Scalar meanA = cv::mean(a.look, both);
  const cv::Scalar meanB = cv::mean(b.look, both);
  for (int y = 0; y < both.rows; ++y) {
    for (int x = 0; x < both.cols; ++x) {
      if (both.at<uchar>(y, x) == 0) continue;
      for (int c = 0; c < 3; ++c) {
        const double p = a.look.at<cv::Vec3f>(y, x)[c] - meanA[c];
        const double q = b.look.at<cv::Vec3f>(y, x)[c] - meanB[c];
        top += p * q;
        left += p * p;
        right += q * q;
      }
    }
  }
  return left > 0.0 && right > 0.0 ? top / std::sqrt(left * right) : 0.0;
}

std::vector<BodySpot> spotsOn(const LaidOutBody& body, double fromShare, double toShare, std::size_t most) {
  std::vector<double> widths;
  for (const double w : body.width) {
    if (w > 0.0) widths.push_back(w);
  }
  if (widths.empty()) return {};
  const auto nth =
      widths.begin() + static_cast<std::ptrdiff_t>(kPercentile80 * static_cast<double>(widths.size() - 1));
  std::nth_element(widths.begin(), nth, widths.end());
  const int radius = cvRound(std::max(kLeastSpotRadius_px, kSpotRadius * *nth));
  cv::Mat map = spotMap(body, radius);
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
