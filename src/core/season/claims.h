// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

#include "core/planning/holdings.h"

namespace fin {

enum class ClaimState {
  Untested,   ///< nobody read it
  Kept,       ///< the whole interval lies within
  Broken,     ///< the whole interval lies without
  Undecided,  ///< it lies across a bound
};

/// An interval of 95 %.
struct ReadRange {
  double from = 0.0;
  double to = 0.0;
};
ClaimState stateOf(const Claim& claim, const std::optional<ReadRange>& read);

}  // namespace fin
