// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/records: small help with SQLite's statements. Everything here throws SQLite::Exception.
#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

#include <optional>
#include <string>

#include "core/units/ids.h"

namespace fin::records {

inline constexpr int kPatience_ms = 2000;  ///< for another window to finish writing

template <class T>
void bindOne(SQLite::Statement& statement, int i, const std::optional<T>& value) {
  if (value) statement.bind(i, *value);
}
template <class Kind>
void bindOne(SQLite::Statement& statement, int i, Id<Kind> id) {
  statement.bind(i, id.value());
}
template <class Kind>
void bindOne(SQLite::Statement& statement, int i, const std::optional<Id<Kind>>& id) {
  if (id) statement.bind(i, id->value());
}
template <class T>
void bindOne(SQLite::Statement& statement, int i, const T& value) {
  statement.bind(i, value);
}

/// Binds values in order; an absent one is NULL.
template <class... Values>
void bindAll(SQLite::Statement& statement, const Values&... values) {
  int i = 0;
  (bindOne(statement, ++i, values), ...);
}

/// Runs one statement with these values.
template <class... Values>
void run(const SQLite::Database& database, const std::string& sql, const Values&... values) {
  SQLite::Statement statement(database, sql);
  bindAll(statement, values...);
  statement.exec();
}

/// The first column of the first row as text; none where there is no row.
template <class... Values>
std::optional<std::string> textOf(const SQLite::Database& database, const std::string& sql,
                                  const Values&... values) {
  SQLite::Statement query(database, sql);
  bindAll(query, values...);
  if (!query.executeStep()) return std::nullopt;
  return query.getColumn(0).getString();
}

inline std::optional<double> numberIn(const SQLite::Column& column) {
  return column.isNull() ? std::nullopt : std::optional(column.getDouble());
}
template <class Id>
std::optional<Id> idIn(const SQLite::Column& column) {
  return column.isNull() ? std::nullopt : std::optional<Id>(column.getInt64());
}

}  // namespace fin::records
