// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/appearance.h"

#include <algorithm>
#include <cmath>

namespace fin {
namespace {

constexpr std::size_t kMostMet = 4;
constexpr std::size_t kPeaksPerLook = 4;
constexpr std::size_t kMostCandidates = 5;
constexpr double kGoodEnough = 0.90;  ///< a given look that fits this well settles it
constexpr double kSamePlace_px = 2.5;

}  // namespace

MarkAppearance::MarkAppearance(const cv::Mat& grey, const PatchPose& pose, int radius_px)
    : looks_{{PatchTemplate(grey, pose, radius_px), true, 0}} {}

void MarkAppearance::addGiven(const cv::Mat& grey, const PatchPose& pose) {
  looks_.push_back({PatchTemplate(grey, pose, radius()), true, ++clock_});
}

void MarkAppearance::addMet(const cv::Mat& grey, const PatchPose& pose) {
  const auto met = std::count_if(looks_.begin(), looks_.end(), [](const Look& l) { return !l.given; });
  Look fresh{PatchTemplate(grey, pose, radius()), false, ++clock_};
  if (static_cast<std::size_t>(met) < kMostMet) {
    looks_.push_back(std::move(fresh));
    return;
  }
  auto oldest = looks_.end();
  for (auto it = looks_.begin(); it != looks_.end(); ++it) {
    if (!it->given && (oldest == looks_.end() || it->lastUse < oldest->lastUse)) oldest = it;
  }
  *oldest = std::move(fresh);
}

std::vector<MarkAppearance::Candidate> MarkAppearance::candidates(const cv::Mat& grey, const PatchPose& pose,
                                                                  int reach_px) const {
  std::vector<Candidate> all;
  const int reach = static_cast<int>(std::ceil(reach_px / pose.scale));
  const PatchSurroundings around(grey, pose, radius(), reach);
  for (std::size_t i = 0; i < looks_.size(); ++i) {
    for (const auto& peak : looks_[i].patch.search(around, kPeaksPerLook)) {
      all.push_back({pose.at({1.0 * peak.dx_px, 1.0 * peak.dy_px}), peak.score, i});
    }
  }
  std::sort(all.begin(), all.end(), [](const Candidate& a, const Candidate& b) { return a.score > b.score; });
  std::vector<Candidate> distinct;
  for (const Candidate& c : all) {
    const bool known = std::any_of(distinct.begin(), distinct.end(), [&](const Candidate& d) {
      return length(c.at - d.at).value() < kSamePlace_px;
    });
    if (!known && distinct.size() < kMostCandidates) distinct.push_back(c);
  }
  return distinct;
}

MarkAppearance::Candidate MarkAppearance::judged(const cv::Mat& grey, const PatchPose& pose) const {
  const std::vector<float> patch = cutPatch(grey, pose, radius());
  Candidate best{pose.centre, -1.0, 0};
  for (std::size_t i = 0; i < looks_.size(); ++i) {
    const double score = looks_[i].patch.correlation(patch);
    if (score > best.score) best = {pose.centre, score, i};
  }
  return best;
}

double MarkAppearance::likenessOfGiven(const cv::Mat& grey, const PatchPose& pose) const {
  const std::vector<float> patch = cutPatch(grey, pose, radius());
  double best = -1.0;
  for (const Look& look : looks_) {
    if (look.given) best = std::max(best, look.patch.correlation(patch));
  }
  return best;
}

MarkAppearance::Found MarkAppearance::refine(const cv::Mat& grey, const PatchPose& pose, std::size_t look) {
  Found best{pose.centre, -1.0};
  std::size_t bestLook = look;
  const auto consider = [&](std::size_t i) {
    const PatchTemplate::Fit fit = looks_[i].patch.refine(grey, pose);
    if (fit.converged && fit.score > best.score) {
      best = {fit.at, fit.score};
      bestLook = i;
    }
  };
  // What a person pointed at has no drift in it: it is asked first and believed when it fits.
  for (std::size_t i = 0; i < looks_.size(); ++i) {
    if (looks_[i].given) consider(i);
  }
  if (best.score < kGoodEnough) {
    for (std::size_t i = 0; i < looks_.size(); ++i) {
      if (!looks_[i].given) consider(i);
    }
  }
  looks_[bestLook].lastUse = ++clock_;
  return best;
}

}  // namespace fin
