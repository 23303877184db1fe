// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/log_merge.h"

#include <SQLiteCpp/Backup.h>
#include <SQLiteCpp/SQLiteCpp.h>
#include <unistd.h>

#include <fmt/format.h>

#include <array>
#include <optional>

#include "core/records/database.h"
#include "core/records/log.h"
#include "core/records/log_folder.h"
#include "core/records/portable_rows.h"
#include "core/records/table_rows.h"

namespace fin {
namespace {

namespace fs = std::filesystem;
using namespace records;

/// Tables whose rows have names of their own; what is there already stays.
constexpr std::array kNamed{"calibration", "lens", "camera_gain"};

class Merge {
 public:
  Merge(SQLite::Database& database, fs::path folder, fs::path otherFolder)
      : database_(database), rows_(database, std::move(folder), std::move(otherFolder)) {}

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
  void mergeTable(const MergedTable& table) {
    std::map<std::string, PortableRow> here;
    for (PortableRow& row : rows_.here(table)) here[row.uid] = std::move(row);
    for (const PortableRow& row : rows_.there(table)) {
      const auto known = here.find(row.uid);
      if (known == here.end()) {
        rows_.insert(table, row);
        ++counts_.added;
      } else if (known->second.content == row.content) {
        ++counts_.same;
      } else if (later(row, known->second)) {
        rows_.keepAside(table, known->second);
        rows_.overtake(table, row, known->second.id);
        ++counts_.overtaken;
      } else {
        rows_.keepAside(table, row);
        ++counts_.kept;
      }
    }
  }

  static bool later(const PortableRow& a, const PortableRow& b) {
    if (a.edited_s != b.edited_s) return a.edited_s > b.edited_s;
    return a.content.dump() > b.content.dump();  // the same in whichever log it is asked
  }

  /// What was kept aside in the other log is kept aside here too.
  void bringConflicts() {
    database_.exec(
        "INSERT OR IGNORE INTO conflict (kind, uid, version, editor, edited_s, settled) "
        "SELECT kind, uid, version, editor, edited_s, settled FROM other.conflict");
  }

  SQLite::Database& database_;
  PortableRows rows_;
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

}  // namespace fin
