// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/exchange.
#pragma once

#include <filesystem>
#include <string>

namespace fin {

/// A file as a document in a folder calls it: relative where it lies below it.
inline std::string relativeName(const std::filesystem::path& file, const std::filesystem::path& folder) {
  const std::filesystem::path relative = file.lexically_relative(folder);
  const bool below = !relative.empty() && *relative.begin() != "..";
  return (below ? relative : file).generic_string();
}

}  // namespace fin
