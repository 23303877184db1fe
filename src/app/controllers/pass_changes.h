// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

#include "core/measuring/session.h"
#include "core/records/log.h"

namespace fin::app {

/// Each part of a pass, with its measurement, named after what the lure does in it.
std::vector<NewPass> asPasses(const LoggedPass& whole, const std::vector<MeasuredPart>& parts);

std::vector<PassChange> reversed(std::vector<PassChange> changes);
/// Another file is to be opened for it.
bool otherClip(const LoggedPass& a, const LoggedPass& b);
/// What a list of passes shows is no longer the same.
bool listedOtherwise(const PassChange& change);
/// What makes passes be read by other thresholds; nothing for those that are already.
std::vector<PassChange> readBy(const Thresholds& thresholds, const std::vector<LoggedPass>& passes);

}  // namespace fin::app
