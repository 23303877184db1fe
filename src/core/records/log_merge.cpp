// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/log_merge.h"

#include <SQLiteCpp/Backup.h>
#include <SQLiteCpp/SQLiteCpp.h>
#include <unistd.h>

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <chrono>
#include <nlohmann/json.hpp>
#include <optional>

#include "core/records/database.h"
#include "core/records/log.h"
#include "core/records/log_folder.h"
#include "core/records/table_rows.h"

namespace fin {
namespace {

namespace fs = std::filesystem;
using namespace records;
using nlohmann::ordered_json;
using Pointer = ordered_json::json_pointer;

constexpr const char* kHere = "main";
constexpr const char* kThere = "other";
constexpr double kLater_s = 0.001;

/// A number in a row that is another row's.
struct Reference {
  const char* at;  ///< where in the row
  const char* to;  ///< table
};
/// A table whose rows are known by their random numbers.
struct MergedTable {
  const char* name;
  const char* key;  ///< column of its own number
  std::vector<Reference> references;
};
const std::vector<MergedTable>& mergedTables() {
  static const std::vector<MergedTable> tables{
      {"model", "id", {}},
      {"rig", "id", {{"/doc/model", "model"}}},
      {"piece", "id", {{"/doc/model", "model"}}},
      {"price", "id", {{"/doc/model", "model"}}},
      {"claim", "id", {{"/doc/model", "model"}}},
      {"water", "id", {}},
      {"day", "id", {{"/doc/water_body", "water"}, {"/doc/options/control_rig", "rig"}}},
      {"edition", "id", {{"/doc/was/id", "rig"}, {"/doc/was/model", "model"}, {"/doc/days", "day"}}},
      {"planned_pass", "id", {{"/day_id", "day"}, {"/doc/rig", "rig"}, {"/doc/piece", "piece"}}},
      {"verdict", "day_id", {{"/day_id", "day"}}},
      {"pass", "id", {{"/day_id", "day"}, {"/planned_id", "planned_pass"}, {"/clip_id", "clip"}}},
      {"eye_score", "id", {{"/pass_id", "pass"}}},
  };
  return tables;
}
constexpr std::array kOfAPass{"measurement",  "reading",        "refusal",
                              "track_sample", "outline_sample", "body_brightness"};
/// Tables whose rows have names of their own; what is there already stays.
constexpr std::array kNamed{"calibration", "lens", "camera_gain"};

/// Numbers of one log, by table: to the random numbers, and back.
class Numbers {
 public:
  void add(const std::string& table, std::int64_t id, const std::string& uid) {
    uids_[table][id] = uid;
    ids_[table][uid] = id;
    highest_ = std::max(highest_, id);
  }
  [[nodiscard]] std::string uid(const std::string& table, std::int64_t id) const {
    const auto of = uids_.find(table);
    if (of == uids_.end()) return {};
    const auto found = of->second.find(id);
    return found == of->second.end() ? std::string() : found->second;
  }
  [[nodiscard]] std::optional<std::int64_t> id(const std::string& table, const std::string& uid) const {
    const auto of = ids_.find(table);
    if (of == ids_.end()) return std::nullopt;
    const auto found = of->second.find(uid);
    return found == of->second.end() ? std::nullopt : std::optional(found->second);
  }
  /// Its own where that is free, else one that no row has.
  [[nodiscard]] std::int64_t fresh(const std::string& table, std::int64_t own) const {
    return uid(table, own).empty() && own > 0 ? own : highest_ + 1;
  }

 private:
  std::map<std::string, std::map<std::int64_t, std::string>> uids_;
  std::map<std::string, std::map<std::string, std::int64_t>> ids_;
  std::int64_t highest_ = 0;
};

/// A row without what differs from log to log: other rows by their random numbers, its own number left out.
struct PortableRow {
  std::string uid;
  std::int64_t id = 0;
  std::string editor;
  double edited_s = 0.0;
  ordered_json content;
};

class Merge {
 public:
  Merge(SQLite::Database& database, fs::path folder, fs::path otherFolder)
      : database_(database), folder_(std::move(folder)), otherFolder_(std::move(otherFolder)) {
    readNumbers(kHere, here_);
    if (!otherFolder_.empty()) readNumbers(kThere, there_);
  }

