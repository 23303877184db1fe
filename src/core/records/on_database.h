// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/records: work on a log's file beside the connection of a window.
#pragma once

#include <SQLiteCpp/SQLiteCpp.h>
#include <fmt/format.h>

#include <filesystem>

#include "core/records/database.h"
#include "core/records/log.h"

namespace fin::records {

/// Runs on a log's database; what is thrown becomes the error.
template <class Work>
auto onDatabase(const std::filesystem::path& file, const Work& work)
    -> decltype(work(std::declval<SQLite::Database&>())) {
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

}  // namespace fin::records
