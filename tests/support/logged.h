// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <string>

#include "core/records/log.h"

namespace fin::test {

/// Adds a pass made on the file that its request names, which must be there.
PassId addPass(Log& log, const std::string& title, const PassRequest& request,
               std::optional<PlannedPassId> planned = std::nullopt, const std::string& camera = {});

/// What measuring a pass as it stands would have given.
Measurement measurementOf(const LoggedPass& pass, ReadingSet readings, Track track = {});

/// Keeps readings, and a track where one is given, as if the pass had been measured.
void keepReadings(Log& log, PassId pass, ReadingSet readings, Track track = {});

}  // namespace fin::test
