// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/records: rows that may be damaged one by one.
#pragma once

#include <filesystem>
#include <map>
#include <string>

namespace fin::records {

/// Where a log lies, and what of it could not be read: the stores' common ground.
struct Place {
  std::filesystem::path folder;                    ///< clips are named relative to it
  std::map<std::string, std::string>* unreadable;  ///< by the row's name, with the reason

  void note(const std::string& what, const std::string& why) const {
    unreadable->insert_or_assign(what, why);
  }
  void clear(const std::string& what) const { unreadable->erase(what); }
};

}  // namespace fin::records
