// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

#include "core/planning/day_plan.h"
#include "core/readings/reading.h"
#include "core/units/result.h"

namespace fin::records {

/// Readings and refusals of a pass, read from and written to a log's tables. They throw SQLite::Exception;
/// the log's transaction and its error handling are the caller's.

/// Unreadable where a row has neither a number nor words, or one of the wrong kind.
Result<ReadingSet> readingsIn(const SQLite::Database& database, PassId pass);
/// In place of what was read before.
void writeReadings(const SQLite::Database& database, PassId pass, const ReadingSet& set, int methodVersion);

}  // namespace fin::records
