// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/records: the rows of a log's tables as they are, for copying whole logs.
#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

#include <nlohmann/json.hpp>
#include <span>
#include <string>
#include <vector>

namespace fin::records {

/// A table that belongs to a log's contents.
struct TableSpec {
  const char* name;
  const char* order;  ///< its rows' order
  bool many;          ///< so many rows that they are written as CSV
};
/// In an order in which each refers to earlier ones only.
std::span<const TableSpec> tablesOfALog();

struct TableColumn {
  std::string name;
  std::string type;  ///< INTEGER, REAL or TEXT
};
/// Those that are kept; what follows from others is not among them.
std::vector<TableColumn> columnsOf(const SQLite::Database& database, const std::string& table,
                                   const std::string& schema = "main");
/// "a, b, c"
std::string listed(const std::vector<TableColumn>& columns);
/// "?, ?, ?"
std::string placesFor(const std::vector<TableColumn>& columns);

/// The row that a statement stands on, by its columns; a document stands in it as itself.
nlohmann::ordered_json rowIn(const SQLite::Statement& query, const std::vector<TableColumn>& columns);
/// Binds a row's values; what it lacks is NULL.
void bindRow(SQLite::Statement& statement, const std::vector<TableColumn>& columns,
             const nlohmann::ordered_json& row);

}  // namespace fin::records
