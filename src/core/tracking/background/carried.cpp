// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/background/carried.h"

#include <algorithm>
#include <opencv2/imgproc.hpp>

#include "core/tracking/quantile.h"

namespace fin {
namespace {

constexpr double kCarried = 0.02;        ///< of the picture's larger side: what no stand gives way by
constexpr double kHalvesApart = 0.25;    ///< of that way, at most
constexpr std::size_t kGlanceAmong = 5;  ///< of the frames that may be looked at
constexpr int kAlikeReach_px = 7;
constexpr double kAlike = 0.7;       ///< correlation
constexpr double kMuchStays = 0.25;  ///< of the details: nobody needs to look closer
constexpr double kMostStay = 7.0;    ///< of some 200, by chance
constexpr LureSurroundings kNoLure{{}, 0.0};

/// From frame to frame among those that are looked at, added up: of a camera that is carried so far that
/// nothing behind stays in its place.
struct Carried {
  std::vector<Shift> shifts;
  std::vector<cv::Mat> frames;
};
Carried carriedThrough(const ReducedFilm& film, const Track& track, std::size_t every, int smaller,
                       const JobControl& job) {
  Carried out;
  lookThrough(film, track, every, smaller, job,
              [&](std::size_t i, const cv::Mat& frame, const LureSurroundings& lure) {
                Shift now{i, PixelPoint{}, std::array<PixelPoint, 2>{}};
                if (!out.frames.empty()) {
                  const cv::Mat& before = out.frames.back();
                  const Shift& last = out.shifts.back();
                  now = shiftOf(flowOf(before, frame, sceneryOf(before, lure)), lure, frame.size());
                  now.index = i;
                  // Over a frame that tells nothing it is taken to stand still: less than was carried.
                  now.whole = *last.whole + now.whole.value_or(PixelPoint{});
                  auto halves = now.halves.value_or(std::array<PixelPoint, 2>{});
                  for (std::size_t h = 0; h < 2; ++h) halves[h] = halves[h] + (*last.halves)[h];
                  now.halves = halves;
                }
                out.shifts.push_back(now);
                out.frames.push_back(frame);
              });
  return out;
}

/// Whether a detail of one picture looks alike in another one, there or a pixel beside.
bool looksAlike(const cv::Mat& from, const cv::Point2f& at, const cv::Mat& to, PixelPoint away) {
  const cv::Rect picture(0, 0, from.cols, from.rows);
  const cv::Point reach(kAlikeReach_px, kAlikeReach_px);
  const cv::Point middle(cvRound(at.x), cvRound(at.y));
  const cv::Point there = middle + cv::Point(cvRound(away.x_px), cvRound(away.y_px));
  const cv::Rect about(middle - reach, middle + reach);
  const cv::Rect farther(there - reach - cv::Point(1, 1), there + reach + cv::Point(1, 1));
  if ((about & picture) != about || (farther & picture) != farther) return false;
  cv::Mat likeness;
  cv::matchTemplate(to(farther), from(about), likeness, cv::TM_CCOEFF_NORMED);
  double best = 0.0;
  cv::minMaxLoc(likeness, nullptr, &best);
  return best >= kAlike;
}

/// Whether much of what the first frame shows stays where it was in the others that are looked at.
bool standsStill(const std::vector<cv::Mat>& frames) {
  const cv::Mat& first = frames.front();
  const SceneryPoints details = sceneryOf(first, kNoLure);
  const auto left = std::count_if(frames.begin() + 1, frames.end(), [&](const cv::Mat& to) {
    const auto stay = std::count_if(details.begin(), details.end(),
                                    [&](const cv::Point2f& p) { return looksAlike(first, p, to, {}); });
    return static_cast<double>(stay) < kMuchStays * static_cast<double>(details.size());
  });
  return left < 2;
}

/// Light that moves all one way looks like a camera that is carried, but for what stays in its place. What
/// looks alike in the first frame by as much to the side (a joint of tiles, the lines of a ruler) does not
/// tell.
bool isCarried(const Carried& carried) {
  const auto wayOf = [](const Shift& s) { return length(*s.whole).value(); };
  double farthest_px = 0.0, apart_px = 0.0;
  for (const Shift& s : carried.shifts) {
    farthest_px = std::max(farthest_px, wayOf(s));
    apart_px = std::max(apart_px, length((*s.halves)[0] - (*s.halves)[1]).value());
  }
  const cv::Mat& first = carried.frames.front();
  if (farthest_px < kCarried * std::max(first.cols, first.rows) || apart_px > kHalvesApart * farthest_px)
    return false;
  const SceneryPoints details = sceneryOf(first, kNoLure);
  std::vector<double> staying;
  for (std::size_t i = 0; i < carried.shifts.size(); ++i) {
    if (wayOf(carried.shifts[i]) <= 0.5 * farthest_px) continue;
    const PixelPoint back = *carried.shifts[i].whole * -1.0;
    staying.push_back(
        static_cast<double>(std::count_if(details.begin(), details.end(), [&](const cv::Point2f& p) {
          return looksAlike(first, p, carried.frames[i], {}) && !looksAlike(first, p, first, back);
        })));
  }
  return quantileOf(std::span(staying), 0.5) <= kMostStay;
}

}  // namespace

std::vector<MarkSample> wayCarried(const ReducedFilm& film, const Track& track, std::size_t every,
                                   int smaller, const JobControl& job) {
  std::vector<cv::Mat> few;
  lookThrough(film, track, every * kGlanceAmong, smaller, {job.stop},
              [&](std::size_t, const cv::Mat& frame, const LureSurroundings&) { few.push_back(frame); });
  if (few.empty() || standsStill(few)) return {};
  const Carried carried = carriedThrough(film, track, every, smaller, job);
  if (carried.frames.empty() || !isCarried(carried)) return {};
  std::vector<MarkSample> out = everyFrame(carried.shifts, track.frameCount, smaller / film.scale);
  for (MarkSample& s : out) s = {false, s.at, 0.0};
  return out;
}

}  // namespace fin
