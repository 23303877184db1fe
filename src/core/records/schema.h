// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/records: the tables of a log and how older ones are brought forward.
#pragma once

namespace SQLite {
class Database;
}

namespace fin::records {

/// The schema that this program writes.
int currentVersion();
int versionOf(const SQLite::Database& database);
/// Runs what is missing, in one transaction. Throws SQLite::Exception.
void bringForward(SQLite::Database& database);

}  // namespace fin::records
