// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/units/whole_folder.h"

#include <utility>

#include "core/units/whole_file.h"

namespace fin {
namespace {

namespace fs = std::filesystem;

tl::unexpected<Error> folderRefused(const fs::path& folder, const std::string& why) {
  return failure(ErrorCode::NotWritable, folder.string() + " cannot be written: " + why, folder.string());
}

}  // namespace

Result<WholeFolder> WholeFolder::begin(const fs::path& folder) {
  std::error_code failed;
  if (fs::exists(folder, failed) && !(fs::is_directory(folder, failed) && fs::is_empty(folder, failed)))
    return folderRefused(folder, "something is there already; choose another name");
  fs::path part = folder.lexically_normal();
  if (!part.has_filename()) part = part.parent_path();
  part += partMark();
  if (!fs::create_directory(part, failed))
    return folderRefused(folder, failed ? failed.message() : "its place cannot be cleared");
  return WholeFolder(folder, std::move(part));
}

WholeFolder::WholeFolder(WholeFolder&& other) noexcept
    : folder_(std::move(other.folder_)), part_(std::exchange(other.part_, {})) {}

WholeFolder::~WholeFolder() {
  std::error_code ignored;
  if (!part_.empty()) fs::remove_all(part_, ignored);
}

Result<void> WholeFolder::keep() {
  std::error_code failed;
  if (fs::is_directory(folder_, failed)) fs::remove(folder_, failed);
  fs::rename(part_, folder_, failed);
  if (failed) return folderRefused(folder_, failed.message());
  part_.clear();
  return {};
}

}  // namespace fin
