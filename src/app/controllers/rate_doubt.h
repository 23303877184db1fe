// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>
#include <vector>

#include "core/records/log.h"

namespace fin::app {

/// What to ask of a pass whose filming rate may have been said wrongly: it then reads a whole number of times
/// slower or faster than the other passes of its rig. Empty where it does not, or where the rig is not named.
QString rateDoubt(const Log& log, const std::vector<LoggedPass>& passes, const LoggedPass& pass,
                  const ReadingSet& readings);

}  // namespace fin::app
