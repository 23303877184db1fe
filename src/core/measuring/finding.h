// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <string>
#include <vector>

#include "core/tracking/finding/find_lure.h"

namespace fin {

/// From this on a person need not look closely.
constexpr double kSureEnough = 0.8;

/// What the program found by itself in a pass, and nobody has looked at yet.
struct Finding {
  std::vector<FoundMark> marks;  ///< as the request was given them; empty where none were found
  std::string reason;            ///< why none were found

  [[nodiscard]] bool found() const { return !marks.empty(); }
  /// That all marks are right: 0 … 1.
  [[nodiscard]] double sure() const {
    double least = found() ? 1.0 : 0.0;
    for (const FoundMark& mark : marks) least = std::min(least, mark.sure);
    return least;
  }

  friend bool operator==(const Finding&, const Finding&) = default;
};

}  // namespace fin
