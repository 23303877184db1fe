// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/background/background.h"

#include <algorithm>
#include <deque>
#include <optional>

#include "core/tracking/background/scenery.h"

namespace fin {
namespace {

constexpr std::size_t kFewestDetails = 40;  ///< below, new ones are looked for
constexpr int kFreshEvery = 8;              ///< frames after which details are looked for anew
constexpr std::size_t kBridgeOver = 6;      ///< steps whose mean stands for one that was not seen

class BackgroundFollower {
 public:
  /// The background's step from the picture before to this one, at the lure's place.
  std::optional<PixelPoint> step(const cv::Mat& grey, const LureSurroundings& lure) {
    std::optional<PixelPoint> out;
    if (!before_.empty()) out = stepFrom(grey, lure);
    before_ = grey.clone();
    if (!out || details_.size() < kFewestDetails || ++sinceFresh_ >= kFreshEvery) {
      details_ = sceneryOf(before_, lure);
      sinceFresh_ = 0;
    }
    return out;
  }

 private:
  std::optional<PixelPoint> stepFrom(const cv::Mat& grey, const LureSurroundings& lure) {
    SceneryFlow flow = flowOf(before_, grey, details_);
    SceneryPoints from, to;
    for (std::size_t i = 0; i < flow.to.size(); ++i) {
      if (lure.holds(flow.to[i])) continue;
      from.push_back(flow.from[i]);
      to.push_back(flow.to[i]);
    }
    const auto fit = fitSimilarity(from, to);
    details_ = std::move(to);
    if (!fit) return std::nullopt;
    return (*fit)(lure.middle) - lure.middle;
  }

  cv::Mat before_;
  SceneryPoints details_;
  int sinceFresh_ = 0;
};

PixelPoint meanOf(const std::deque<PixelPoint>& steps) {
  PixelPoint sum;
  for (PixelPoint s : steps) sum = sum + s;
  return sum * (1.0 / static_cast<double>(steps.size()));
}

}  // namespace

Result<void> followBackground(FrameSource& source, Track& track, const JobControl& job) {
  BackgroundFollower follower;
  LureSurroundings lure;
  PixelPoint moved;
  std::deque<PixelPoint> lately;
  track.background.assign(track.frameCount, {});
  for (std::size_t i = 0; i < track.frameCount; ++i) {
    if (job.cancelled()) return failure(ErrorCode::Cancelled, "following was stopped");
    const auto picture = source.frame(track.firstFrame + i);
    if (!picture && picture.error().code != ErrorCode::Damaged) return tl::unexpected(picture.error());
    lure = surroundingsIn(track, i, lure);
    const auto step = picture ? follower.step(picture->grey(), lure) : std::nullopt;
    if (step) lately.push_back(*step);
    if (lately.size() > kBridgeOver) lately.pop_front();
    if (step || (i > 0 && !lately.empty())) moved = moved + step.value_or(meanOf(lately));
    track.background[i] = {step.has_value() || i == 0, moved, step || i == 0 ? 1.0 : 0.0};
    job.report(static_cast<double>(i + 1) / static_cast<double>(track.frameCount));
  }
  return {};
}

}  // namespace fin
