// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "core/units/result.h"

namespace fin {

/// A row that somebody took out of sight.
struct TakenOut {
  std::string kind;  ///< "model", "rig", "day", "pass", …
  std::string uid;
  std::string name;    ///< empty where it has none
  std::string editor;  ///< empty where it was not said
  double edited_s = 0.0;
};
/// All that is out of sight, what was taken out last first. Errors: as Log.
Result<std::vector<TakenOut>> takenOut(const std::filesystem::path& log);
/// Brings one of them back, and what it is of, where that is out of sight too: a rig's model, a pass's day.
/// Errors: as Log; BadRequest where there is no such row.
Result<void> bringBack(const std::filesystem::path& log, const TakenOut& row);

/// A new log without what was taken out, without tracks (readings stay) and without versions that were kept
/// aside. The log itself stays as it is. Errors: as Log; NotWritable where the new file is there already.
Result<void> thinCopy(const std::filesystem::path& log, const std::filesystem::path& to);

/// Who changes this copy of the log, as it stands beside every change from now on; empty where nobody said.
/// Errors: as Log.
Result<std::string> editorOf(const std::filesystem::path& log);
Result<void> sayEditor(const std::filesystem::path& log, const std::string& name);

}  // namespace fin
