// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string_view>
#include <vector>

namespace fin {

/// Where in the day a caution matters.
enum class Step { Rack, Water, Cameras, Sheet, Poolside, OnTheWater, Catching };

struct Caution {
  Step step = Step::Poolside;
  std::string_view heading;
  std::string_view brief;  ///< one line, at the step
  std::string_view full;   ///< on the sheet for the wall
};

/// General advice that defers to local codes and licensed people; it replaces neither.
const std::vector<Caution>& cautions();
std::vector<Caution> cautionsFor(Step step);

}  // namespace fin
