// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/plan_store.h"

#include <algorithm>

#include "core/exchange/json_documents.h"
#include "core/exchange/plan_json.h"
#include "core/records/refusal.h"
#include "core/units/date.h"

namespace fin::records {
namespace {

/// How rows of one kind are kept: what they are called, and their documents.
template <class T>
struct Kind {
  std::string name;
  std::string table;
  Result<T> (*read)(const std::string&);
  std::string of = "";  ///< further column and value that its rows have: "day_id = 2"
  std::string order = "id";

  /// Of one row, by its id.
  [[nodiscard]] std::string where() const { return of.empty() ? "id = ?" : of + " AND id = ?"; }
  /// Id and document: a new row, or one that was hidden and comes back.
  [[nodiscard]] std::string insert() const {
    const std::size_t value = of.find("= ");
    return fmt::format(
        "INSERT INTO {} (id, doc{}) VALUES (?, ?{}) ON CONFLICT DO UPDATE SET doc = excluded.doc, removed = "
        "0 "
        "WHERE removed = 1",
        table, of.empty() ? "" : ", place, day_id", of.empty() ? "" : ", 0, " + of.substr(value + 2));
  }
};

const Kind<Model> kModels{"model", "model", modelFrom};
const Kind<Rig> kRigs{"rig", "rig", rigFrom};
const Kind<Edition> kEditions{"edition", "edition", editionFrom};
const Kind<Piece> kPieces{"piece", "piece", pieceFrom};
const Kind<Price> kPrices{"price", "price", priceFrom};
const Kind<Claim> kClaims{"claim", "claim", claimFrom};
const Kind<WaterBody> kWaters{"water", "water", waterBodyFrom};
const Kind<TieRule> kRules{"rule", "tie_rule", tieRuleFrom};
Kind<PlannedPass> sheetOf(DayId day) {
  return {"planned pass", "planned_pass", plannedFrom, fmt::format("day_id = {}", day.value()), "place"};
}
Kind<RunEvent> eventsOf(DayId day) {
  return {"event", "run_event", runEventFrom, fmt::format("day_id = {}", day.value()), "place, id"};
}

template <class T>
std::vector<T> rowsOf(const SQLite::Database& database, const Place& place, const Kind<T>& kind) {
  SQLite::Statement query(database,
                          fmt::format("SELECT id, doc FROM {} WHERE removed = 0{} ORDER BY {}", kind.table,
                                      kind.of.empty() ? "" : " AND " + kind.of, kind.order));
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
      textOf(database, fmt::format("SELECT doc FROM {} WHERE removed = 0 AND {}", kind.table, kind.where()),
             before.id);
  if (!text) refuseMovedOn(name);
  auto stored = kind.read(*text);
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
    run(database, fmt::format("UPDATE {} SET removed = 1 WHERE {}", kind.table, kind.where()), row.id);
  }
  for (const T& row : after) {
    const T* was = withId(before, row.id);
    if (was == nullptr) {
      SQLite::Statement insert(database, kind.insert());
      bindAll(insert, row.id, toJson(row));
      if (insert.exec() == 0) refuseMovedOn(fmt::format("{} {}", kind.name, row.id.value()));
    } else if (!(*was == row)) {
      const std::string doc = updated(documentAsBefore(database, kind, *was), toJson(row));
      run(database, fmt::format("UPDATE {} SET doc = ? WHERE {}", kind.table, kind.where()), doc, row.id);
    }
  }
}

template <class T>
std::vector<decltype(T::id)> idsOf(const std::vector<T>& rows) {
  std::vector<decltype(T::id)> out;
  for (const T& row : rows) out.push_back(row.id);
  return out;
}

/// In which order a day's rows come; what cannot be read keeps the place it had.
template <class T>
void writeOrder(const SQLite::Database& database, const char* table, DayId day, const std::vector<T>& rows) {
  const std::string sql = fmt::format("UPDATE {} SET place = ? WHERE day_id = ? AND id = ?", table);
  std::int64_t place = 0;
  for (const T& row : rows) run(database, sql, place++, day, row.id);
}

/// All of a day but what has tables of its own.
DayPlan dayAlone(DayPlan plan) {
  plan.rack = {};
  plan.waters.clear();
  plan.rules.clear();
  plan.sheet.clear();
  plan.events.clear();
  return plan;
}

std::string nameOf(DayId day) {
  return day == DayId(1) ? "the day's plan" : fmt::format("the plan of day {}", day.value());
}

Result<DayPlan> dayIn(const std::string& text, DayId id) {
  auto day = dayFrom(text);
  if (day) day->id = id;
  return day;
}

std::optional<std::string> textOfDay(const SQLite::Database& database, DayId day) {
  return textOf(database, "SELECT doc FROM day WHERE removed = 0 AND id = ?", day);
}

void writeDay(const SQLite::Database& database, const DayPlan& before, const DayPlan& after) {
  const auto text = textOfDay(database, after.id);
  if (!text) {
    DayPlan none;
    none.id = after.id;
    if (!(before == dayAlone(none))) refuseMovedOn(nameOf(after.id));
    return run(database, "INSERT INTO day (id, doc) VALUES (?, ?)", after.id, dayToJson(after));
  }
  const auto stored = dayIn(*text, after.id);
  if (!stored) refuseUnread(nameOf(after.id), stored.error().message);
  if (!(dayAlone(*stored) == before)) refuseMovedOn(nameOf(after.id));
  run(database, "UPDATE day SET doc = ? WHERE id = ?", updated(*text, dayToJson(after)), after.id);
}

}  // namespace

