// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/portable_rows.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <chrono>

#include "core/records/table_rows.h"

namespace fin::records {
namespace {

namespace fs = std::filesystem;
using nlohmann::ordered_json;
using Pointer = ordered_json::json_pointer;

constexpr const char* kHere = "main";
constexpr const char* kThere = "other";
constexpr double kLater_s = 0.001;
constexpr std::array kOfAPass{"measurement",  "reading",        "refusal",
                              "track_sample", "outline_sample", "body_brightness"};

/// Tells each value that stands at a place of a row otherwise; nothing where there is none.
template <class Tell>
void retell(ordered_json& in, const std::string& at, const Tell& tell) {
  if (at.empty()) {
    in = tell(in);
    return;
  }
  const std::size_t end = at.find('/', 1);
  const std::string name = at.substr(1, end == std::string::npos ? end : end - 1);
  const std::string rest = end == std::string::npos ? std::string() : at.substr(end);
  if (name == "*" && in.is_array()) {
    for (ordered_json& one : in) retell(one, rest, tell);
  } else if (in.is_object() && in.contains(name)) {
    retell(in[name], rest, tell);
  }
}
}  // namespace

const std::vector<MergedTable>& mergedTables() {
  static const std::vector<MergedTable> tables{
      {"model", "id", {}},
      {"rig", "id", {{"/doc/model", "model"}}},
      {"piece", "id", {{"/doc/model", "model"}}},
      {"price", "id", {{"/doc/model", "model"}}},
      {"claim", "id", {{"/doc/model", "model"}}},
      {"water", "id", {}},
      {"tie_rule", "id", {}},
      {"day",
       "id",
       {{"/doc/water_body", "water"},
        {"/doc/options/control_rig", "rig"},
        {"/doc/foretold/lines/*/rig", "rig"},
        {"/doc/foretold/orders/*/rigs/*", "rig"}}},
      {"edition", "id", {{"/doc/was/id", "rig"}, {"/doc/was/model", "model"}, {"/doc/days/*", "day"}}},
      {"planned_pass", "id", {{"/day_id", "day"}, {"/doc/rig", "rig"}, {"/doc/piece", "piece"}}},
      {"run_event", "id", {{"/day_id", "day"}, {"/doc/rig", "rig"}, {"/doc/piece", "piece"}}},
      {"verdict", "day_id", {{"/day_id", "day"}}},
      {"pass", "id", {{"/day_id", "day"}, {"/planned_id", "planned_pass"}, {"/clip_id", "clip"}}},
      {"eye_score", "id", {{"/pass_id", "pass"}}},
  };
  return tables;
}

const MergedTable* mergedTableNamed(const std::string& kind) {
  const auto& all = mergedTables();
  const auto found =
      std::find_if(all.begin(), all.end(), [&kind](const MergedTable& t) { return t.name == kind; });
  return found == all.end() ? nullptr : &*found;
}

std::string nameIn(const ordered_json& content) {
  for (const char* at : {"/doc/name", "/title", "/doc/words", "/doc/shop"}) {
    const Pointer pointer(at);
    if (content.contains(pointer) && content[pointer].is_string() &&
        !content[pointer].get<std::string>().empty())
      return content[pointer].get<std::string>();
  }
  return {};
}

PortableRows::PortableRows(SQLite::Database& database, fs::path folder, fs::path otherFolder)
    : database_(database), folder_(std::move(folder)), otherFolder_(std::move(otherFolder)) {
  readNumbers(kHere, here_);
  if (!otherFolder_.empty()) readNumbers(kThere, there_);
}

std::vector<PortableRow> PortableRows::here(const MergedTable& table) {
  return rowsOf(kHere, table, here_);
}
std::vector<PortableRow> PortableRows::there(const MergedTable& table) {
  return rowsOf(kThere, table, there_);
}

std::optional<PortableRow> PortableRows::rowWith(const std::string& kind, const std::string& uid) {
  const MergedTable* table = mergedTableNamed(kind);
  if (table == nullptr) return std::nullopt;
  std::vector<PortableRow> rows = rowsOf(kHere, *table, here_);
  const auto found =
      std::find_if(rows.begin(), rows.end(), [&uid](const PortableRow& r) { return r.uid == uid; });
  return found == rows.end() ? std::nullopt : std::optional(*found);
}
void PortableRows::put(const std::string& kind, const PortableRow& standing, ordered_json version) {
  const MergedTable& table = *mergedTableNamed(kind);
  keepAside(table, standing);
  PortableRow row = standing;
  row.content = std::move(version);
  const double now =
      std::chrono::duration<double>(std::chrono::system_clock::now().time_since_epoch()).count();
  row.edited_s = std::max(now, standing.edited_s + kLater_s);  // clocks of two people may differ
  overtake(table, row, standing.id);
}

void PortableRows::readNumbers(const std::string& schema, Numbers& numbers) {
  for (const MergedTable& table : mergedTables()) {
    if (std::string(table.key) != "id") continue;
    SQLite::Statement query(database_, fmt::format("SELECT id, uid FROM {}.{}", schema, table.name));
    while (query.executeStep())
      numbers.add(table.name, query.getColumn(0).getInt64(), query.getColumn(1).getString());
  }
  SQLite::Statement clips(database_, fmt::format("SELECT id, size_bytes, sha256, path FROM {}.clip", schema));
  while (clips.executeStep()) {
    const fs::path path = clips.getColumn(3).getString();
    numbers.add("clip", clips.getColumn(0).getInt64(),
                fmt::format("{} {} {}", clips.getColumn(1).getInt64(), clips.getColumn(2).getString(),
                            path.filename().string()));
  }
}

std::vector<PortableRow> PortableRows::rowsOf(const std::string& schema, const MergedTable& table,
                                              const Numbers& numbers) {
  const auto columns = columnsOf(database_, table.name, schema);
  SQLite::Statement query(database_,
                          fmt::format("SELECT {} FROM {}.{}", listed(columns), schema, table.name));
  std::vector<PortableRow> out;
  while (query.executeStep()) {
    ordered_json row = rowIn(query, columns);
    PortableRow portable{.uid = row["uid"].get<std::string>(), .id = row[table.key].get<std::int64_t>()};
    if (row["editor"].is_string()) portable.editor = row["editor"].get<std::string>();
    if (row["edited_s"].is_number()) portable.edited_s = row["edited_s"].get<double>();
    for (const Reference& reference : table.references) {
      retell(row, reference.at, [&](const ordered_json& id) -> ordered_json {
        return id.is_number_integer() ? ordered_json(numbers.uid(reference.to, id.get<std::int64_t>())) : id;
      });
    }
    if (std::string(table.name) == "verdict") portable.uid = row["day_id"].get<std::string>();
    // Where the clip lies is each log's own.
    const Pointer clip("/request/clip");
    if (row.contains(clip)) row[clip] = fs::path(row[clip].get<std::string>()).filename().string();
    if (row.contains("doc")) row["doc"].erase("id");
    for (const char* own : {"id", "uid", "editor", "edited_s"}) row.erase(own);
    portable.content = std::move(row);
    out.push_back(std::move(portable));
  }
  return out;
}

void PortableRows::keepAside(const MergedTable& table, const PortableRow& row) {
  SQLite::Statement insert(database_,
                           "INSERT OR IGNORE INTO conflict (kind, uid, version, editor, edited_s) "
                           "VALUES (?, ?, ?, ?, ?)");
  insert.bind(1, table.name);
  insert.bind(2, row.uid);
  insert.bind(3, row.content.dump());
  insert.bind(4, row.editor);
  insert.bind(5, row.edited_s);
  insert.exec();
}

/// With this log's numbers in place of the random ones.
ordered_json PortableRows::local(const MergedTable& table, const PortableRow& row, std::int64_t id) {
  ordered_json out = row.content;
  for (const Reference& reference : table.references) {
    retell(out, reference.at, [&](const ordered_json& uid) -> ordered_json {
      if (!uid.is_string()) return uid;
      const std::string text = uid.get<std::string>();
      if (text.empty()) return 0;
      if (std::string(reference.to) == "clip") return bringClip(text);
      return here_.id(reference.to, text).value_or(0);
    });
  }
  if (out.contains("doc") && std::string(table.key) == "id") out["doc"]["id"] = id;
  if (std::string(table.key) == "id") out["id"] = id;
  if (out.contains("request") && !otherFolder_.empty()) out["request"]["clip"] = pathHere(row.id);
  out["uid"] = row.uid;
  if (!row.editor.empty()) out["editor"] = row.editor;
  out["edited_s"] = row.edited_s;
  return out;
}

/// As this log names a file of the other one.
std::string PortableRows::named(const fs::path& there) const {
  const fs::path whole = (otherFolder_ / there).lexically_normal();
  const fs::path relative = whole.lexically_relative(folder_);
  const bool below = !relative.empty() && *relative.begin() != "..";
  return below ? relative.string() : whole.string();
}

/// The clip of a pass of the other log.
std::string PortableRows::pathHere(std::int64_t otherPass) {
  SQLite::Statement query(database_, "SELECT request ->> 'clip' FROM other.pass WHERE id = ?");
  query.bind(1, otherPass);
  return query.executeStep() ? named(query.getColumn(0).getString()) : std::string();
}

std::int64_t PortableRows::bringClip(const std::string& uid) {
  if (const auto known = here_.id("clip", uid)) return *known;
  SQLite::Statement query(database_, "SELECT path, size_bytes, sha256 FROM other.clip WHERE id = ?");
  query.bind(1, there_.id("clip", uid).value_or(0));
  query.executeStep();
  SQLite::Statement insert(database_, "INSERT INTO clip (path, size_bytes, sha256) VALUES (?, ?, ?)");
  insert.bind(1, named(query.getColumn(0).getString()));
  insert.bind(2, query.getColumn(1).getInt64());
  insert.bind(3, query.getColumn(2).getString());
  insert.exec();
  here_.add("clip", database_.getLastInsertRowid(), uid);
  return database_.getLastInsertRowid();
}

void PortableRows::insert(const MergedTable& table, const PortableRow& row) {
  const std::int64_t id = here_.fresh(table.name, row.id);
  const ordered_json made = local(table, row, id);
  const auto columns = columnsOf(database_, table.name);
  SQLite::Statement insert(database_, fmt::format("INSERT INTO {} ({}) VALUES ({})", table.name,
                                                  listed(columns), placesFor(columns)));
  bindRow(insert, columns, made);
  insert.exec();
  if (std::string(table.key) == "id") here_.add(table.name, id, row.uid);
  if (std::string(table.name) == "pass") bringMeasured(row.id, id);
}

void PortableRows::overtake(const MergedTable& table, const PortableRow& row, std::int64_t id) {
  ordered_json made = local(table, row, id);
  if (made.contains("request")) {  // the clip lies where this log has it
    SQLite::Statement query(database_, "SELECT request ->> 'clip' FROM pass WHERE id = ?");
    query.bind(1, id);
    query.executeStep();
    made["request"]["clip"] = query.getColumn(0).getString();
  }
  std::string set;
  auto columns = columnsOf(database_, table.name);
  std::erase_if(columns, [&](const TableColumn& c) {
    return c.name == table.key || c.name == "uid" || c.name == "editor" || c.name == "edited_s";
  });
  for (const TableColumn& c : columns) set += (set.empty() ? "" : ", ") + c.name + " = ?";
  SQLite::Statement update(database_,
                           fmt::format("UPDATE {} SET {} WHERE {} = {}", table.name, set, table.key, id));
  bindRow(update, columns, made);
  update.exec();
  // Who changed it and when is as it was there; the trigger has set this log's.
  SQLite::Statement stamp(database_, fmt::format("UPDATE {} SET editor = ?, edited_s = ? WHERE {} = {}",
                                                 table.name, table.key, id));
  if (!row.editor.empty()) stamp.bind(1, row.editor);
  stamp.bind(2, row.edited_s);
  stamp.exec();
}

void PortableRows::bringMeasured(std::int64_t from, std::int64_t to) {
  for (const char* table : kOfAPass) {
    auto columns = columnsOf(database_, table);
    std::erase_if(columns, [](const TableColumn& c) { return c.name == "pass_id"; });
    database_.exec(
        fmt::format("INSERT INTO {0} (pass_id, {1}) SELECT {2}, {1} FROM other.{0} WHERE pass_id = {3}",
                    table, listed(columns), to, from));
  }
}

}  // namespace fin::records
