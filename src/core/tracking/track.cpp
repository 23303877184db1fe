// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/tracking/track.h"

#include <algorithm>
#include <array>

#include "core/units/names.h"

namespace fin {

constexpr std::array<std::string_view, 6> kMarkNames{"nose", "tail", "tip", "back", "belly", "flank"};

std::string_view toString(MarkName name) {
  return kMarkNames[static_cast<std::size_t>(name)];
}

std::optional<MarkName> markNamed(std::string_view text) {
  return enumNamed<MarkName>(kMarkNames, text);
}

namespace {

bool allSeen(const Track& track, std::size_t i) {
  return std::all_of(track.marks.begin(), track.marks.end(),
                     [i](const MarkTrack& mark) { return mark.samples[i].seen; });
}

}  // namespace

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
