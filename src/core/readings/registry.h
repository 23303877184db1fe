// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <string_view>
#include <vector>

#include "core/readings/reading.h"
#include "core/tracking/track.h"

namespace fin {

/// What a pass has to have for a reading to be asked of it at all: without, it is neither read nor refused.
enum class AskedWith { Always, OwnLength, PullLine, Blade, Mid, Hook, Outline, Levels, Sound };

/// What a reading needs before it can be asked for.
struct ReadingSpec {
  ReadingId id{};
  std::string_view unit;
  std::vector<View> shownBy;    ///< views that can show it at all
  std::vector<MarkName> marks;  ///< that must be placed
  bool needsScale = false;      ///< it is a length or a speed
  bool needsWaterline = false;
  bool needsOutline = false;
  std::string_view definition;  ///< how it is found, for the person who asks
  AskedWith askedWith = AskedWith::Always;
};

/// The readings of a protocol, in the order in which they are shown.
std::span<const ReadingSpec> readingsOf(Protocol protocol);
/// Whether a reading rests on where the lure is in the tank, rather than on how its body lies: a camera that
/// moves takes it away.
bool restsOnPlaces(Protocol protocol, const ReadingSpec& spec);
/// The first protocol that asks for it defines it; null for what only a ladder tells.
const ReadingSpec* specOf(ReadingId reading);
/// "mm/s" and the like; "text" for a class.
std::string_view unitOf(ReadingId reading);
/// It is read in words: of a fixed set of classes.
bool isClass(ReadingId reading);

}  // namespace fin
