// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/footage: indexes of clips that were looked through before.
#pragma once

#include <filesystem>
#include <optional>

#include "core/footage/clip_fingerprint.h"
#include "core/footage/clip_index.h"
#include "core/units/result.h"

namespace fin {

/// The index that was kept for a file of this size and hash; none where there is none or it is not whole.
std::optional<ClipIndex> keptIndex(const std::filesystem::path& folder, const ClipFingerprint& print);

/// Written beside and put in place when whole. NotWritable (a full disk) leaves what stood before.
Result<void> keepIndex(const std::filesystem::path& folder, const ClipFingerprint& print,
                       const ClipIndex& index);

}  // namespace fin
