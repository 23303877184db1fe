// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/plan_store.h"

#include <algorithm>

#include "core/exchange/json_documents.h"
#include "core/exchange/plan_json.h"
#include "core/records/refusal.h"

namespace fin::records {
namespace {

constexpr std::int64_t kDay = 1;  ///< a log holds one day's plan

/// How rows of one kind are kept: what they are called, and their documents.
template <class T>
struct Kind {
  std::string name;
  std::string table;
  std::string key;  ///< which row, by its id
  std::string order;
  std::string insert;  ///< id and document
  Result<T> (*read)(const std::string&);
};

const Kind<Model> kModels{"model",  "model", "id = ?", "id", "INSERT INTO model (id, doc) VALUES (?, ?)",
                          modelFrom};
const Kind<Rig> kRigs{"rig", "rig", "id = ?", "id", "INSERT INTO rig (id, doc) VALUES (?, ?)", rigFrom};
const Kind<PlannedPass> kSheet{"planned pass",
                               "planned_pass",
                               "day_id = 1 AND id = ?",
                               "place",
                               "INSERT INTO planned_pass (day_id, id, place, doc) VALUES (1, ?, 0, ?)",
                               plannedFrom};

template <class T>
std::vector<T> rowsOf(const SQLite::Database& database, const Place& place, const Kind<T>& kind) {
  SQLite::Statement query(database,
                          fmt::format("SELECT id, doc FROM {} ORDER BY {}", kind.table, kind.order));
  std::vector<T> out;
  while (query.executeStep()) {
    const std::int64_t id = query.getColumn(0).getInt64();
    const std::string name = fmt::format("{} {}", kind.name, id);
    auto row = kind.read(query.getColumn(1).getString());
    if (row && row->id == id) {
      place.clear(name);
      out.push_back(std::move(*row));
    } else {
      place.note(name, row ? "its number is another one inside" : row.error().message);
    }
  }
  return out;
}

/// The document that stands in a row, if it is as `before` says; refused else.
template <class T>
std::string documentAsBefore(const SQLite::Database& database, const Kind<T>& kind, const T& before) {
  const std::string name = fmt::format("{} {}", kind.name, before.id.value());
  const auto text =
      textOf(database, fmt::format("SELECT doc FROM {} WHERE {}", kind.table, kind.key), before.id);
  if (!text) refuseMovedOn(name);
  const auto stored = kind.read(*text);
  if (!stored) refuseUnread(name, stored.error().message);
  if (!(*stored == before)) refuseMovedOn(name);
  return *text;
}

template <class T>
const T* withId(const std::vector<T>& rows, decltype(T::id) id) {
  const auto found = std::find_if(rows.begin(), rows.end(), [id](const T& row) { return row.id == id; });
  return found == rows.end() ? nullptr : &*found;
}

template <class T>
void writeRows(const SQLite::Database& database, const Kind<T>& kind, const std::vector<T>& before,
               const std::vector<T>& after) {
  for (const T& row : before) {
    if (withId(after, row.id) != nullptr) continue;
    documentAsBefore(database, kind, row);
    run(database, fmt::format("DELETE FROM {} WHERE {}", kind.table, kind.key), row.id);
  }
  for (const T& row : after) {
    const T* was = withId(before, row.id);
    if (was == nullptr) {
      run(database, kind.insert, row.id, toJson(row));  // its number is free, or SQLite refuses
    } else if (!(*was == row)) {
      const std::string doc = updated(documentAsBefore(database, kind, *was), toJson(row));
      run(database, fmt::format("UPDATE {} SET doc = ? WHERE {}", kind.table, kind.key), doc, row.id);
    }
  }
}

template <class T>
std::vector<decltype(T::id)> idsOf(const std::vector<T>& rows) {
  std::vector<decltype(T::id)> out;
  for (const T& row : rows) out.push_back(row.id);
  return out;
}

/// The sheet's order; what cannot be read keeps the place it had.
void writeOrder(const SQLite::Database& database, const std::vector<PlannedPass>& sheet) {
  std::int64_t place = 0;
  for (const PlannedPass& pass : sheet)
    run(database, "UPDATE planned_pass SET place = ? WHERE day_id = 1 AND id = ?", place++, pass.id);
}

/// All of a day but what has tables of its own.
DayPlan dayAlone(DayPlan plan) {
  plan.rack = {};
  plan.sheet.clear();
  return plan;
}

void writeDay(const SQLite::Database& database, const DayPlan& before, const DayPlan& after) {
  const auto text = textOf(database, "SELECT doc FROM day WHERE id = ?", kDay);
  if (!text) {
    if (!(before == dayAlone(DayPlan{}))) refuseMovedOn("the day's plan");
    return run(database, "INSERT INTO day (id, doc) VALUES (?, ?)", kDay, dayToJson(after));
  }
  const auto stored = dayFrom(*text);
  if (!stored) refuseUnread("the day's plan", stored.error().message);
  if (!(dayAlone(*stored) == before)) refuseMovedOn("the day's plan");
  run(database, "UPDATE day SET doc = ? WHERE id = ?", updated(*text, dayToJson(after)), kDay);
}

}  // namespace

DayPlan planIn(const SQLite::Database& database, const Place& place) {
  DayPlan plan;
  if (const auto text = textOf(database, "SELECT doc FROM day WHERE id = ?", kDay)) {
    if (auto day = dayFrom(*text)) {
      place.clear("the day's plan");
      plan = std::move(*day);
    } else {
      place.note("the day's plan", day.error().message);
    }
  }
  plan.rack.models = rowsOf(database, place, kModels);
  plan.rack.rigs = rowsOf(database, place, kRigs);
  plan.sheet = rowsOf(database, place, kSheet);
  return plan;
}

void writePlan(const SQLite::Database& database, const DayPlan& before, const DayPlan& after) {
  const DayPlan dayBefore = dayAlone(before);
  const DayPlan dayAfter = dayAlone(after);
  const bool begun = textOf(database, "SELECT doc FROM day WHERE id = ?", kDay).has_value();
  if (!begun || !(dayBefore == dayAfter)) writeDay(database, dayBefore, dayAfter);
  writeRows(database, kModels, before.rack.models, after.rack.models);
  writeRows(database, kRigs, before.rack.rigs, after.rack.rigs);
  writeRows(database, kSheet, before.sheet, after.sheet);
  if (idsOf(before.sheet) != idsOf(after.sheet)) writeOrder(database, after.sheet);
}

}  // namespace fin::records
