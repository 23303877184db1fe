// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/units/points.h"

namespace fin {

/// Mid: on the body at its turning point; Blade: on what flutters behind or beside it; Hook: the hook's
/// point.
enum class MarkName { Nose, Tail, Tip, Back, Belly, Flank, Mid, Blade, Hook };

std::string_view toString(MarkName name);
std::optional<MarkName> markNamed(std::string_view text);

/// Where a person says a mark is. Several of one mark at later frames are corrections, obeyed exactly.
struct MarkSeed {
  MarkName name = MarkName::Nose;
  std::size_t frame = 0;
  PixelPoint at;

  friend bool operator==(const MarkSeed&, const MarkSeed&) = default;
};

/// A part of the picture in which nothing is to be followed, for some frames.
struct HiddenRegion {
  std::size_t firstFrame = 0;
  std::size_t lastFrame = 0;  ///< included
  std::vector<PixelPoint> polygon;

  [[nodiscard]] bool hides(std::size_t frame, PixelPoint at) const;
  friend bool operator==(const HiddenRegion&, const HiddenRegion&) = default;
};

/// quality 0 … 1: 1 certain, below 0.5 doubtful. Where a mark is not seen, `at` means nothing.
struct MarkSample {
  bool seen = false;
  PixelPoint at;
  double quality = 0.0;
};

/// Where a person says the lure's outline is, roughly.
struct OutlineSeed {
  std::size_t frame = 0;
  std::vector<PixelPoint> polygon;

  friend bool operator==(const OutlineSeed&, const OutlineSeed&) = default;
};

struct MarkTrack {
  MarkName name = MarkName::Nose;
  std::vector<MarkSample> samples;  ///< one a frame of the window
};

/// The lure's silhouette in one frame. Where it is not seen the rest means nothing.
struct OutlineSample {
  bool seen = false;
  bool whole = false;  ///< no edge of the picture cuts it
  double area_px2 = 0.0;
  PixelPoint centre;        ///< of its area
  double angle_rad = 0.0;   ///< of its long axis from the picture's x towards y; its direction is arbitrary
  double length_px = 0.0;   ///< along that axis
  double width_px = 0.0;    ///< across it
  double brightness = 0.0;  ///< mean luma in it, 0 … 255
  std::vector<std::vector<PixelPoint>>
      contours;  ///< the pixels at its rim, closed; several where it is in parts
};

/// What was followed through a window of frames; every mark has a sample for each frame.
struct Track {
  std::size_t firstFrame = 0;
  std::size_t frameCount = 0;
  std::vector<MarkTrack> marks;
  /// How far what lies behind the lure has moved in the picture since the first frame of the window (`at`, at
  /// the lure's place), where it was followed, or where a camera that stands was found to sway; else empty.
  std::vector<MarkSample> background;
  std::vector<OutlineSample> outline;  ///< one a frame; empty where no outline was asked for
  std::string outlineLost;             ///< why no outline could be followed although one was drawn
  /// Mean luma between nose and tail, 0 … 255, one a frame; none where they are not both seen.
  std::vector<std::optional<double>> brightness;

  [[nodiscard]] const MarkTrack* find(MarkName name) const;
  /// Frames in which every mark is seen, or the outline where there are no marks.
  [[nodiscard]] std::size_t followed() const;
  /// Frames with one of them missing that lie in short gaps between seen ones.
  [[nodiscard]] std::size_t bridged() const;
};

/// Frames in a row, the last one included.
struct FrameStretch {
  std::size_t first = 0;
  std::size_t last = 0;

  [[nodiscard]] bool holds(std::size_t frame) const { return frame >= first && frame <= last; }
  friend bool operator==(const FrameStretch&, const FrameStretch&) = default;
};

/// Where to look: frames in which a mark is doubtful, or missing between frames in which it is seen.
/// Stretches a few frames apart count as one.
std::vector<FrameStretch> doubtfulStretches(const Track& track);
/// Below this quality a mark is doubtful.
constexpr double kDoubtfulBelow = 0.5;

/// A gap of at most this many frames counts as bridged.
constexpr std::size_t kLongestBridge = 6;

}  // namespace fin
