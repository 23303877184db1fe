// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <filesystem>
#include <map>

#include "core/footage/clip_fingerprint.h"

namespace fin {

/// Fingerprints of files that are asked for again and again: a file is read anew only when its size or the
/// time of its last writing has changed. For use by one thread.
class FingerprintCache {
 public:
  /// Unreadable as fingerprintOf.
  Result<ClipFingerprint> of(const std::filesystem::path& file);

 private:
  struct Known {
    std::uintmax_t size_bytes = 0;
    std::filesystem::file_time_type written;
    ClipFingerprint fingerprint;
  };
  std::map<std::filesystem::path, Known> known_;
};

}  // namespace fin
