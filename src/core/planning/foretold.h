// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

#include "core/readings/reading_id.h"
#include "core/units/ids.h"

namespace fin {

/// What somebody says of a rig before it is filmed: that a reading lies over a line, or under it.
struct ForetoldLine {
  RigId rig;
  ReadingId reading{};
  bool over = true;
  double line = 0.0;    ///< in the reading's unit
  double chance = 0.5;  ///< how sure: 0.1 to 0.9
  double said_s = 0.0;  ///< wall clock, seconds since 1970

  friend bool operator==(const ForetoldLine&, const ForetoldLine&) = default;
};

/// In which order rigs will come, the highest value first.
struct ForetoldOrder {
  ReadingId reading{};
  std::vector<RigId> rigs;
  double said_s = 0.0;

  friend bool operator==(const ForetoldOrder&, const ForetoldOrder&) = default;
};

/// All that is foretold of one day.
struct Foretold {
  std::vector<ForetoldLine> lines;
  std::vector<ForetoldOrder> orders;

  friend bool operator==(const Foretold&, const Foretold&) = default;
};

}  // namespace fin
