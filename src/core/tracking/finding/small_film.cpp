// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/finding/small_film.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>
#include <set>

#include "core/tracking/background/film_looks.h"
#include "core/tracking/background/pixel_median.h"

namespace fin {
namespace {

constexpr std::size_t kFrames = 48;
constexpr double kLongSide_px = 640.0;
constexpr double kLightReach_px = 20.0;
constexpr double kCoarser = 4.0;
constexpr float kDark = 4.0F;  ///< added to a colour, so that noise in the dark has no say
constexpr std::array<float, 3> kLeastScatter{0.03F, 0.02F, 0.02F};
constexpr std::size_t kFlowStep = 3;    ///< frames from one look at a moving background to the next
constexpr std::size_t kLaidOver = 9;    ///< frames
constexpr double kElsewhere_px = 40.0;  ///< by which what lies behind must have moved
constexpr double kStillOverlaps = 0.6;  ///< of the picture's side, by which it may have moved at most
constexpr LureSurroundings kNoLure{{}, 0.0};

cv::Mat made(const Picture& picture, cv::Size size) {
  cv::Mat small;
  cv::resize(picture.rgb(), small, size, 0.0, 0.0, cv::INTER_AREA);
  return small;
}

Planes planesOf(const cv::Mat& small) {
  cv::Mat floating;
  small.convertTo(floating, CV_32FC3);
  std::array<cv::Mat, 3> rgb;
  cv::split(floating, rgb.data());
  for (cv::Mat& plane : rgb) plane += kDark;
  cv::Mat luma = 0.299 * rgb[0] + 0.587 * rgb[1] + 0.114 * rgb[2];
  cv::log(luma, luma);
  cv::Mat around;
  // So smooth that it need not be worked out at every pixel.
  cv::resize(luma, around, {}, 1.0 / kCoarser, 1.0 / kCoarser, cv::INTER_AREA);
  cv::GaussianBlur(around, around, {}, kLightReach_px / kCoarser);
  cv::resize(around, around, luma.size(), 0.0, 0.0, cv::INTER_LINEAR);
  const cv::Mat all = (rgb[0] + rgb[1] + rgb[2]) / 3.0;
  return {luma - around, rgb[0] / all, rgb[2] / all};
}

Behind medians(const std::vector<const Planes*>& film) {
  Behind out;
  for (std::size_t c = 0; c < 3; ++c) {
    std::vector<cv::Mat> planes;
    for (const Planes* frame : film) planes.push_back((*frame)[c]);
    out.middle[c] = medianOf(planes);
    std::vector<cv::Mat> away;
    for (const cv::Mat& plane : planes) away.push_back(cv::abs(plane - out.middle[c]));
    cv::Mat scatter = 1.4826 * medianOf(away);
    cv::GaussianBlur(scatter, scatter, {}, 3.0);
    scatter += kLeastScatter[c];
    out.overScatter[c] = 1.0 / scatter;
  }
  return out;
}

/// Planes moved as what lies behind has moved; as another frame's own where they do not reach.
Planes laidOver(const Planes& planes, PixelPoint by, const Planes& own) {
  const cv::Mat shift = (cv::Mat_<double>(2, 3) << 1.0, 0.0, by.x_px, 0.0, 1.0, by.y_px);
  Planes out;
  for (std::size_t c = 0; c < 3; ++c) {
    out[c] = own[c].clone();
    cv::warpAffine(planes[c], out[c], shift, out[c].size(), cv::INTER_LINEAR, cv::BORDER_TRANSPARENT);
  }
  return out;
}

/// How far what lies behind has gone, from one look to the next.
class ScenesWay {
 public:
  PixelPoint next(const cv::Mat& small) {
    cv::Mat grey;
    cv::cvtColor(small, grey, cv::COLOR_RGB2GRAY);
    grey = evened(grey, 1);
    if (!before_.empty()) {
      const Shift step = shiftOf(flowOf(before_, grey, sceneryOf(before_, kNoLure)), kNoLure, grey.size());
      // Where too few details agree it goes on as it went.
      last_ = step.whole.value_or(last_);
      moved_ = moved_ + last_;
    }
    before_ = grey;
    return moved_;
  }

 private:
  cv::Mat before_;
  PixelPoint moved_, last_;
};

/// The frames of a window to be looked at, those to be kept marked; between these those to follow along.
std::vector<std::pair<std::size_t, bool>> plannedFrames(const FilmWanted& wanted) {
  const auto [first, last] = wanted.window;
  const std::size_t count = std::min(kFrames, last - first + 1);
  std::set<std::size_t> kept;
  for (std::size_t k = 0; k < count; ++k)
    kept.insert(first + (count > 1 ? k * (last - first) / (count - 1) : 0));
  if (wanted.also) kept.insert(std::clamp(*wanted.also, first, last));
  std::vector<std::pair<std::size_t, bool>> out;
  for (const std::size_t frame : kept) {
    while (wanted.cameraMoves && !out.empty() && out.back().first + kFlowStep < frame)
      out.emplace_back(out.back().first + kFlowStep, false);
    out.emplace_back(frame, true);
  }
  return out;
}

}  // namespace

Result<SmallFilm> smallFilm(FrameSource& source, const FilmWanted& wanted, const JobControl& job) {
  SmallFilm out;
  ScenesWay way;
  const auto planned = plannedFrames(wanted);
  for (std::size_t k = 0; k < planned.size(); ++k) {
    if (job.cancelled()) return failure(ErrorCode::Cancelled, "looking for the lure was stopped");
    const auto [frame, kept] = planned[k];
    const auto picture = source.frame(frame);
    if (!picture && picture.error().code == ErrorCode::Damaged) continue;
    if (!picture) return tl::unexpected(picture.error());
    out.smaller = kLongSide_px / std::max({picture->width(), picture->height(), 1});
    const cv::Mat small =
        made(*picture, {cvRound(picture->width() * out.smaller), cvRound(picture->height() * out.smaller)});
    const PixelPoint moved = wanted.cameraMoves ? way.next(small) : PixelPoint{};
    if (kept) {
      out.frames.push_back(frame);
      out.planes.push_back(planesOf(small));
      out.moved.push_back(moved);
    }
    job.report(0.9 * static_cast<double>(k + 1) / static_cast<double>(planned.size()));
  }
  return out;
}

Behind behindAll(const SmallFilm& film) {
  std::vector<const Planes*> all;
  for (const Planes& planes : film.planes) all.push_back(&planes);
  return medians(all);
}

Behind behindFrame(const SmallFilm& film, std::size_t i) {
  const Planes& own = film.planes[i];
  std::vector<std::pair<double, std::size_t>> others;
  for (std::size_t k = 0; k < film.planes.size(); ++k) {
    const double away = length(film.moved[k] - film.moved[i]).value();
    if (away > kElsewhere_px && away < kStillOverlaps * std::min(own[0].cols, own[0].rows) + kElsewhere_px)
      others.emplace_back(away, k);
  }
  std::sort(others.begin(), others.end());
  others.resize(std::min(others.size(), kLaidOver));
  std::vector<Planes> laid;
  for (const auto& [away, k] : others)
    laid.push_back(laidOver(film.planes[k], film.moved[i] - film.moved[k], own));
  if (laid.empty()) laid.push_back(own);
  std::vector<const Planes*> all;
  for (const Planes& planes : laid) all.push_back(&planes);
  return medians(all);
}

}  // namespace fin
