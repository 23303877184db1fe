// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/clip_fingerprint.h"

extern "C" {
#include <libavutil/hash.h>
#include <libavutil/mem.h>
}

#include <fmt/chrono.h>
#include <array>
#include <chrono>
#include <fstream>
#include <memory>
#include <vector>

namespace fin {
namespace {

constexpr std::uintmax_t kStretch_bytes = 1U << 20U;

struct FreeHash {
  void operator()(AVHashContext* c) const { av_hash_freep(&c); }
};
using Hash = std::unique_ptr<AVHashContext, FreeHash>;

Hash startHash() {
  AVHashContext* raw = nullptr;
  if (av_hash_alloc(&raw, "SHA256") < 0) return nullptr;
  av_hash_init(raw);
  return Hash(raw);
}

void addText(AVHashContext& hash, const std::string& text) {
  av_hash_update(&hash, reinterpret_cast<const std::uint8_t*>(text.data()), text.size());
}

std::string inFigures(AVHashContext& hash) {
  std::array<std::uint8_t, 2 * AV_HASH_MAX_SIZE + 1> hex{};
  av_hash_final_hex(&hash, hex.data(), static_cast<int>(hex.size()));
  return reinterpret_cast<const char*>(hex.data());
}

}  // namespace

Result<ClipFingerprint> fingerprintOf(const std::filesystem::path& path) {
  std::error_code failed;
  const std::uintmax_t size = std::filesystem::file_size(path, failed);
  std::ifstream file(path, std::ios::binary);
  const Hash hash = startHash();
  if (failed || !file || !hash) {
    return failure(ErrorCode::Unreadable, path.filename().string() + ": the file cannot be read",
                   path.string());
  }
  addText(*hash, std::to_string(size));
  std::string stretch(static_cast<std::size_t>(std::min(size, kStretch_bytes)), '\0');
  const std::uintmax_t room = size - stretch.size();
  for (const std::uintmax_t from : {std::uintmax_t{0}, room / 2, room}) {
    file.seekg(static_cast<std::streamoff>(from));
    file.read(stretch.data(), static_cast<std::streamsize>(stretch.size()));
    addText(*hash, stretch);
  }
  return ClipFingerprint{size, inFigures(*hash)};
}

Result<std::string> sha256Of(const std::filesystem::path& path) {
  std::ifstream file(path, std::ios::binary);
  const Hash hash = startHash();
  std::string part(kStretch_bytes, '\0');
  while (file && hash) {
    file.read(part.data(), static_cast<std::streamsize>(part.size()));
    av_hash_update(hash.get(), reinterpret_cast<const std::uint8_t*>(part.data()),
                   static_cast<std::size_t>(file.gcount()));
  }
  if (!hash || !file.eof())
    return failure(ErrorCode::Unreadable, path.filename().string() + ": the file cannot be read",
                   path.string());
  return inFigures(*hash);
}

std::string dayOf(const std::filesystem::path& file) {
  std::error_code failed;
  const auto written = std::filesystem::last_write_time(file, failed);
  if (failed) return {};
  const std::time_t seconds =
      std::chrono::system_clock::to_time_t(std::chrono::time_point_cast<std::chrono::system_clock::duration>(
          std::chrono::file_clock::to_sys(written)));
  return fmt::format("{:%Y-%m-%d}", fmt::localtime(seconds));
}

}  // namespace fin
