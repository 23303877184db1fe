// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/index_store.h"

#include <fstream>

namespace fin {
namespace {

namespace fs = std::filesystem;

fs::path placeOf(const fs::path& folder, const ClipFingerprint& print) {
  return folder / (print.sha256 + ".index");
}

}  // namespace

std::optional<ClipIndex> keptIndex(const fs::path& folder, const ClipFingerprint& print) {
  std::ifstream file(placeOf(folder, print), std::ios::binary);
  return file ? ClipIndex::readFrom(file) : std::nullopt;
}

Result<void> keepIndex(const fs::path& folder, const ClipFingerprint& print, const ClipIndex& index) {
  const fs::path place = placeOf(folder, print);
  fs::path part = place;
  part += ".part";
  std::error_code failed;
  fs::create_directories(folder, failed);
  {
    std::ofstream file(part, std::ios::binary);
    index.writeTo(file);
    file.close();
    if (!file) {
      fs::remove(part, failed);
      return failure(ErrorCode::NotWritable,
                     "this clip's index could not be kept in " + folder.string() +
                         " (is the disk full?); opening it will take as long the next time",
                     place.string());
    }
  }
  fs::rename(part, place, failed);
  if (failed)
    return failure(ErrorCode::NotWritable, place.string() + ": " + failed.message(), place.string());
  return {};
}

}  // namespace fin
