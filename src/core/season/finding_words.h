// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "core/units/ids.h"

namespace fin {

/// One thing of a log that can be found again by what it is called.
struct Findable {
  enum class Kind { Model, Rig, Day, Water, Pass };
  Kind kind = Kind::Model;
  std::int64_t id = 0;
  std::string text;  ///< what is searched, as it is shown
  DayId day = {};    ///< of a pass
};

/// Those in whose text every one of these words begins a word, capital or not (ASCII letters), in their
/// order; all where nothing is asked. Linear in the text: a few thousand take under a millisecond.
std::vector<std::size_t> found(const std::vector<Findable>& all, std::string_view words);

}  // namespace fin
