// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/log_folder.h"

#include <csv.h>
#include <fmt/format.h>

#include <array>
#include <charconv>
#include <fstream>
#include <map>

#include "core/footage/clip_fingerprint.h"
#include "core/records/database.h"
#include "core/records/log.h"
#include "core/records/schema.h"
#include "core/records/table_rows.h"
#include "core/units/whole_file.h"

namespace fin {
namespace {

namespace fs = std::filesystem;
using namespace records;
using nlohmann::ordered_json;

constexpr int kFirstExported = 10;  ///< later ones only have more tables
constexpr const char* kFormat = "agile-fin-log/1";
constexpr const char* kManifest = "manifest.json";
constexpr const char* kClips = "clips";
constexpr std::size_t kPart_bytes = 1U << 16U;

/// What stops an export or import; becomes its error.
struct Stopped {
  Error error;
};
[[noreturn]] void stop(ErrorCode code, const std::string& message, const fs::path& where) {
  throw Stopped{{code, message, where.string()}};
}

std::string fileOf(const TableSpec& table) {
  return std::string(table.name) + (table.many ? ".csv" : ".json");
}

// --- out ------------------------------------------------------------------------------------------------

std::string cellOf(const SQLite::Column& cell) {
  if (cell.isNull()) return {};
  if (cell.isInteger()) return std::to_string(cell.getInt64());
  if (cell.isFloat()) return fmt::format("{}", cell.getDouble());
  const std::string text = cell.getString();
  std::string out(2 * text.size() + 2, '\0');
  out.resize(csv_write(out.data(), out.size(), text.data(), text.size()));
  return out;
}

std::size_t writeTable(const SQLite::Database& database, const TableSpec& table, const fs::path& file) {
  const auto columns = columnsOf(database, table.name);
  SQLite::Statement query(
      database, fmt::format("SELECT {} FROM {} ORDER BY {}", listed(columns), table.name, table.order));
  std::ofstream out(file, std::ios::binary);
  std::size_t rows = 0;
  if (table.many) {
    for (std::size_t i = 0; i < columns.size(); ++i) out << (i > 0 ? "," : "") << columns[i].name;
    out << '\n';
  } else {
    out << "[";
  }
  for (; query.executeStep(); ++rows) {
    if (!table.many) {
      out << (rows > 0 ? ",\n" : "\n")
          << rowIn(query, columns).dump(-1, ' ', false, ordered_json::error_handler_t::replace);
      continue;
    }
    for (std::size_t i = 0; i < columns.size(); ++i)
      out << (i > 0 ? "," : "") << cellOf(query.getColumn(static_cast<int>(i)));
    out << '\n';
  }
  if (!table.many) out << "\n]\n";
  out.flush();
  if (!out) stop(ErrorCode::NotWritable, fmt::format("{} could not be written", file.string()), file);
  return rows;
}

void copyClips(const SQLite::Database& database, const fs::path& beside, const fs::path& folder,
               LogCounts& counts) {
  fs::create_directories(folder / kClips);
  SQLite::Statement query(database, "SELECT path, sha256 FROM clip ORDER BY id");
  while (query.executeStep()) {
    const fs::path from = beside / query.getColumn(0).getString();
    const fs::path to =
        folder / kClips / (query.getColumn(1).getString().substr(0, 12) + " " + from.filename().string());
    std::error_code failed;
    fs::copy_file(from, to, fs::copy_options::skip_existing, failed);
    const auto known = failed ? tl::unexpected(Error{}) : fingerprintOf(to);
    ++(known && known->sha256 == query.getColumn(1).getString() ? counts.clips : counts.missingClips);
  }
}

/// Empty or not there yet, or an earlier export.
void checkFolder(const fs::path& folder) {
  if (fs::exists(folder) && !fs::is_directory(folder))
    stop(ErrorCode::NotWritable, folder.string() + ": this is not a folder", folder);
  fs::create_directories(folder);
  if (!fs::is_empty(folder) && !fs::exists(folder / kManifest))
    stop(ErrorCode::NotWritable, folder.string() + ": this folder holds something else; name a new one",
         folder);
  fs::remove(folder / kManifest);
}

// --- in -------------------------------------------------------------------------------------------------

ordered_json readJson(const fs::path& file) {
  std::ifstream in(file, std::ios::binary);
  ordered_json out = ordered_json::parse(in, nullptr, false);
  if (out.is_discarded())
    stop(ErrorCode::Unreadable, fmt::format("{} cannot be read", file.filename().string()), file);
  return out;
}

/// A file is as the manifest says.
void checkFile(const fs::path& folder, const ordered_json& listed) {
  const fs::path file = folder / listed.at("name").get<std::string>();
  if (!fs::is_regular_file(file))
    stop(ErrorCode::Unreadable, fmt::format("{} is missing; nothing was taken in", file.filename().string()),
         file);
  const auto sha = sha256Of(file);
  if (!sha || *sha != listed.at("sha256").get<std::string>())
    stop(ErrorCode::Unreadable,
         fmt::format("{} was changed since it was exported; nothing was taken in", file.filename().string()),
         file);
}

/// Reads CSV row by row into a statement.
class CsvIntoTable {
 public:
  CsvIntoTable(SQLite::Statement& insert, std::vector<TableColumn> columns)
      : insert_(insert), columns_(std::move(columns)) {}

