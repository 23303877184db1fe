// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/track.h"

#include <algorithm>
#include <array>

#include "core/units/names.h"

namespace fin {

constexpr std::array<std::string_view, 9> kMarkNames{"nose",  "tail", "tip",   "back", "belly",
                                                     "flank", "mid",  "blade", "hook"};

constexpr std::size_t kStretchesApart = 5;  ///< frames

std::string_view toString(MarkName name) {
  return kMarkNames[static_cast<std::size_t>(name)];
}

std::optional<MarkName> markNamed(std::string_view text) {
  return enumNamed<MarkName>(kMarkNames, text);
}

namespace {

bool allSeen(const Track& track, std::size_t i) {
  if (track.marks.empty()) return i < track.outline.size() && track.outline[i].seen;
  return std::all_of(track.marks.begin(), track.marks.end(),
                     [i](const MarkTrack& mark) { return mark.samples[i].seen; });
}

}  // namespace

bool HiddenRegion::hides(std::size_t frame, PixelPoint at) const {
  if (frame < firstFrame || frame > lastFrame) return false;
  bool inside = false;  // as often as a ray to the right crosses the rim
  for (std::size_t i = 0, j = polygon.size() - 1; i < polygon.size(); j = i++) {
    const PixelPoint a = polygon[i];
    const PixelPoint b = polygon[j];
    if ((a.y_px > at.y_px) == (b.y_px > at.y_px)) continue;
    const double x = a.x_px + (at.y_px - a.y_px) / (b.y_px - a.y_px) * (b.x_px - a.x_px);
    if (at.x_px < x) inside = !inside;
  }
  return inside;
}

std::vector<FrameStretch> doubtfulStretches(const Track& track) {
  std::vector<bool> doubtful(track.frameCount, false);
  for (const MarkTrack& mark : track.marks) {
    std::optional<std::size_t> lastSeen;
    for (std::size_t i = 0; i < mark.samples.size(); ++i) {
      const MarkSample& s = mark.samples[i];
      if (!s.seen) continue;
      if (s.quality < kDoubtfulBelow) doubtful[i] = true;
      // A gap counts once it has ended: before its first frame and after its last a mark is not missing.
      for (std::size_t gap = lastSeen ? *lastSeen + 1 : i; gap < i; ++gap) doubtful[gap] = true;
      lastSeen = i;
    }
  }
  std::vector<FrameStretch> out;
  for (std::size_t i = 0; i < doubtful.size(); ++i) {
    if (!doubtful[i]) continue;
    const std::size_t frame = track.firstFrame + i;
    if (!out.empty() && frame <= out.back().last + kStretchesApart) {
      out.back().last = frame;
    } else {
      out.push_back({frame, frame});
    }
  }
  return out;
}

const MarkTrack* Track::find(MarkName name) const {
  const auto found =
      std::find_if(marks.begin(), marks.end(), [name](const MarkTrack& m) { return m.name == name; });
  return found == marks.end() ? nullptr : &*found;
}

std::size_t Track::followed() const {
  std::size_t count = 0;
  for (std::size_t i = 0; i < frameCount; ++i) count += allSeen(*this, i) ? 1U : 0U;
  return count;
}

std::size_t Track::bridged() const {
  std::size_t count = 0;
  std::size_t gap = 0;
  bool begun = false;
  for (std::size_t i = 0; i < frameCount; ++i) {
    if (!allSeen(*this, i)) {
      ++gap;
      continue;
    }
    if (begun && gap <= kLongestBridge) count += gap;
    begun = true;
    gap = 0;
  }
  return count;
}

}  // namespace fin
