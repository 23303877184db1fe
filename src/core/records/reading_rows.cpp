// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/reading_rows.h"

#include <SQLiteCpp/VariadicBind.h>
#include <nlohmann/json.hpp>

namespace fin::records {
namespace {

std::optional<Grade> gradeNamed(const std::string& text) {
  for (Grade g : {Grade::Good, Grade::Fair, Grade::Poor}) {
    if (toString(g) == text) return g;
  }
  return std::nullopt;
}

tl::unexpected<Error> unknownReading(const std::string& word) {
  return failure(ErrorCode::Unreadable, "this program knows no reading \"" + word + "\"", word);
}

/// A class has words, everything else a number.
Result<Reading> readingFrom(SQLite::Statement& row) {
  Reading r;
  const std::string word = row.getColumn(0).getString();
  const auto id = readingNamed(word);
  if (!id) return unknownReading(word);
  r.id = *id;
  r.unit = row.getColumn(3).getString();
  const bool words = r.unit == "text";
  if (row.getColumn(words ? 2 : 1).isNull() || row.getColumn(words ? 1 : 2).isNull() == false)
    return failure(ErrorCode::Unreadable, word + " has no value of its kind", word);
  if (words) {
    r.value = row.getColumn(2).getString();
  } else {
    r.value = row.getColumn(1).getDouble();
  }
  if (!row.getColumn(4).isNull()) r.u95 = row.getColumn(4).getDouble();
  r.n = row.getColumn(5).getDouble();
  r.grade = gradeNamed(row.getColumn(6).getString()).value_or(Grade::Poor);
  const auto notes = nlohmann::json::parse(row.getColumn(7).getString(), nullptr, false);
  for (const auto& note : notes) {
    if (note.is_string()) r.notes.push_back(note.get<std::string>());
  }
  return r;
}

/// What is not bound is NULL.
void insertReading(const SQLite::Database& database, PassId pass, int place, const Reading& r,
                   int methodVersion) {
  SQLite::Statement insert(database, "INSERT INTO reading VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)");
  SQLite::bind(insert, pass.value(), place, std::string(toString(r.id)));
  if (const auto* number = std::get_if<double>(&r.value)) insert.bind(4, *number);
  if (const auto* words = std::get_if<std::string>(&r.value)) insert.bind(5, *words);
  insert.bind(6, r.unit);
  if (r.u95) insert.bind(7, *r.u95);
  insert.bind(8, r.n);
  insert.bind(9, std::string(toString(r.grade)));
  insert.bind(10, nlohmann::json(r.notes).dump());
  insert.bind(11, methodVersion);
  insert.exec();
}

}  // namespace

Result<ReadingSet> readingsIn(const SQLite::Database& database, PassId pass) {
  ReadingSet out;
  SQLite::Statement query(database,
                          "SELECT name, value, words, unit, u95, n, grade, notes FROM reading "
                          "WHERE pass_id = ? ORDER BY place");
  query.bind(1, pass.value());
  while (query.executeStep()) {
    auto reading = readingFrom(query);
    if (!reading) return tl::unexpected(reading.error());
    out.readings.push_back(std::move(*reading));
  }
  SQLite::Statement refused(database, "SELECT name, why FROM refusal WHERE pass_id = ? ORDER BY place");
  refused.bind(1, pass.value());
  while (refused.executeStep()) {
    const std::string word = refused.getColumn(0).getString();
    const auto id = readingNamed(word);
    if (!id) return unknownReading(word);
    out.refused.push_back({*id, refused.getColumn(1).getString()});
  }
  return out;
}

void writeReadings(const SQLite::Database& database, PassId pass, const ReadingSet& set, int methodVersion) {
  for (const char* sql : {"DELETE FROM reading WHERE pass_id = ?", "DELETE FROM refusal WHERE pass_id = ?"}) {
    SQLite::Statement clear(database, sql);
    clear.bind(1, pass.value());
    clear.exec();
  }
  int place = 0;
  for (const Reading& r : set.readings) insertReading(database, pass, place++, r, methodVersion);
  SQLite::Statement insert(database, "INSERT INTO refusal VALUES (?, ?, ?, ?)");
  for (const Refusal& r : set.refused) {
    SQLite::bind(insert, pass.value(), place++, std::string(toString(r.id)), r.why);
    insert.exec();
    insert.reset();
  }
}

}  // namespace fin::records