  std::size_t read(const fs::path& file) {
    csv_parser parser;
    csv_init(&parser, CSV_APPEND_NULL | CSV_EMPTY_IS_NULL);
    std::ifstream in(file, std::ios::binary);
    std::string part(kPart_bytes, '\0');
    const auto field = [](void* data, std::size_t size, void* to) {
      static_cast<CsvIntoTable*>(to)->cell(static_cast<const char*>(data), size);
    };
    const auto line = [](int, void* to) { static_cast<CsvIntoTable*>(to)->row(); };
    while (in) {
      in.read(part.data(), static_cast<std::streamsize>(part.size()));
      csv_parse(&parser, part.data(), static_cast<std::size_t>(in.gcount()), field, line, this);
    }
    csv_fini(&parser, field, line, this);
    csv_free(&parser);
    return rows_;
  }

 private:
  void cell(const char* data, std::size_t size) {
    const std::size_t i = at_++;
    if (heads_ || i >= columns_.size() || data == nullptr) return;
    const int place = static_cast<int>(i) + 1;
    if (columns_[i].type == "TEXT") return insert_.bind(place, std::string(data, size));
    if (columns_[i].type == "INTEGER") {
      std::int64_t number = 0;
      std::from_chars(data, data + size, number);
      return insert_.bind(place, number);
    }
    double number = 0.0;
    std::from_chars(data, data + size, number);
    insert_.bind(place, number);
  }
  void row() {
    at_ = 0;
    if (std::exchange(heads_, false)) return;
    insert_.exec();
    insert_.reset();
    insert_.clearBindings();
    ++rows_;
  }

