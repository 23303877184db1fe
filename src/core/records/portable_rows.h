// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/records: rows of two logs held against each other.
#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

#include <filesystem>
#include <map>
#include <nlohmann/json.hpp>
#include <optional>
#include <string>
#include <vector>

namespace fin::records {

/// A number in a row that is another row's.
struct Reference {
  std::string at;  ///< where in the row; "*" stands for each of a list
  const char* to;  ///< table
};
/// A table whose rows are known by their random numbers.
struct MergedTable {
  const char* name;
  const char* key;  ///< column of its own number
  std::vector<Reference> references;
};
/// In an order in which each refers to earlier ones only.
const std::vector<MergedTable>& mergedTables();
/// Null where there is none of that name.
const MergedTable* mergedTableNamed(const std::string& kind);

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
  nlohmann::ordered_json content;
};

/// What a row is called; empty where it has no name.
std::string nameIn(const nlohmann::ordered_json& content);

/// The rows of a log, and of another one that is attached to it as "other", without what differs from log to
/// log. Throws SQLite::Exception.
class PortableRows {
 public:
  /// Of the log alone where `otherFolder` is empty.
  PortableRows(SQLite::Database& database, std::filesystem::path folder, std::filesystem::path otherFolder);

  [[nodiscard]] std::vector<PortableRow> here(const MergedTable& table);
  [[nodiscard]] std::vector<PortableRow> there(const MergedTable& table);
  /// A row of this log; none where it is not there.
  std::optional<PortableRow> rowWith(const std::string& kind, const std::string& uid);
  /// Puts a version in place of a row that stands, which is kept aside.
  void put(const std::string& kind, const PortableRow& standing, nlohmann::ordered_json version);
  /// Keeps a version of a row as a conflict.
  void keepAside(const MergedTable& table, const PortableRow& row);
  /// Brings in a row that only the other log has, with what was measured of a pass.
  void insert(const MergedTable& table, const PortableRow& row);
  /// Writes a version over the row of this log with that number.
  void overtake(const MergedTable& table, const PortableRow& row, std::int64_t id);

 private:
  void readNumbers(const std::string& schema, Numbers& numbers);
  std::vector<PortableRow> rowsOf(const std::string& schema, const MergedTable& table,
                                  const Numbers& numbers);
  nlohmann::ordered_json local(const MergedTable& table, const PortableRow& row, std::int64_t id);
  [[nodiscard]] std::string named(const std::filesystem::path& there) const;
  std::string pathHere(std::int64_t otherPass);
  std::int64_t bringClip(const std::string& uid);
  void bringMeasured(std::int64_t from, std::int64_t to);

  SQLite::Database& database_;
  std::filesystem::path folder_;
  std::filesystem::path otherFolder_;
  Numbers here_;
  Numbers there_;
};

}  // namespace fin::records
