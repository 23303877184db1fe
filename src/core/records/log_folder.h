// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <filesystem>

#include "core/units/result.h"

namespace fin {

struct ExportOptions {
  bool copyClips = false;  ///< into the folder's `clips`
};

/// What was written or taken in.
struct LogCounts {
  std::size_t files = 0;
  std::size_t rows = 0;
  std::size_t clips = 0;         ///< copied or found
  std::size_t missingClips = 0;  ///< that could not be copied, or found
};

/// Writes a whole log as a folder, `agile-fin-log/1`: a JSON document for each kind of row, CSV for readings
/// and tracks, and a manifest with the schema's number, counts and SHA-256, written last. Numbers to the last
/// bit, unknown keys kept; clips by size and hash, or copied. Exported, imported and exported again it is the
/// same, byte for byte. Errors: Unreadable for what is no log, NotWritable where the folder holds something
/// else or cannot be written.
Result<LogCounts> exportLog(const std::filesystem::path& log, const std::filesystem::path& folder,
                            const ExportOptions& options = {});

/// Makes a new log of such a folder; clips that lie in it are found. Errors: Unreadable where a file is
/// missing or is not as it was written (it is named), NotWritable where the log is there already. Nothing is
/// left of a log that failed.
Result<LogCounts> importLog(const std::filesystem::path& folder, const std::filesystem::path& log);

/// Looks below a folder for clips that are not where the log says, and known again by size and fingerprint;
/// the log names them there from now on. Errors as Log.
Result<LogCounts> findClips(const std::filesystem::path& log, const std::filesystem::path& folder);

}  // namespace fin
