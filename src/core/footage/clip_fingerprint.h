// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <filesystem>
#include <string>

#include "core/units/result.h"

namespace fin {

/// By what a file is known again when it was moved, and noticed when it was changed: its size, and SHA-256
/// over its size and three stretches of a mebibyte (head, middle, tail), so that an hour of footage takes
/// milliseconds. Two clips of a camera differ in these; a change only elsewhere in a long file would be
/// missed.
struct ClipFingerprint {
  std::uintmax_t size_bytes = 0;
  std::string sha256;

  friend bool operator==(const ClipFingerprint&, const ClipFingerprint&) = default;
};

/// Errors: Unreadable with the file's name.
Result<ClipFingerprint> fingerprintOf(const std::filesystem::path& file);

/// SHA-256 over the whole of a file, in hexadecimal figures. Errors: as above.
Result<std::string> sha256Of(const std::filesystem::path& file);

/// The day on which a file was last written, by the clock of this place: yyyy-mm-dd. Empty where there is
/// none.
std::string dayOf(const std::filesystem::path& file);

}  // namespace fin
