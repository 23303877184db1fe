// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <memory>
#include <string>

#include "core/records/log.h"

namespace fin {

/// The demo's log, ready to be opened, and what the person should know of it.
struct DemoPlace {
  std::filesystem::path log;
  std::string forLookingOnly;  ///< why nothing can be kept; empty where it can
  std::string note;            ///< an older demo beside it, clips that are missing; empty where all is well
};

/// Makes a log of one's own of the demo that comes with the program (`shipped`: its exported log, with its
/// clips in `clips`), or finds the one made before. It lies in `keepIn` under a name that says which edition
/// it is, so that an older one with all that was done in it stays as it is; where `keepIn` cannot be written
/// it goes to `temporary`, for looking only. Clips are not copied. Nothing half made stays behind. Errors:
/// Unreadable with the file that is missing or changed, NotWritable where neither place can be written.
Result<DemoPlace> placeDemo(const std::filesystem::path& shipped, const std::filesystem::path& keepIn,
                            const std::filesystem::path& temporary);

Result<std::unique_ptr<Log>> openDemo(const DemoPlace& place);

/// Writes a demo that was made (its log's folder) as it is shipped. Errors as exportLog.
Result<void> shipDemo(const std::filesystem::path& log, const std::filesystem::path& shipped);

}  // namespace fin
