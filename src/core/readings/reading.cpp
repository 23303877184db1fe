// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/readings/reading.h"

#include <algorithm>
#include <array>

#include "core/units/names.h"

namespace fin {
namespace {

constexpr std::array<std::string_view, 11> kProtocols{"retrieve", "fall", "twitch", "walk",  "rest", "skirt",
                                                      "sound",    "hop",  "drag",   "pause", "still"};
constexpr std::array<std::string_view, 4> kViews{"side", "top", "head-on", "chase"};
constexpr std::array<std::string_view, 3> kGrades{"good", "fair", "poor"};

}  // namespace

std::string_view toString(Protocol protocol) {
  return kProtocols[static_cast<std::size_t>(protocol)];
}
std::string_view toString(View view) {
  return kViews[static_cast<std::size_t>(view)];
}
std::string_view toString(Grade grade) {
  return kGrades[static_cast<std::size_t>(grade)];
}
std::optional<Protocol> protocolNamed(std::string_view text) {
  return enumNamed<Protocol>(kProtocols, text);
}
std::optional<View> viewNamed(std::string_view text) {
  return enumNamed<View>(kViews, text);
}

const Reading* ReadingSet::find(ReadingId id) const {
  const auto found =
      std::find_if(readings.begin(), readings.end(), [id](const Reading& r) { return r.id == id; });
  return found == readings.end() ? nullptr : &*found;
}

}  // namespace fin
