// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <filesystem>

#include "core/units/result.h"

namespace fin {

struct MergeCounts {
  std::size_t same = 0;       ///< rows that both logs have alike
  std::size_t added = 0;      ///< that were in the other log alone
  std::size_t overtaken = 0;  ///< that were changed in both, the other one later: it stands here now
  std::size_t kept = 0;       ///< that were changed in both, this one later
};

/// Brings all that another log holds into this one. Rows are known as the same by their random number,
/// whatever their number is in either log. Of a row that differs the one that was changed later stands, and
/// the other is kept as a conflict; nothing is lost. The order of merging does not matter, and doing it again
/// changes nothing. The other log stays as it is; an export folder does as well. Passes that only the other
/// log has come with what was measured of them. Errors: as Log.
Result<MergeCounts> mergeLogs(const std::filesystem::path& log, const std::filesystem::path& other);

}  // namespace fin
