// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/marks/both_ways.h"

#include <algorithm>
#include <utility>

namespace fin {
namespace {

constexpr double kAgree_px = 1.0;
constexpr double kSureQuality = 0.85;
constexpr std::size_t kSureFrames = 4;  ///< in a row: one alone may be chance
constexpr double kSlipped_px = 3.0;     ///< off where it was: more than a mark is held beside its place

MarkFollower::Followed joined(const MarkFollower::Followed& on, const MarkFollower::Followed& back,
                              double nearness) {
  if (!on.sample.seen) return back;
  if (!back.sample.seen) return on;
  if (length(on.sample.at - back.sample.at).value() > kAgree_px) {
    const double onWorth = on.sample.quality * (1.0 - nearness);
    MarkFollower::Followed out = onWorth >= back.sample.quality * nearness ? on : back;
    out.sample.quality = std::min(out.sample.quality, kDisagreeQuality);
    return out;
  }
  MarkFollower::Followed out = nearness < 0.5 ? on : back;
  out.sample.at = on.sample.at * (1.0 - nearness) + back.sample.at * nearness;
  out.sample.quality = std::max(on.sample.quality, back.sample.quality);
  return out;
}

}  // namespace

void mergeDirections(std::span<MarkFollower::Followed> on, std::span<const MarkFollower::Followed> back,
                     EndAnchor later) {
  for (std::size_t i = 1; i + 1 < on.size(); ++i) {
    const MarkSample before = on[i].sample;
    on[i] = joined(on[i], back[i], static_cast<double>(i) / static_cast<double>(on.size() - 1));
    if (later == EndAnchor::Found && before.seen)
      on[i].sample.quality = std::min(on[i].sample.quality, before.quality);
  }
}

void SlipDetector::begin(std::size_t frame) {
  *this = {};
  lastSure_ = frame;
  sureFrames_ = kSureFrames;
}

std::optional<FrameStretch> SlipDetector::add(std::size_t frame, const MarkSample& sample) {
  const bool sure = sample.seen && sample.quality >= kSureQuality;
  sureFrames_ = sure ? sureFrames_ + 1 : 0;
  weak_ = weak_ || !sure;
  if (sureFrames_ < kSureFrames) return std::nullopt;
  const FrameStretch stretch{lastSure_, frame};
  lastSure_ = frame;
  return std::exchange(weak_, false) && !slipped_ ? std::optional(stretch) : std::nullopt;
}

SlipDetector::WayBack SlipDetector::compare(const MarkSample& known, const MarkSample& arrival) {
  if (!arrival.seen || arrival.quality < kDoubtfulBelow) return WayBack::TellsNothing;
  if (length(arrival.at - known.at).value() <= kSlipped_px) return WayBack::Agrees;
  if (arrival.quality < kSureQuality) return WayBack::TellsNothing;
  slipped_ = true;
  return WayBack::Slipped;
}

}  // namespace fin
