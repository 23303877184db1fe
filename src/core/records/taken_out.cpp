// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/taken_out.h"

#include <algorithm>
#include <array>

#include "core/records/on_database.h"
#include "core/records/portable_rows.h"

namespace fin {
namespace {

namespace fs = std::filesystem;
using namespace records;

struct HiddenTable {
  const char* name;
  const char* called;  ///< SQL: what a row is called
  /// SQL: tables and numbers of the rows that it is of.
  std::vector<std::pair<const char*, const char*>> of = {};
};
/// Those whose rows can be taken out one by one.
const std::vector<HiddenTable>& hiddenTables() {
  static const std::vector<HiddenTable> tables{
      {"model", "doc ->> 'name'"},
      {"rig",
       "coalesce((SELECT doc ->> 'name' FROM model WHERE id = rig.doc ->> 'model'), '') || ', ' || (doc ->> "
       "'name')",
       {{"model", "doc ->> 'model'"}}},
      {"piece", "'number ' || (doc ->> 'number')", {{"model", "doc ->> 'model'"}}},
      {"price", "(doc ->> 'shop') || ' ' || (doc ->> 'date')", {{"model", "doc ->> 'model'"}}},
      {"claim", "doc ->> 'words'", {{"model", "doc ->> 'model'"}}},
      {"water", "doc ->> 'name'"},
      {"tie_rule", "doc ->> 'because'"},
      {"day", "trim((doc ->> 'date') || ' ' || (doc ->> 'name'))"},
      {"planned_pass",
       "coalesce((SELECT doc ->> 'name' FROM rig WHERE id = planned_pass.doc ->> 'rig'), '') || ' ' || "
       "protocol",
       {{"day", "day_id"}, {"rig", "doc ->> 'rig'"}}},
      {"run_event", "doc ->> 'kind'", {{"day", "day_id"}, {"rig", "doc ->> 'rig'"}}},
      {"pass", "title", {{"day", "day_id"}, {"planned_pass", "planned_id"}}},
  };
  return tables;
}
const HiddenTable* hiddenTable(const std::string& name) {
  const auto& all = hiddenTables();
  const auto found =
      std::find_if(all.begin(), all.end(), [&](const HiddenTable& t) { return t.name == name; });
  return found == all.end() ? nullptr : &*found;
}

/// A row comes back, and those that it is of.
void bringBackRow(const SQLite::Database& database, const HiddenTable& table, const std::string& where,
                  const std::string& value) {
  for (const auto& [of, number] : table.of) {
    const auto id =
        textOf(database, fmt::format("SELECT {} FROM {} WHERE {} = ?", number, table.name, where), value);
    if (id && !id->empty() && *id != "0") bringBackRow(database, *hiddenTable(of), "id", *id);
  }
  run(database, fmt::format("UPDATE {} SET removed = 0 WHERE removed = 1 AND {} = ?", table.name, where),
      value);
}

}  // namespace

Result<std::vector<TakenOut>> takenOut(const fs::path& file) {
  return onDatabase(file, [](SQLite::Database& database) -> Result<std::vector<TakenOut>> {
    std::vector<TakenOut> out;
    for (const HiddenTable& table : hiddenTables()) {
      SQLite::Statement query(
          database, fmt::format("SELECT uid, {}, editor, edited_s FROM {} WHERE removed = 1", table.called,
                                table.name));
      while (query.executeStep()) {
        out.push_back({table.name, query.getColumn(0).getString(), query.getColumn(1).getString(),
                       query.getColumn(2).getString(), query.getColumn(3).getDouble()});
      }
    }
    std::stable_sort(out.begin(), out.end(),
                     [](const TakenOut& a, const TakenOut& b) { return a.edited_s > b.edited_s; });
    return out;
  });
}

Result<void> bringBack(const fs::path& file, const TakenOut& row) {
  return onDatabase(file, [&row](SQLite::Database& database) -> Result<void> {
    const HiddenTable* table = hiddenTable(row.kind);
    if (table == nullptr ||
        !textOf(database, fmt::format("SELECT uid FROM {} WHERE removed = 1 AND uid = ?", row.kind), row.uid))
      return failure(ErrorCode::BadRequest, "the log holds no such row that was taken out");
    SQLite::Transaction transaction(database, SQLite::TransactionBehavior::IMMEDIATE);
    bringBackRow(database, *table, "uid", row.uid);
    transaction.commit();
    return {};
  });
}

Result<void> thinCopy(const fs::path& file, const fs::path& to) {
  if (fs::exists(to))
    return failure(ErrorCode::NotWritable, to.string() + ": this file is there already", to.string());
  const auto done = onDatabase(file, [&to](SQLite::Database& database) -> Result<void> {
    run(database, "VACUUM INTO ?", to.string());
    SQLite::Database thin(to.string(), SQLite::OPEN_READWRITE, kPatience_ms);
    SQLite::Transaction transaction(thin, SQLite::TransactionBehavior::IMMEDIATE);
    constexpr const char* kHidden = "SELECT id FROM pass WHERE removed = 1";
    for (const char* table : {"measurement", "reading", "refusal", "eye_score"})
      thin.exec(fmt::format("DELETE FROM {} WHERE pass_id IN ({})", table, kHidden));
    for (const char* table : {"track_sample", "outline_sample", "body_brightness", "conflict"})
      thin.exec(fmt::format("DELETE FROM {}", table));
    thin.exec("UPDATE measurement SET first_frame = 0, frame_count = 0, marks = ''");
    for (auto table = hiddenTables().rbegin(); table != hiddenTables().rend(); ++table) {
      // A day that went takes with it what is its own.
      constexpr const char* kHiddenDays = "SELECT id FROM day WHERE removed = 1";
      const bool own = std::any_of(table->of.begin(), table->of.end(),
                                   [](const auto& of) { return std::string(of.second) == "day_id"; });
      thin.exec(fmt::format("DELETE FROM {} WHERE removed = 1{}", table->name,
                            own ? fmt::format(" OR day_id IN ({})", kHiddenDays) : std::string()));
    }
    thin.exec("DELETE FROM verdict WHERE day_id NOT IN (SELECT id FROM day)");
    thin.exec("DELETE FROM clip WHERE id NOT IN (SELECT clip_id FROM pass)");
    transaction.commit();
    thin.exec("VACUUM");
    return {};
  });
  if (!done) {
    std::error_code ignored;
    fs::remove(to, ignored);
  }
  return done;
}

Result<std::string> editorOf(const fs::path& file) {
  return onDatabase(file, [](SQLite::Database& database) -> Result<std::string> {
    return textOf(database, "SELECT value FROM about WHERE name = 'editor'").value_or("");
  });
}

Result<void> sayEditor(const fs::path& file, const std::string& name) {
  return onDatabase(file, [&name](SQLite::Database& database) -> Result<void> {
    if (name.empty()) {
      run(database, "DELETE FROM about WHERE name = 'editor'");
    } else {
      run(database,
          "INSERT INTO about (name, value) VALUES ('editor', ?) ON CONFLICT (name) DO UPDATE SET value = "
          "excluded.value",
          name);
    }
    return {};
  });
}

}  // namespace fin