  /// A row of this log as it would be told to another; none where it is not there.
  std::optional<PortableRow> rowWith(const std::string& kind, const std::string& uid) {
    const MergedTable* table = tableNamed(kind);
    if (table == nullptr) return std::nullopt;
    std::vector<PortableRow> rows = rowsOf(kHere, *table, here_);
    const auto found =
        std::find_if(rows.begin(), rows.end(), [&uid](const PortableRow& r) { return r.uid == uid; });
    return found == rows.end() ? std::nullopt : std::optional(*found);
  }
  /// Puts a version in place of a row that stands, which is kept aside.
  void put(const std::string& kind, const PortableRow& standing, ordered_json version) {
    const MergedTable& table = *tableNamed(kind);
    keepAside(table, standing);
    PortableRow row = standing;
    row.content = std::move(version);
    const double now =
        std::chrono::duration<double>(std::chrono::system_clock::now().time_since_epoch()).count();
    row.edited_s = std::max(now, standing.edited_s + kLater_s);  // clocks of two people may differ
    overtake(table, row, standing.id);
  }

  MergeCounts run() {
    for (const MergedTable& table : mergedTables()) mergeTable(table);
    for (const char* table : kNamed) {
      const std::string columns = listed(columnsOf(database_, table));
      database_.exec(
          fmt::format("INSERT OR IGNORE INTO {0} ({1}) SELECT {1} FROM other.{0}", table, columns));
    }
    bringConflicts();
    return counts_;
  }

 private:
  static const MergedTable* tableNamed(const std::string& kind) {
    const auto& all = mergedTables();
    const auto found =
        std::find_if(all.begin(), all.end(), [&kind](const MergedTable& t) { return t.name == kind; });
    return found == all.end() ? nullptr : &*found;
  }

  void readNumbers(const std::string& schema, Numbers& numbers) {
    for (const MergedTable& table : mergedTables()) {
      if (std::string(table.key) != "id") continue;
      SQLite::Statement query(database_, fmt::format("SELECT id, uid FROM {}.{}", schema, table.name));
      while (query.executeStep())
        numbers.add(table.name, query.getColumn(0).getInt64(), query.getColumn(1).getString());
    }
    SQLite::Statement clips(database_,
                            fmt::format("SELECT id, size_bytes, sha256, path FROM {}.clip", schema));
    while (clips.executeStep()) {
      const fs::path path = clips.getColumn(3).getString();
      numbers.add("clip", clips.getColumn(0).getInt64(),
                  fmt::format("{} {} {}", clips.getColumn(1).getInt64(), clips.getColumn(2).getString(),
                              path.filename().string()));
    }
  }