  SQLite::Statement& insert_;
  std::vector<TableColumn> columns_;
  std::size_t at_ = 0;
  std::size_t rows_ = 0;
  bool heads_ = true;
};

std::size_t readTable(const SQLite::Database& database, const TableSpec& table, const fs::path& file) {
  const auto columns = columnsOf(database, table.name);
  SQLite::Statement insert(database, fmt::format("INSERT INTO {} ({}) VALUES ({})", table.name,
                                                 listed(columns), placesFor(columns)));
  if (table.many) return CsvIntoTable(insert, columns).read(file);
  const ordered_json rows = readJson(file);
  for (const ordered_json& row : rows) {
    bindRow(insert, columns, row);
    insert.exec();
    insert.reset();
    insert.clearBindings();
  }
  return rows.size();
}

void readFolder(const fs::path& folder, const fs::path& file, LogCounts& counts) {
  const fs::path at = folder / kManifest;
  if (!fs::is_regular_file(at))
    stop(ErrorCode::Unreadable,
         folder.string() + ": there is no manifest.json; this is no export of a log, or only half of one",
         at);
  const ordered_json manifest = readJson(at);
  if (manifest.value("format", "") != kFormat)
    stop(ErrorCode::Unreadable, "manifest.json: this is no export of a log (agile-fin-log/1)", at);
  const int version = manifest.at("schema").get<int>();
  if (version < kFirstExported || version > currentVersion())
    stop(ErrorCode::Unreadable,
         fmt::format("this export is of log version {}, and this program takes in versions {} to {}", version,
                     kFirstExported, currentVersion()),
         at);
  for (const ordered_json& listed : manifest.at("files")) checkFile(folder, listed);
  SQLite::Database database(file.string(), SQLite::OPEN_READWRITE, kPatience_ms);
  SQLite::Transaction transaction(database);
  for (const TableSpec& table : tablesOfALog()) {
    if (!fs::exists(folder / fileOf(table))) continue;
    counts.rows += readTable(database, table, folder / fileOf(table));
    ++counts.files;
  }
  transaction.commit();
}

}  // namespace

Result<LogCounts> exportLog(const fs::path& file, const fs::path& folder, const ExportOptions& options) {
  if (!fs::is_regular_file(file))
    return failure(ErrorCode::Unreadable, file.string() + ": there is no such log", "log");
  // Brings an older log to this schema, and says what is no log.
  if (const auto log = Log::open(file); !log) return tl::unexpected(log.error());
  LogCounts counts;
  try {
    checkFolder(folder);
    const SQLite::Database database(file.string(), SQLite::OPEN_READONLY, kPatience_ms);
    ordered_json manifest{{"format", kFormat}, {"schema", versionOf(database)}};
    ordered_json& files = manifest["files"] = ordered_json::array();
    for (const TableSpec& table : tablesOfALog()) {
      const fs::path to = folder / fileOf(table);
      const std::size_t rows = writeTable(database, table, to);
      const auto sha = sha256Of(to);
      if (!sha) return tl::unexpected(sha.error());
      files.push_back({{"name", fileOf(table)}, {"rows", rows}, {"sha256", *sha}});
      counts.rows += rows;
      ++counts.files;
    }
    if (options.copyClips) copyClips(database, fs::absolute(file).parent_path(), folder, counts);
    if (auto done = writeWhole(folder / kManifest, manifest.dump(1) + "\n"); !done)
      return tl::unexpected(done.error());
  } catch (const Stopped& stopped) {
    return tl::unexpected(stopped.error);
  } catch (const std::exception& e) {
    return failure(ErrorCode::NotWritable,
                   fmt::format("{} could not be exported ({})", file.filename().string(), e.what()),
                   file.string());
  }
  return counts;
}

Result<LogCounts> importLog(const fs::path& folder, const fs::path& file) {
  std::error_code ignored;
  if (fs::exists(file, ignored))
    return failure(ErrorCode::NotWritable, file.string() + ": there is such a file already; name a new log",
                   file.string());
  LogCounts counts;
  try {
    if (const auto log = Log::open(file); !log) return tl::unexpected(log.error());
    readFolder(folder, file, counts);
  } catch (const Stopped& stopped) {
    fs::remove(file, ignored);
    return tl::unexpected(stopped.error);
  } catch (const std::exception& e) {
    fs::remove(file, ignored);
    return failure(ErrorCode::Unreadable,
                   fmt::format("{} could not be taken in ({})", folder.string(), e.what()), folder.string());
  }
  if (fs::is_directory(folder / kClips, ignored)) {
    const auto found = findClips(file, folder / kClips);
    if (!found) return found;
    counts.clips = found->clips;
    counts.missingClips = found->missingClips;
  }
  return counts;
}

Result<LogCounts> findClips(const fs::path& file, const fs::path& folder) {
  std::error_code failed;
  std::multimap<std::uintmax_t, fs::path> bySize;
  for (auto at =
           fs::recursive_directory_iterator(folder, fs::directory_options::skip_permission_denied, failed);
       !failed && at != fs::recursive_directory_iterator(); at.increment(failed)) {
    if (at->is_regular_file(failed)) bySize.emplace(at->file_size(failed), at->path());
  }
  if (failed)
    return failure(ErrorCode::Unreadable, folder.string() + ": this folder cannot be read", folder.string());
  auto log = Log::open(file);
  if (!log) return tl::unexpected(log.error());
  const auto passes = (*log)->passes();
  if (!passes) return tl::unexpected(passes.error());
  LogCounts counts;
  std::vector<PassChange> changes;
  for (const LoggedPass& pass : *passes) {
    if (fs::exists(pass.request.clip, failed)) continue;
    const auto [from, to] = bySize.equal_range(pass.clip.size_bytes);
    const auto found = std::find_if(from, to, [&pass](const auto& one) {
      const auto known = fingerprintOf(one.second);
      return known && *known == pass.clip;
    });
    if (found == to) {
      ++counts.missingClips;
      continue;
    }
    ++counts.clips;
    LoggedPass after = pass;
    after.request.clip = found->second;
    changes.push_back({pass, std::move(after)});
  }
  if (auto done = (*log)->changePasses(changes); !done) return tl::unexpected(done.error());
  return counts;
}

}  // namespace fin
