// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/index_store.h"

#include <fstream>
#include <sstream>

#include "core/units/whole_file.h"

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
  std::error_code failed;
  fs::create_directories(folder, failed);
  std::ostringstream out;
  index.writeTo(out);
  if (auto ok = writeWhole(placeOf(folder, print), out.str()); !ok)
    return failure(ErrorCode::NotWritable,
                   "this clip's index could not be kept in " + folder.string() +
                       " (is the disk full?); opening it will take as long the next time",
                   placeOf(folder, print).string());
  return {};
}

}  // namespace fin
