// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <optional>
#include <string_view>
#include <vector>

#include "core/units/points.h"

namespace fin {

enum class MarkName { Nose, Tail, Tip, Back, Belly, Flank };

std::string_view toString(MarkName name);
std::optional<MarkName> markNamed(std::string_view text);

/// Where a person says a mark is. Several of one mark at later frames are corrections, obeyed exactly.
struct MarkSeed {
  MarkName name = MarkName::Nose;
  std::size_t frame = 0;
  PixelPoint at;

  friend bool operator==(const MarkSeed&, const MarkSeed&) = default;
};

/// quality 0 … 1: 1 certain, below 0.5 doubtful. Where a mark is not seen, `at` means nothing.
struct MarkSample {
  bool seen = false;
  PixelPoint at;
  double quality = 0.0;
};

struct MarkTrack {
  MarkName name = MarkName::Nose;
  std::vector<MarkSample> samples;  ///< one a frame of the window
};

/// What was followed through a window of frames; every mark has a sample for each frame.
struct Track {
  std::size_t firstFrame = 0;
  std::size_t frameCount = 0;
  std::vector<MarkTrack> marks;
  /// How far what lies behind the lure has moved in the picture since the first frame of the window (`at`, at
  /// the lure's place), where it was followed; empty where it was not.
  std::vector<MarkSample> background;

  [[nodiscard]] const MarkTrack* find(MarkName name) const;
  /// Frames in which every mark is seen.
  [[nodiscard]] std::size_t followed() const;
  /// Frames with a mark missing that lie in short gaps between seen ones.
  [[nodiscard]] std::size_t bridged() const;
};

/// A gap of at most this many frames counts as bridged.
constexpr std::size_t kLongestBridge = 6;

}  // namespace fin
