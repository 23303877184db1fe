// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/background/film_looks.h"

#include <algorithm>
#include <opencv2/imgproc.hpp>

namespace fin {
namespace {

constexpr int kEvenedOver_px = 33;
constexpr double kEvenContrast = 40.0;  ///< grey levels that a usual contrast becomes
constexpr double kFaintContrast = 2.0;

std::optional<PixelPoint> shiftAt(PixelPoint middle, const SceneryFlow& flow) {
  const auto fit = fitSimilarity(flow.from, flow.to);
  return fit ? std::optional((*fit)(middle)-middle) : std::nullopt;
}

}  // namespace

cv::Mat evened(const cv::Mat& frame, int smaller) {
  cv::Mat luma;
  cv::extractChannel(frame, luma, 0);
  if (smaller > 1) {
    const cv::Size size(luma.cols / smaller, luma.rows / smaller);
    // Whole pixels of it are quick to make.
    cv::resize(luma(cv::Rect(0, 0, smaller * size.width, smaller * size.height)), luma, size, 0.0, 0.0,
               cv::INTER_AREA);
  }
  luma.convertTo(luma, CV_32FC1);
  cv::Mat mean, spread;
  cv::blur(luma, mean, cv::Size(kEvenedOver_px, kEvenedOver_px));
  luma -= mean;
  cv::blur(luma.mul(luma), spread, cv::Size(kEvenedOver_px, kEvenedOver_px));
  cv::sqrt(spread, spread);
  cv::divide(luma, cv::Mat(spread + kFaintContrast), luma, kEvenContrast);
  cv::Mat out;
  luma.convertTo(out, CV_8UC1, 1.0, 128.0);
  return out;
}

void lookThrough(const ReducedFilm& film, const Track& track, std::size_t every, int smaller,
                 const JobControl& job, const SeeFrame& see) {
  std::size_t met = 0;
  LureSurroundings lure;
  for (const auto& [n, frame] : film.frames) {
    if (job.cancelled()) return;
    if (n < track.firstFrame || n >= track.firstFrame + track.frameCount || met++ % every != 0) continue;
    const std::size_t i = n - track.firstFrame;
    lure = surroundingsIn(track, i, lure);
    see(i, evened(frame, smaller),
        LureSurroundings{film.toReduced(lure.middle) * (1.0 / smaller),
                         lure.reach_px * film.scale / smaller});
    job.report(static_cast<double>(i + 1) / static_cast<double>(track.frameCount));
  }
}

Shift shiftOf(const SceneryFlow& flow, const LureSurroundings& lure, cv::Size size) {
  SceneryFlow all;
  std::array<SceneryFlow, 2> half;
  for (std::size_t k = 0; k < flow.to.size(); ++k) {
    if (lure.holds(flow.to[k])) continue;
    const bool left = 2.0F * flow.from[k].x < static_cast<float>(size.width);
    for (SceneryFlow* part : {&all, &half[left ? 0 : 1]}) {
      part->from.push_back(flow.from[k]);
      part->to.push_back(flow.to[k]);
    }
  }
  const PixelPoint middle{0.5 * (size.width - 1), 0.5 * (size.height - 1)};
  Shift out{0, shiftAt(middle, all), {}};
  // Each where it looks: what a half tells of the far side is a guess.
  const auto left = shiftAt({0.5 * middle.x_px, middle.y_px}, half[0]);
  const auto right = shiftAt({1.5 * middle.x_px, middle.y_px}, half[1]);
  if (out.whole && left && right) out.halves = {*left, *right};
  return out;
}

std::vector<MarkSample> everyFrame(const std::vector<Shift>& shifts, std::size_t frames,
                                   double pxPerReduced) {
  std::vector<MarkSample> out(frames);
  for (std::size_t i = 0; i < frames; ++i) {
    const auto after = std::lower_bound(shifts.begin(), shifts.end(), i,
                                        [](const Shift& s, std::size_t n) { return s.index < n; });
    const Shift& b = after == shifts.end() ? shifts.back() : *after;
    const Shift& a = after == shifts.begin() || b.index <= i ? b : *std::prev(after);
    const double share =
        b.index > a.index ? static_cast<double>(i - a.index) / static_cast<double>(b.index - a.index) : 0.0;
    const PixelPoint moved = *a.whole * (1.0 - share) + *b.whole * share - *shifts.front().whole;
    out[i] = {b.index == i, moved * pxPerReduced, b.index == i ? 1.0 : 0.0};
  }
  return out;
}

}  // namespace fin
