// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/comparison/wishes.h"
#include "core/planning/rack.h"
#include "core/records/log.h"

namespace fin {

/// What three people said of what no camera shows: points for casting, and which of two looks better.
Judgements demoJudgements(const Rack& rack);

/// How one of them scored the pulls blind, each twice, for how fast they wobble: a fair eye that likes the
/// spoons.
std::vector<EyeScore> demoEyeScores(const std::vector<LoggedPass>& passes);

}  // namespace fin
