// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

#include "core/planning/day_plan.h"
#include "core/readings/reading.h"

namespace fin::records {

/// What a pass gave, read from and written to a log's tables. They throw SQLite::Exception; the log's
/// transaction and its error handling are the caller's.

ReadingSet readingsIn(const SQLite::Database& database, RowId pass);
/// In place of what was read before.
void writeReadings(SQLite::Database& database, RowId pass, const ReadingSet& set);

}  // namespace fin::records
