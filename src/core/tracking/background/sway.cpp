// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/background/sway.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <opencv2/imgproc.hpp>
#include <optional>
#include <set>

#include "core/tracking/background/pixel_median.h"
#include "core/tracking/background/scenery.h"
#include "core/tracking/quantile.h"

namespace fin {
namespace {

constexpr int kEvenedOver_px = 33;
constexpr double kEvenContrast = 40.0;  ///< grey levels that a usual contrast becomes
constexpr double kFaintContrast = 2.0;
constexpr std::size_t kMedianOf = 25;
constexpr std::size_t kFirstLook = 40;  ///< frames, to see whether there is any sway
constexpr int kFirstLook_px = 700;      ///< the larger side of their pictures
constexpr double kSeenShare = 0.9;      ///< of the frames, in both halves
constexpr double kHalvesAgree = 0.75;   ///< correlation
constexpr double kLeastSway_px = 0.3;   ///< root mean square: less does no harm

/// Brightness evened out over its surroundings, so that light that changes slowly over the picture has no
/// say; of a frame that is first made `smaller` times smaller.
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

/// What stays while light dances.
cv::Mat sceneryBehind(const ReducedFilm& film, int smaller) {
  std::vector<cv::Mat> some;
  const std::size_t every = (film.frames.size() + kMedianOf - 1) / kMedianOf;
  std::size_t met = 0;
  for (const auto& [n, frame] : film.frames) {
    if (met++ % every == 0) some.push_back(evened(frame, smaller));
  }
  return medianOf(some);
}

/// What one frame tells: by all details, and by those of either half.
struct Shift {
  std::size_t index = 0;  ///< of the frame in the window
  std::optional<PixelPoint> whole;
  std::optional<std::array<PixelPoint, 2>> halves;
};

std::optional<PixelPoint> shiftAt(PixelPoint middle, const SceneryFlow& flow) {
  const auto fit = fitSimilarity(flow.from, flow.to);
  return fit ? std::optional((*fit)(middle)-middle) : std::nullopt;
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

/// Whether both halves move alike, and by enough.
bool isSway(const std::vector<Shift>& shifts, double pxPerReduced) {
  std::array<std::vector<PixelPoint>, 2> half;
  for (const Shift& s : shifts) {
    if (!s.halves) continue;
    for (std::size_t h = 0; h < 2; ++h) half[h].push_back((*s.halves)[h]);
  }
  const auto count = static_cast<double>(half[0].size());
  if (count < kSeenShare * static_cast<double>(shifts.size()) || count < 3.0) return false;
  for (auto& way : half) {
    PixelPoint sum;
    for (PixelPoint p : way) sum = sum + p;
    for (PixelPoint& p : way) p = p - sum * (1.0 / count);
  }
  double both = 0.0;
  std::array<double, 2> each{};
  for (std::size_t i = 0; i < half[0].size(); ++i) {
    both += dot(half[0][i], half[1][i]);
    for (std::size_t h = 0; h < 2; ++h) each[h] += dot(half[h][i], half[h][i]);
  }
  const double alike = both / std::sqrt(std::max(each[0] * each[1], 1e-12));
  const double sway_px = std::sqrt(std::max(both, 0.0) / count) * pxPerReduced;
  return alike >= kHalvesAgree && sway_px >= kLeastSway_px;
}

/// Between frames in which it is known, the straight way from one to the next.
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

/// What stays, from frames that were looked at, each laid where the camera did not sway to.
cv::Mat sceneryBehind(const ReducedFilm& film, const Track& track, const std::vector<Shift>& shifts) {
  std::vector<cv::Mat> some;
  for (const Shift& s : shifts) {
    if (!s.whole) continue;
    const cv::Matx23d moves(1.0, 0.0, s.whole->x_px, 0.0, 1.0, s.whole->y_px);
    const cv::Mat frame = evened(film.frames.at(track.firstFrame + s.index), 1);
    cv::warpAffine(frame, some.emplace_back(), moves, frame.size(), cv::INTER_LINEAR | cv::WARP_INVERSE_MAP,
                   cv::BORDER_REPLICATE);
  }
  return medianOf(some);
}

/// Looks for the scenery in a film's frames, every so many of them; what it tells is in their pixels when
/// they are made `smaller`.
std::vector<Shift> shiftsIn(const ReducedFilm& film, const Track& track, const cv::Mat& behind,
                            std::size_t every, int smaller, const JobControl& job) {
  std::optional<SceneryPoints> details;
  std::vector<Shift> out;
  std::size_t met = 0;
  LureSurroundings lure;
  for (const auto& [n, frame] : film.frames) {
    if (job.cancelled()) return {};
    if (n < track.firstFrame || n >= track.firstFrame + track.frameCount || met++ % every != 0) continue;
    lure = surroundingsIn(track, n - track.firstFrame, lure);
    const LureSurroundings reduced{film.toReduced(lure.middle) * (1.0 / smaller),
                                   lure.reach_px * film.scale / smaller};
    if (!details) details = sceneryOf(behind, reduced);
    Shift shift = shiftOf(flowOf(behind, evened(frame, smaller), *details), reduced, behind.size());
    shift.index = n - track.firstFrame;
    out.push_back(shift);
    job.report(static_cast<double>(shift.index + 1) / static_cast<double>(track.frameCount));
  }
  return out;
}

}  // namespace

Result<std::vector<MarkSample>> findSway(FilmingFrameSource& filming, const Track& track,
                                         const JobControl& job) {
  const ReducedFilm& film = filming.film();
  if (film.frames.empty()) return std::vector<MarkSample>{};
  const cv::Size size = film.frames.begin()->second.size();
  const int smaller = (std::max(size.width, size.height) + kFirstLook_px - 1) / kFirstLook_px;
  const double pxPerReduced = 1.0 / film.scale;
  const std::size_t some = std::max<std::size_t>(1, film.frames.size() / kFirstLook);
  // The shifts of frames looked at; none where they are no sway.
  const auto look = [&](const cv::Mat& behind, std::size_t every, int shrink, const JobControl& here) {
    std::vector<Shift> shifts = shiftsIn(film, track, behind, every, shrink, here);
    return isSway(shifts, shrink * pxPerReduced) ? shifts : std::vector<Shift>{};
  };
  std::vector<Shift> shifts = look(sceneryBehind(film, smaller), some, smaller, {job.stop});
  // Where details are few, small pictures may seem to sway: only what large ones tell too is worth all
  // frames.
  if (!shifts.empty() && smaller > 1) shifts = look(sceneryBehind(film, 1), some, 1, {job.stop});
  if (!shifts.empty()) {
    std::set<std::size_t> all;
    for (std::size_t i = 0; i < track.frameCount; ++i) all.insert(track.firstFrame + i);
    filming.filmAlso(all, partOf(job, 0.0, 0.5));
    shifts = look(sceneryBehind(film, track, shifts), 1, 1, partOf(job, 0.5, 1.0));
  }
  if (job.cancelled()) return failure(ErrorCode::Cancelled, "following was stopped");
  if (shifts.empty()) return std::vector<MarkSample>{};
  std::erase_if(shifts, [](const Shift& s) { return !s.whole; });
  return everyFrame(shifts, track.frameCount, pxPerReduced);
}

double swayOf_px(const std::vector<MarkSample>& background) {
  if (background.empty()) return 0.0;
  std::vector<double> x, y;
  for (const MarkSample& s : background) {
    x.push_back(s.at.x_px);
    y.push_back(s.at.y_px);
  }
  const PixelPoint middle{quantileOf(std::span(x), 0.5), quantileOf(std::span(y), 0.5)};
  std::vector<double> away;
  for (const MarkSample& s : background) away.push_back(length(s.at - middle).value());
  return quantileOf(std::span(away), 0.95);
}

Track steadied(Track track) {
  for (std::size_t i = 0; i < track.background.size(); ++i) {
    const PixelPoint moved = track.background[i].at;
    for (MarkTrack& mark : track.marks) mark.samples[i].at = mark.samples[i].at - moved;
    if (i >= track.outline.size()) continue;
    OutlineSample& outline = track.outline[i];
    outline.centre = outline.centre - moved;
    for (auto& contour : outline.contours) {
      for (PixelPoint& p : contour) p = p - moved;
    }
  }
  track.background.clear();
  return track;
}

}  // namespace fin
