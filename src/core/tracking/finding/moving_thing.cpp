// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/finding/moving_thing.h"

#include <algorithm>
#include <cmath>
#include <opencv2/imgproc.hpp>

#include "core/tracking/finding/small_film.h"
#include "core/tracking/quantile.h"

namespace fin {
namespace {

constexpr double kStandsOut = 4.0;  ///< scatters
constexpr double kMostStandsOut = 15.0;
constexpr int kLeastArea_px = 25;
constexpr std::size_t kMostRegions = 6;
constexpr std::size_t kLongestGap = 6;  ///< frames looked at in which it may be unseen
constexpr double kFewestSeen = 0.2;
constexpr int kFewestFrames = 8;
constexpr double kShort = 0.4;  ///< of the clip

struct Region {
  cv::Point2d centre;
  double area = 0.0;
  double length = 0.0;
  double width = 0.0;
  double standsOut = 0.0;
  std::array<double, 3> colour{};
  bool atRim = false;
  std::vector<cv::Point> outline;
};

cv::Mat standingOut(const Planes& frame, const Behind& behind) {
  cv::Mat sum;
  for (std::size_t c = 0; c < 3; ++c) {
    const cv::Mat scatters = (frame[c] - behind.middle[c]).mul(behind.overScatter[c]);
    if (sum.empty()) {
      sum = scatters.mul(scatters);
    } else {
      sum += scatters.mul(scatters);
    }
  }
  cv::sqrt(sum, sum);
  cv::GaussianBlur(sum, sum, {}, 1.0);
  return sum;
}

double medianWithin(const cv::Mat& values, const cv::Mat& mask) {
  std::vector<float> all;
  for (int y = 0; y < values.rows; ++y) {
    for (int x = 0; x < values.cols; ++x) {
      if (mask.at<uchar>(y, x) != 0) all.push_back(values.at<float>(y, x));
    }
  }
  return quantileOf(std::span(all), 0.5);
}

Region regionOf(const Planes& frame, const cv::Mat& out, const cv::Mat& mask, const cv::Rect& box) {
  Region region;
  const cv::Mat part = mask(box);
  const cv::Moments m = cv::moments(part, true);
  region.area = m.m00;
  region.centre = {box.x + m.m10 / m.m00, box.y + m.m01 / m.m00};
  const double xx = m.mu20 / m.m00, yy = m.mu02 / m.m00, xy = m.mu11 / m.m00;
  const double mean = 0.5 * (xx + yy);
  const double apart = std::hypot(0.5 * (xx - yy), xy);
  region.length = 4.0 * std::sqrt(std::max(mean + apart, 1.0));
  region.width = 4.0 * std::sqrt(std::max(mean - apart, 0.3));
  region.standsOut = cv::mean(cv::min(out(box), kMostStandsOut), part)[0];
  for (std::size_t c = 0; c < 3; ++c) region.colour[c] = medianWithin(frame[c](box), part);
  region.atRim = box.x <= 1 || box.y <= 1 || box.br().x >= mask.cols - 1 || box.br().y >= mask.rows - 1;
  std::vector<std::vector<cv::Point>> contours;
  cv::findContours(part.clone(), contours, cv::RETR_EXTERNAL, cv::CHAIN_APPROX_SIMPLE, box.tl());
  region.outline = *std::max_element(contours.begin(), contours.end(),
                                     [](const auto& a, const auto& b) { return a.size() < b.size(); });
  return region;
}

/// The most striking regions of a frame.
std::vector<Region> regionsIn(const Planes& frame, const Behind& behind) {
  const cv::Mat out = standingOut(frame, behind);
  cv::Mat mask = out > kStandsOut;
  cv::morphologyEx(mask, mask, cv::MORPH_CLOSE, cv::Mat::ones(5, 5, CV_8UC1));
  cv::morphologyEx(mask, mask, cv::MORPH_OPEN, cv::Mat::ones(3, 3, CV_8UC1));
  cv::Mat labels, stats, centroids;
  const int count = cv::connectedComponentsWithStats(mask, labels, stats, centroids, 8);
  std::vector<Region> regions;
  for (int i = 1; i < count; ++i) {
    if (stats.at<int>(i, cv::CC_STAT_AREA) < kLeastArea_px) continue;
    const cv::Rect box(stats.at<int>(i, cv::CC_STAT_LEFT), stats.at<int>(i, cv::CC_STAT_TOP),
                       stats.at<int>(i, cv::CC_STAT_WIDTH), stats.at<int>(i, cv::CC_STAT_HEIGHT));
    regions.push_back(regionOf(frame, out, labels == i, box));
  }
  std::sort(regions.begin(), regions.end(),
            [](const Region& a, const Region& b) { return a.area * a.standsOut > b.area * b.standsOut; });
  regions.resize(std::min(regions.size(), kMostRegions));
  return regions;
}

/// How good a region is by itself.
double worth(const Region& r) {
  return 0.5 * std::log(r.area) + std::min(r.standsOut, 12.0) / 12.0 - (r.atRim ? 1.0 : 0.0) -
         (r.length < 1.5 * r.width ? 1.5 : 0.0);
}

/// How hard it is to believe that two regions are one thing, so many frames apart.
double jump(const Region& a, const Region& b, double gap) {
  const double way = cv::norm(a.centre - b.centre) / std::max(20.0, 0.5 * (a.length + b.length));
  const double share = way / (0.6 * gap + 0.4);
  double colour = 0.0;
  for (std::size_t c = 0; c < 3; ++c) colour += std::pow(a.colour[c] - b.colour[c], 2);
  return std::min(50.0,
                  0.5 * share * share + 1.5 * std::abs(std::log(a.area / b.area)) + 6.0 * std::sqrt(colour)) +
         0.7 * (gap - 1.0);
}

struct Place {
  std::size_t frame = 0;
  std::size_t region = 0;
};
struct Way {
  double worth = 0.0;
  std::vector<Place> places;
};

/// The way of greatest worth; `taken` regions are not to be used.
Way bestWay(const std::vector<std::vector<Region>>& film, const std::vector<std::vector<bool>>& taken) {
  struct Step {
    double worth = 0.0;
    std::optional<Place> from;
  };
  std::vector<std::vector<Step>> steps(film.size());
  std::optional<Place> best;
  for (std::size_t t = 0; t < film.size(); ++t) {
    for (std::size_t j = 0; j < film[t].size(); ++j) {
      const double own = worth(film[t][j]);
      Step step{own, {}};
      for (std::size_t s = t > kLongestGap ? t - kLongestGap : 0; s < t; ++s) {
        for (std::size_t i = 0; i < film[s].size(); ++i) {
          if (taken[s][i]) continue;
          const double all =
              steps[s][i].worth + own - jump(film[t][j], film[s][i], static_cast<double>(t - s));
          if (all > step.worth) step = {all, Place{s, i}};
        }
      }
      steps[t].push_back(step);
      if (!taken[t][j] && (!best || step.worth > steps[best->frame][best->region].worth)) best = Place{t, j};
    }
  }
  Way out;
  if (!best) return out;
  out.worth = steps[best->frame][best->region].worth;
  for (std::optional<Place> at = best; at; at = steps[at->frame][at->region].from) out.places.push_back(*at);
  std::reverse(out.places.begin(), out.places.end());
  return out;
}

/// Where the camera stands: the part of a film in which things move from frame to frame, with a frame before
/// it; none where they move in more than a short part of it, or hardly at all.
std::optional<FrameStretch> livelyPart(const SmallFilm& film) {
  const Behind behind = behindAll(film);
  std::vector<float> moves;  // how much of the picture, from each frame to the next
  for (std::size_t i = 0; i + 1 < film.planes.size(); ++i) {
    const cv::Mat out = standingOut(film.planes[i + 1], {film.planes[i], behind.overScatter});
    cv::Mat mask = out > kStandsOut;
    cv::morphologyEx(mask, mask, cv::MORPH_OPEN, cv::Mat::ones(3, 3, CV_8UC1));
    moves.push_back(static_cast<float>(cv::countNonZero(mask)));
  }
  std::vector<float> sorted = moves;
  const double usual = quantileOf(std::span(sorted), 0.5), lively = 2.0 * usual + kLeastArea_px;
  const auto moved = [lively](float m) { return m > lively; };
  const auto first = std::find_if(moves.begin(), moves.end(), moved);
  const auto last = std::find_if(moves.rbegin(), moves.rend(), moved).base();
  if (first == moves.end() || static_cast<double>(last - first) > kShort * static_cast<double>(moves.size()))
    return std::nullopt;
  const std::ptrdiff_t from = std::max<std::ptrdiff_t>(first - moves.begin() - 1, 0);
  return FrameStretch{film.frames[from], film.frames[last - moves.begin()]};
}

/// Errors: as findMovingThing.
Result<MovingThing> thingIn(const SmallFilm& film, const FilmWanted& wanted, const JobControl& job) {
  if (static_cast<int>(film.frames.size()) < kFewestFrames)
    return failure(ErrorCode::Lost, "the clip is too short to see what moves in it");
  const Behind rest = wanted.cameraMoves ? Behind{} : behindAll(film);
  std::vector<std::vector<Region>> regions;
  std::vector<std::vector<bool>> taken;
  for (std::size_t i = 0; i < film.planes.size(); ++i) {
    if (job.cancelled()) return failure(ErrorCode::Cancelled, "looking for the lure was stopped");
    regions.push_back(regionsIn(film.planes[i], wanted.cameraMoves ? behindFrame(film, i) : rest));
    taken.emplace_back(regions.back().size(), false);
  }
  const Way way = bestWay(regions, taken);
  if (static_cast<double>(way.places.size()) < kFewestSeen * static_cast<double>(film.frames.size()))
    return failure(ErrorCode::Lost, "nothing moves through this clip as one against the rest");
  for (const Place& place : way.places) taken[place.frame][place.region] = true;
  const Way rival = bestWay(regions, taken);
  MovingThing out;
  out.lookedAt = film.frames.size();
  out.lead = std::clamp(1.0 - std::max(rival.worth, 0.0) / std::max(way.worth, 1e-9), 0.0, 1.0);
  for (const Place& place : way.places) {
    const Region& region = regions[place.frame][place.region];
    ThingSeen seen{film.frames[place.frame],
                   PixelPoint{region.centre.x, region.centre.y} * (1.0 / film.smaller),
                   film.moved[place.frame] * (1.0 / film.smaller),
                   region.length / film.smaller,
                   region.width / film.smaller,
                   region.atRim,
                   {}};
    for (const cv::Point& p : region.outline)
      seen.outline.push_back(PixelPoint{p.x + 0.5, p.y + 0.5} * (1.0 / film.smaller));
    out.seen.push_back(std::move(seen));
  }
  return out;
}

}  // namespace

Result<MovingThing> findMovingThing(FrameSource& source, const FilmWanted& wanted, const JobControl& job) {
  const auto film = smallFilm(source, wanted, job);
  if (!film) return tl::unexpected(film.error());
  // It may rest, or be elsewhere, in most of the clip: what it has left would stand out as well as itself.
  const auto lively = wanted.cameraMoves ? std::nullopt : livelyPart(*film);
  if (lively && (!wanted.also || lively->holds(*wanted.also))) {
    FilmWanted closer = wanted;
    closer.window = *lively;
    const auto part = smallFilm(source, closer, job);
    if (!part) return tl::unexpected(part.error());
    auto thing = thingIn(*part, closer, job);
    if (thing || thing.error().code != ErrorCode::Lost) return thing;
  }
  return thingIn(*film, wanted, job);
}

}  // namespace fin
