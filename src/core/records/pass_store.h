// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/records/database.h"
#include "core/records/log.h"
#include "core/records/rows.h"

namespace fin::records {

/// Passes and their clips, read from and written to a log's tables. They throw SQLite::Exception and Refused;
/// the transaction is the caller's.

std::vector<LoggedPass> passesIn(const SQLite::Database& database, const Place& place);
/// BadRequest where there is none; Unreadable.
Result<LoggedPass> passIn(const SQLite::Database& database, const Place& place, PassId id);
PassId insertPass(const SQLite::Database& database, const Place& place, const NewPass& pass);
/// Refused where the log holds it otherwise than `change.before`.
void writePass(const SQLite::Database& database, const Place& place, const PassChange& change);

}  // namespace fin::records
