// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/pass_sheet.h"

namespace fin {

/// The rest of a sheet with `passes` more blocks of these rigs alone: passes of other rigs that were not made
/// yet are skipped, with the reason as a note; control passes stay. The new blocks take in what is still
/// planned of these rigs, and come after all others, in an order drawn anew. Numbers of new passes go on from
/// `freeId`. Errors: BadRequest without rigs, passes or tasks.
Result<std::vector<PlannedPass>> replanned(const std::vector<PlannedPass>& sheet,
                                           const std::vector<RigId>& rigs, std::size_t passes,
                                           const SheetOptions& options, std::int64_t freeId);

}  // namespace fin
