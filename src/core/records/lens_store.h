// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

#include <vector>

#include "core/records/log.h"

namespace fin::records {

/// The lenses of cameras, read from and written to a log's tables. They throw SQLite::Exception; the log's
/// transaction and its error handling are the caller's.

std::vector<KeptLens> lensesIn(const SQLite::Database& database);
/// In place of what stood for that camera and window.
void writeLens(SQLite::Database& database, const KeptLens& kept);

}  // namespace fin::records