DayPlan planIn(const SQLite::Database& database, const Place& place, DayId id) {
  DayPlan plan;
  plan.id = id;
  if (const auto text = textOfDay(database, id)) {
    if (auto day = dayIn(*text, id)) {
      place.clear(nameOf(id));
      plan = std::move(*day);
    } else {
      place.note(nameOf(id), day.error().message);
    }
  }
  plan.rack.models = rowsOf(database, place, kModels);
  plan.rack.rigs = rowsOf(database, place, kRigs);
  plan.rack.editions = rowsOf(database, place, kEditions);
  plan.rack.pieces = rowsOf(database, place, kPieces);
  plan.rack.prices = rowsOf(database, place, kPrices);
  plan.rack.claims = rowsOf(database, place, kClaims);
  plan.waters = rowsOf(database, place, kWaters);
  plan.rules = rowsOf(database, place, kRules);
  plan.sheet = rowsOf(database, place, sheetOf(id));
  plan.events = rowsOf(database, place, eventsOf(id));
  return plan;
}

void writePlan(const SQLite::Database& database, const DayPlan& before, const DayPlan& after) {
  const DayPlan dayBefore = dayAlone(before);
  const DayPlan dayAfter = dayAlone(after);
  const bool begun = textOfDay(database, after.id).has_value();
  if (!begun || !(dayBefore == dayAfter)) writeDay(database, dayBefore, dayAfter);
  writeRows(database, kModels, before.rack.models, after.rack.models);
  writeRows(database, kRigs, before.rack.rigs, after.rack.rigs);
  writeRows(database, kEditions, before.rack.editions, after.rack.editions);
  writeRows(database, kPieces, before.rack.pieces, after.rack.pieces);
  writeRows(database, kPrices, before.rack.prices, after.rack.prices);
  writeRows(database, kClaims, before.rack.claims, after.rack.claims);
  writeRows(database, kWaters, before.waters, after.waters);
  writeRows(database, kRules, before.rules, after.rules);
  writeRows(database, sheetOf(after.id), before.sheet, after.sheet);
  if (idsOf(before.sheet) != idsOf(after.sheet)) writeOrder(database, "planned_pass", after.id, after.sheet);
  writeRows(database, eventsOf(after.id), before.events, after.events);
  if (idsOf(before.events) != idsOf(after.events)) writeOrder(database, "run_event", after.id, after.events);
}

std::vector<DayHead> daysIn(const SQLite::Database& database, const Place& place) {
  SQLite::Statement query(
      database,
      "SELECT id, doc, (SELECT count(*) FROM pass WHERE day_id = day.id AND removed = 0), "
      "(SELECT count(*) FROM planned_pass WHERE day_id = day.id AND removed = 0), "
      "(SELECT min(doc ->> 'finished_s') FROM planned_pass WHERE day_id = day.id AND removed = 0 "
      "AND doc ->> 'finished_s' > 0), "
      "(SELECT count(*) FROM planned_pass WHERE day_id = day.id AND removed = 0 AND state = 'planned'), "
      "(SELECT count(*) FROM run_event WHERE day_id = day.id AND removed = 0 AND doc ->> 'kind' = 'caught') "
      "FROM day WHERE removed = 0");
  std::vector<DayHead> out;
  while (query.executeStep()) {
    const DayId id = query.getColumn(0).getInt64();
    DayHead head{.id = id};
    if (const auto day = dayIn(query.getColumn(1).getString(), id)) {
      place.clear(nameOf(id));
      head.name = day->name;
      head.kind = day->kind;
      head.date = day->date;
      head.waterBody = day->waterBody;
    } else {
      place.note(nameOf(id), day.error().message);
    }
    head.clips = static_cast<std::size_t>(query.getColumn(2).getInt64());
    head.planned = static_cast<std::size_t>(query.getColumn(3).getInt64());
    const auto first = numberIn(query.getColumn(4));
    head.open = static_cast<std::size_t>(query.getColumn(5).getInt64());
    head.fish = static_cast<std::size_t>(query.getColumn(6).getInt64());
    if (head.date.empty() && first) head.date = dateAt(*first);
    out.push_back(std::move(head));
  }
  std::stable_sort(out.begin(), out.end(), [](const DayHead& a, const DayHead& b) {
    return a.date != b.date ? a.date < b.date : a.id < b.id;
  });
  return out;
}

void hideDay(const SQLite::Database& database, DayId day, bool hidden) {
  run(database, "UPDATE day SET removed = ? WHERE id = ?", hidden ? 1 : 0, day);
}

}  // namespace fin::records
