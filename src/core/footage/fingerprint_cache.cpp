// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/fingerprint_cache.h"

namespace fin {

Result<ClipFingerprint> FingerprintCache::of(const std::filesystem::path& file) {
  std::error_code failed;
  const auto size = std::filesystem::file_size(file, failed);
  const auto written =
      failed ? std::filesystem::file_time_type{} : std::filesystem::last_write_time(file, failed);
  const auto known = known_.find(file);
  if (!failed && known != known_.end() && known->second.size_bytes == size &&
      known->second.written == written)
    return known->second.fingerprint;
  auto fingerprint = fingerprintOf(file);
  if (fingerprint && !failed) known_.insert_or_assign(file, Known{size, written, *fingerprint});
  return fingerprint;
}

}  // namespace fin
