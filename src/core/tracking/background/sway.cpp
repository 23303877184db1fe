// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/background/sway.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <opencv2/imgproc.hpp>
#include <optional>
#include <set>

#include "core/tracking/background/carried.h"
#include "core/tracking/background/pixel_median.h"
#include "core/tracking/quantile.h"

namespace fin {
namespace {

constexpr std::size_t kMedianOf = 25;
constexpr std::size_t kFirstLook = 40;  ///< frames, to see whether there is any sway
constexpr int kFirstLook_px = 700;      ///< the larger side of their pictures
constexpr double kSeenShare = 0.9;      ///< of the frames, in both halves
constexpr double kHalvesAgree = 0.75;   ///< correlation
constexpr double kLeastSway_px = 0.3;   ///< root mean square: less does no harm

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
  lookThrough(film, track, every, smaller, job,
              [&](std::size_t i, const cv::Mat& frame, const LureSurroundings& lure) {
                if (!details) details = sceneryOf(behind, lure);
                out.push_back(shiftOf(flowOf(behind, frame, *details), lure, behind.size()));
                out.back().index = i;
              });
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
  std::vector<MarkSample> carried;
  if (shifts.empty()) carried = wayCarried(film, track, some, smaller, {job.stop});
  if (job.cancelled()) return failure(ErrorCode::Cancelled, "following was stopped");
  if (shifts.empty()) return carried;
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

bool wasCarried(const std::vector<MarkSample>& background) {
  return !background.empty() &&
         std::none_of(background.begin(), background.end(), [](const MarkSample& s) { return s.seen; });
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
