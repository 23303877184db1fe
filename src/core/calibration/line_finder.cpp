// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/calibration/line_finder.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <opencv2/core.hpp>
#include <opencv2/imgproc.hpp>
#include <optional>

namespace fin {
namespace {

constexpr double kMostSlope_deg = 15.0;
constexpr double kLeastSupport = 0.35;
constexpr double kLeastStep_grey = 1.5;  ///< per pixel, of the smoothed picture
constexpr double kOverNoise = 4.0;       ///< times the picture's usual step
constexpr int kBorder_px = 4;
constexpr double kApart_px = 8.0;  ///< nearer lines are one
constexpr int kReach_px = 4;
constexpr std::size_t kMost = 8;

/// How fast the picture changes downwards, and where that is most in its column.
struct Ridges {
  cv::Mat step;  ///< CV_32F, absolute
  cv::Mat peak;  ///< CV_8U, 255 on a ridge
};

/// The median over a grid of the picture: what noise and shading alone do.
double usualStep(const cv::Mat& step) {
  constexpr int kGrid_px = 7;
  std::vector<float> some;
  for (int y = 0; y < step.rows; y += kGrid_px) {
    for (int x = 0; x < step.cols; x += kGrid_px) some.push_back(step.at<float>(y, x));
  }
  const auto middle = some.begin() + static_cast<std::ptrdiff_t>(some.size() / 2);
  std::nth_element(some.begin(), middle, some.end());
  return static_cast<double>(*middle);
}

Ridges ridgesOf(const cv::Mat& grey) {
  cv::Mat smooth;
  cv::GaussianBlur(grey, smooth, {}, 1.5);
  cv::Mat slope;
  cv::Sobel(smooth, slope, CV_32F, 0, 1, 3, 0.125);
  Ridges out{cv::abs(slope), cv::Mat::zeros(grey.size(), CV_8U)};
  const double least = std::max(kLeastStep_grey, kOverNoise * usualStep(out.step));
  for (int y = kBorder_px; y + kBorder_px < grey.rows; ++y) {
    const auto* above = out.step.ptr<float>(y - 1);
    const auto* here = out.step.ptr<float>(y);
    const auto* below = out.step.ptr<float>(y + 1);
    auto* mark = out.peak.ptr<uchar>(y);
    for (int x = 0; x < grey.cols; ++x) {
      if (here[x] > least && here[x] >= above[x] && here[x] > below[x]) mark[x] = 255;
    }
  }
  return out;
}

/// y = offset + slope · x.
struct Level {
  double offset = 0.0;
  double slope = 0.0;
  [[nodiscard]] double at(double x) const { return offset + slope * x; }
};

struct EdgePlace {
  double x;
  double y;
};

/// The strongest edge near the line in every other column, to a fraction of a pixel.
std::vector<EdgePlace> edgeAlong(const Ridges& ridges, const Level& line, int reach) {
  std::vector<EdgePlace> out;
  const cv::Mat& step = ridges.step;
  for (int x = 0; x < step.cols; x += 2) {
    const int middle = static_cast<int>(std::lround(line.at(x)));
    int best = -1;
    for (int y = std::max(1, middle - reach); y <= std::min(step.rows - 2, middle + reach); ++y) {
      if (ridges.peak.at<uchar>(y, x) != 0 && (best < 0 || step.at<float>(y, x) > step.at<float>(best, x)))
        best = y;
    }
    if (best < 0) continue;
    const double a = step.at<float>(best - 1, x);
    const double b = step.at<float>(best, x);
    const double c = step.at<float>(best + 1, x);
    const double bend = a - 2.0 * b + c;
    out.push_back({static_cast<double>(x), best + (bend < 0.0 ? 0.5 * (a - c) / bend : 0.0)});
  }
  return out;
}

Level fitted(const std::vector<EdgePlace>& places) {
  double n = 0.0, sx = 0.0, sy = 0.0, sxx = 0.0, sxy = 0.0;
  for (const EdgePlace& p : places) {
    n += 1.0;
    sx += p.x;
    sy += p.y;
    sxx += p.x * p.x;
    sxy += p.x * p.y;
  }
  const double slope = (n * sxy - sx * sy) / (n * sxx - sx * sx);
  return {(sy - slope * sx) / n, slope};
}

/// Settles a rough line on its edge: ever narrower about the line, so that what crosses it drops out.
std::optional<FoundLine> settled(const Ridges& ridges, Level line) {
  std::vector<EdgePlace> places;
  for (const int reach : {kReach_px, 2, 1, 1}) {
    places = edgeAlong(ridges, line, reach);
    if (places.size() < 8) return std::nullopt;
    line = fitted(places);
  }
  double sum = 0.0;
  for (const EdgePlace& p : places) sum += std::pow(p.y - line.at(p.x), 2);
  const double last = ridges.step.cols - 1;
  return FoundLine{{{0.0, line.at(0.0)}, {last, line.at(last)}},
                   2.0 * static_cast<double>(places.size()) / ridges.step.cols,
                   std::sqrt(sum / static_cast<double>(places.size()))};
}

bool sameAs(const FoundLine& a, const FoundLine& b) {
  return std::abs(midpoint(a.line.from, a.line.to).y_px - midpoint(b.line.from, b.line.to).y_px) < kApart_px;
}

/// The best supported first; of those that lie together only the best.
std::vector<FoundLine> bestApart(std::vector<FoundLine> all) {
  std::stable_sort(all.begin(), all.end(),
                   [](const FoundLine& a, const FoundLine& b) { return a.support > b.support; });
  std::vector<FoundLine> out;
  for (const FoundLine& line : all) {
    const bool known =
        std::any_of(out.begin(), out.end(), [&](const FoundLine& o) { return sameAs(o, line); });
    if (!known && out.size() < kMost) out.push_back(line);
  }
  return out;
}

std::vector<FoundLine> levelLines(const cv::Mat& grey) {
  const Ridges ridges = ridgesOf(grey);
  std::vector<cv::Vec2f> rough;
  const double quarter = 0.5 * std::numbers::pi;
  const double most = kMostSlope_deg * std::numbers::pi / 180.0;
  cv::HoughLines(ridges.peak, rough, 2.0, std::numbers::pi / 720.0, grey.cols / 4, 0.0, 0.0, quarter - most,
                 quarter + most);
  std::vector<FoundLine> out;
  constexpr std::size_t kTried = 200;
  for (std::size_t i = 0; i < std::min(rough.size(), kTried); ++i) {
    const double distance = rough[i][0];
    const double theta = rough[i][1];
    const auto line = settled(ridges, {distance / std::sin(theta), -std::cos(theta) / std::sin(theta)});
    if (line && line->support >= kLeastSupport) out.push_back(*line);
  }
  return bestApart(std::move(out));
}

}  // namespace

std::vector<FoundLine> findLines(const Picture& picture, LineKind kind) {
  if (kind == LineKind::Level) return levelLines(picture.grey());
  cv::Mat onItsSide;
  cv::transpose(picture.grey(), onItsSide);
  std::vector<FoundLine> out = levelLines(onItsSide);
  for (FoundLine& found : out) {
    std::swap(found.line.from.x_px, found.line.from.y_px);
    std::swap(found.line.to.x_px, found.line.to.y_px);
  }
  return out;
}

}  // namespace fin
