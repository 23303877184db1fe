// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

#include "core/planning/day_plan.h"
#include "core/tracking/track.h"

namespace fin::records {

/// What was followed in a pass, read from and written to a log's tables. They throw SQLite::Exception; the
/// log's transaction and its error handling are the caller's.

/// `track` brings its window and the names of its marks, and is filled with what was followed.
void fillTrack(const SQLite::Database& database, PassId pass, Track& track);
/// In place of what was followed before.
void writeTrack(const SQLite::Database& database, PassId pass, const Track& track);

}  // namespace fin::records
