// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/comparison/vote.h"
#include "core/planning/rack.h"

namespace fin {

/// What twelve invented viewers said of the first day's rigs.
Vote demoVote(const Rack& rack);

}  // namespace fin
