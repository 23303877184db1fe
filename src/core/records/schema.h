// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/records: the tables of a log and how older ones are migrated.
#pragma once

namespace SQLite {
class Database;
}

namespace fin::records {

/// The schema that this program writes.
int currentVersion();
int versionOf(const SQLite::Database& database);
/// True for a log of any version, and for a file with nothing in it; false for other programs' files.
bool isLog(const SQLite::Database& database);
/// Runs what is missing, in one transaction. Throws SQLite::Exception.
void migrate(SQLite::Database& database);

}  // namespace fin::records
