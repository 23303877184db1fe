// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/outline/still_outline.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "core/tracking/outline/silhouette.h"

namespace fin {
namespace {

constexpr int kLongest_px = 1200;
constexpr double kGrown = 0.35;  ///< of what was drawn, across: the lure may reach so far beyond it
constexpr double kMargin = 1.0;  ///< of the same: how much of the background is looked at around
constexpr int kCutRounds = 5;
constexpr double kLeastAlike = 0.45;  ///< of found and drawn: what both hold, over what either holds

cv::Mat filled(const std::vector<cv::Point>& polygon, cv::Size size) {
  cv::Mat out = cv::Mat::zeros(size, CV_8UC1);
  cv::fillPoly(out, std::vector<std::vector<cv::Point>>{polygon}, cv::Scalar(255));
  return out;
}

cv::Mat largestPart(const cv::Mat& mask) {
  cv::Mat labels, stats, centroids;
  const int count = cv::connectedComponentsWithStats(mask, labels, stats, centroids, 8);
  int largest = 0;
  for (int i = 1; i < count; ++i) {
    if (largest == 0 || stats.at<int>(i, cv::CC_STAT_AREA) > stats.at<int>(largest, cv::CC_STAT_AREA))
      largest = i;
  }
  return largest == 0 ? cv::Mat::zeros(mask.size(), CV_8UC1) : cv::Mat(labels == largest);
}

double alike(const cv::Mat& a, const cv::Mat& b) {
  const double both = cv::countNonZero(a & b);
  const double either = cv::countNonZero(a | b);
  return either > 0.0 ? both / either : 0.0;
}

}  // namespace

Result<OutlineSample> outlineInStill(const Picture& picture, const std::vector<PixelPoint>& polygon) {
  std::vector<cv::Point2f> drawn;
  for (const PixelPoint& p : polygon)
    drawn.emplace_back(static_cast<float>(p.x_px), static_cast<float>(p.y_px));
  const cv::Size2f sides = cv::minAreaRect(drawn).size;
  const double across = std::min(sides.width, sides.height);
  const int margin = static_cast<int>(std::ceil((kGrown + kMargin) * across)) + 4;
  cv::Rect box = cv::boundingRect(drawn);
  box = cv::Rect(box.x - margin, box.y - margin, box.width + 2 * margin, box.height + 2 * margin) &
        cv::Rect(0, 0, picture.width(), picture.height());
  if (box.empty() || across < 2.0)
    return failure(ErrorCode::BadRequest, "the outline is drawn outside of the picture", "outline");
  const double smaller = std::min(1.0, static_cast<double>(kLongest_px) / std::max(box.width, box.height));
  cv::Mat part;
  cv::resize(picture.rgb()(box), part, {}, smaller, smaller, cv::INTER_AREA);
  std::vector<cv::Point> inPart;
  for (const cv::Point2f& p : drawn)
    inPart.emplace_back(cvRound((p.x - static_cast<float>(box.x)) * smaller),
                        cvRound((p.y - static_cast<float>(box.y)) * smaller));
  const cv::Mat inside = filled(inPart, part.size());
  const int reach = std::max(1, cvRound(kGrown * across * smaller));
  cv::Mat grown;
  cv::dilate(inside, grown, cv::getStructuringElement(cv::MORPH_ELLIPSE, {2 * reach + 1, 2 * reach + 1}));
  cv::Mat cut(part.size(), CV_8UC1, cv::Scalar(cv::GC_BGD));
  cut.setTo(cv::GC_PR_BGD, grown);
  cut.setTo(cv::GC_PR_FGD, inside);
  cv::Mat behind, lure;
  cv::setRNGSeed(1);  // it draws its first guess of the colours
  cv::grabCut(part, cut, {}, behind, lure, kCutRounds, cv::GC_INIT_WITH_MASK);
  const cv::Mat found = largestPart((cut == cv::GC_FGD) | (cut == cv::GC_PR_FGD));
  if (alike(found, inside) < kLeastAlike)
    return failure(
        ErrorCode::Lost,
        "what it encloses cannot be told from what lies behind it: draw it closer around the lure, or "
        "hold the lure before a plain ground of another colour");
  cv::Mat whole;
  cv::resize(found, whole, box.size(), 0.0, 0.0, cv::INTER_LINEAR);
  Silhouette silhouette{box, whole > 127, {}};
  silhouette.mask.convertTo(silhouette.cover, CV_32FC1, 1.0 / 255.0);
  return measured(silhouette, picture, 0.0);
}

}  // namespace fin