  std::vector<PortableRow> rowsOf(const std::string& schema, const MergedTable& table,
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
        const Pointer at(reference.at);
        if (!row.contains(at)) continue;
        ordered_json& value = row[at];
        const auto told = [&](const ordered_json& id) -> ordered_json {
          return id.is_number_integer() ? ordered_json(numbers.uid(reference.to, id.get<std::int64_t>()))
                                        : id;
        };
        if (value.is_array()) {
          for (ordered_json& one : value) one = told(one);
        } else {
          value = told(value);
        }
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

  void mergeTable(const MergedTable& table) {
    std::map<std::string, PortableRow> here;
    for (PortableRow& row : rowsOf(kHere, table, here_)) here[row.uid] = std::move(row);
    for (const PortableRow& row : rowsOf(kThere, table, there_)) {
      const auto known = here.find(row.uid);
      if (known == here.end()) {
        insert(table, row);
        ++counts_.added;
      } else if (known->second.content == row.content) {
        ++counts_.same;
      } else if (later(row, known->second)) {
        keepAside(table, known->second);
        overtake(table, row, known->second.id);
        ++counts_.overtaken;
      } else {
        keepAside(table, row);
        ++counts_.kept;
      }
    }
  }

  static bool later(const PortableRow& a, const PortableRow& b) {
    if (a.edited_s != b.edited_s) return a.edited_s > b.edited_s;
    return a.content.dump() > b.content.dump();  // the same in whichever log it is asked
  }

  void keepAside(const MergedTable& table, const PortableRow& row) {
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
  ordered_json local(const MergedTable& table, const PortableRow& row, std::int64_t id) {
    ordered_json out = row.content;
    for (const Reference& reference : table.references) {
      const Pointer at(reference.at);
      if (!out.contains(at)) continue;
      ordered_json& value = out[at];
      const auto told = [&](const ordered_json& uid) -> ordered_json {
        if (!uid.is_string()) return uid;
        const std::string text = uid.get<std::string>();
        if (text.empty()) return 0;
        if (std::string(reference.to) == "clip") return bringClip(text);
        return here_.id(reference.to, text).value_or(0);
      };
      if (value.is_array()) {
        for (ordered_json& one : value) one = told(one);
      } else {
        value = told(value);
      }
    }
    if (out.contains("doc") && std::string(table.key) == "id") out["doc"]["id"] = id;
    if (std::string(table.name) == "planned_pass" || std::string(table.key) == "id") out["id"] = id;
    if (out.contains("request") && !otherFolder_.empty()) out["request"]["clip"] = pathHere(row.id);
    out["uid"] = row.uid;
    if (!row.editor.empty()) out["editor"] = row.editor;
    out["edited_s"] = row.edited_s;
    return out;
  }

  /// As this log names a file of the other one.
  std::string named(const fs::path& there) const {
    const fs::path whole = (otherFolder_ / there).lexically_normal();
    const fs::path relative = whole.lexically_relative(folder_);
    const bool below = !relative.empty() && *relative.begin() != "..";
    return below ? relative.string() : whole.string();
  }

  /// The clip of a pass of the other log.
  std::string pathHere(std::int64_t otherPass) {
    SQLite::Statement query(database_, "SELECT request ->> 'clip' FROM other.pass WHERE id = ?");
    query.bind(1, otherPass);
    return query.executeStep() ? named(query.getColumn(0).getString()) : std::string();
  }

  std::int64_t bringClip(const std::string& uid) {
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

  void insert(const MergedTable& table, const PortableRow& row) {
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

  void overtake(const MergedTable& table, const PortableRow& row, std::int64_t id) {
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

  void bringMeasured(std::int64_t from, std::int64_t to) {
    for (const char* table : kOfAPass) {
      auto columns = columnsOf(database_, table);
      std::erase_if(columns, [](const TableColumn& c) { return c.name == "pass_id"; });
      database_.exec(
          fmt::format("INSERT INTO {0} (pass_id, {1}) SELECT {2}, {1} FROM other.{0} WHERE pass_id = {3}",
                      table, listed(columns), to, from));
    }
  }

  /// What was kept aside in the other log is kept aside here too.
  void bringConflicts() {
    database_.exec(
        "INSERT OR IGNORE INTO conflict (kind, uid, version, editor, edited_s, settled) "
        "SELECT kind, uid, version, editor, edited_s, settled FROM other.conflict");
  }

  SQLite::Database& database_;
  fs::path folder_;
  fs::path otherFolder_;
  Numbers here_;
  Numbers there_;
  MergeCounts counts_;
};

/// The other log as one of this schema, in a file that may be changed; deleted with it.
class Borrowed {
 public:
  explicit Borrowed(const fs::path& other)
      : file_(fs::temp_directory_path() / fmt::format("agile-fin-merge-{}.finlog", ::getpid())) {
    std::error_code ignored;
    fs::remove(file_, ignored);
    if (fs::is_directory(other)) {
      if (auto done = importLog(other, file_); !done) error_ = done.error();
      return;
    }
    SQLite::Database from(other.string(), SQLite::OPEN_READONLY, kPatience_ms);
    SQLite::Database to(file_.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
    SQLite::Backup backup(to, from);
    backup.executeStep();
  }
  ~Borrowed() {
    std::error_code ignored;
    fs::remove(file_, ignored);
  }
  Borrowed(const Borrowed&) = delete;
  Borrowed& operator=(const Borrowed&) = delete;
  [[nodiscard]] const fs::path& file() const { return file_; }
  [[nodiscard]] const std::optional<Error>& error() const { return error_; }

 private:
  fs::path file_;
  std::optional<Error> error_;
};

/// What a row is called.
std::string nameIn(const ordered_json& content) {
  for (const char* at : {"/doc/name", "/title", "/doc/words", "/doc/shop"}) {
    const Pointer pointer(at);
    if (content.contains(pointer) && content[pointer].is_string() &&
        !content[pointer].get<std::string>().empty())
      return content[pointer].get<std::string>();
  }
  return {};
}

std::string wordsFor(const ordered_json& value) {
  return value.is_string() ? value.get<std::string>() : value.is_null() ? std::string() : value.dump();
}

/// Where two contents differ, down to single values.
void addDifferences(const ordered_json& here, const ordered_json& kept, const std::string& at,
                    std::vector<KeptVersion::Difference>& out) {
  if (here == kept) return;
  if (!here.is_object() || !kept.is_object()) {
    out.push_back({at, wordsFor(here), wordsFor(kept)});
    return;
  }
  for (const auto& [key, value] : here.items())
    addDifferences(value, kept.value(key, ordered_json()), at.empty() || key != "doc" ? key : at, out);
  for (const auto& [key, value] : kept.items()) {
    if (!here.contains(key)) out.push_back({key, {}, wordsFor(value)});
  }
}

/// Runs on a log's database; what is thrown becomes the error.
template <class Work>
auto onDatabase(const fs::path& file, const Work& work) -> decltype(work(std::declval<SQLite::Database&>())) {
  try {
    if (const auto log = Log::open(file); !log) return tl::unexpected(log.error());
    SQLite::Database database(file.string(), SQLite::OPEN_READWRITE, kPatience_ms);
    return work(database);
  } catch (const std::exception& e) {
    return failure(ErrorCode::NotWritable,
                   fmt::format("{} could not be changed ({})", file.filename().string(), e.what()),
                   file.string());
  }
}

}  // namespace

Result<MergeCounts> mergeLogs(const fs::path& file, const fs::path& other) {
  for (const fs::path& one : {file, other}) {
    if (!fs::exists(one))
      return failure(ErrorCode::Unreadable, one.string() + ": there is no such log", "log");
  }
  try {
    const Borrowed borrowed(other);
    if (borrowed.error()) return tl::unexpected(*borrowed.error());
    for (const fs::path& one : {file, borrowed.file()}) {
      const auto log = Log::open(one);
      if (!log) return tl::unexpected(log.error());
      if (const std::string& why = (*log)->readOnlyReason(); !why.empty())
        return failure(ErrorCode::NotWritable, why, one.string());
    }
    SQLite::Database database(file.string(), SQLite::OPEN_READWRITE, kPatience_ms);
    SQLite::Statement attach(database, "ATTACH ? AS other");
    attach.bind(1, borrowed.file().string());
    attach.exec();
    SQLite::Transaction transaction(database, SQLite::TransactionBehavior::IMMEDIATE);
    const fs::path otherFolder =
        fs::is_directory(other) ? fs::absolute(other) : fs::absolute(other).parent_path();
    const MergeCounts counts = Merge(database, fs::absolute(file).parent_path(), otherFolder).run();
    transaction.commit();
    return counts;
  } catch (const std::exception& e) {
    return failure(ErrorCode::Unreadable,
                   fmt::format("{} could not be merged ({}); nothing was changed", other.string(), e.what()),
                   other.string());
  }
}

Result<std::vector<KeptVersion>> keptVersions(const fs::path& file) {
  return onDatabase(file, [&file](SQLite::Database& database) -> Result<std::vector<KeptVersion>> {
    Merge rows(database, fs::absolute(file).parent_path(), {});
    SQLite::Statement query(
        database,
        "SELECT id, kind, uid, version, editor, edited_s FROM conflict WHERE settled = 0 ORDER BY id");
    std::vector<KeptVersion> out;
    while (query.executeStep()) {
      KeptVersion one{.id = query.getColumn(0).getInt64(), .kind = query.getColumn(1).getString()};
      const auto standing = rows.rowWith(one.kind, query.getColumn(2).getString());
      if (!standing) continue;
      const ordered_json kept = ordered_json::parse(query.getColumn(3).getString(), nullptr, false);
      addDifferences(standing->content, kept, "", one.differences);
      if (one.differences.empty()) continue;
      one.name = nameIn(standing->content);
      one.editor = query.getColumn(4).isNull() ? std::string() : query.getColumn(4).getString();
      one.edited_s = query.getColumn(5).getDouble();
      out.push_back(std::move(one));
    }
    return out;
  });
}

Result<void> decideOn(const fs::path& file, std::int64_t version, bool takeIt) {
  return onDatabase(file, [&](SQLite::Database& database) -> Result<void> {
    SQLite::Transaction transaction(database, SQLite::TransactionBehavior::IMMEDIATE);
    SQLite::Statement query(database, "SELECT kind, uid, version FROM conflict WHERE id = ?");
    query.bind(1, version);
    if (!query.executeStep()) return failure(ErrorCode::BadRequest, "the log holds no such version");
    if (takeIt) {
      Merge rows(database, fs::absolute(file).parent_path(), {});
      const std::string kind = query.getColumn(0).getString();
      const auto standing = rows.rowWith(kind, query.getColumn(1).getString());
      if (!standing) return failure(ErrorCode::BadRequest, "what it is a version of is no longer there");
      rows.put(kind, *standing, ordered_json::parse(query.getColumn(2).getString()));
    }
    SQLite::Statement settle(database, "UPDATE conflict SET settled = 1 WHERE kind = ? AND uid = ?");
    settle.bind(1, query.getColumn(0).getString());
    settle.bind(2, query.getColumn(1).getString());
    settle.exec();
    transaction.commit();
    return {};
  });
}

}  // namespace fin
