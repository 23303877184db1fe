// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

#include "core/comparison/compared_passes.h"
#include "core/footage/fingerprint_cache.h"
#include "core/records/log.h"
#include "core/units/ids.h"

namespace fin {

/// A pass that was measured, but whose readings are not those of the pass as it stands.
struct OutdatedPass {
  PassId id;
  std::string title;
  MeasurementState state = MeasurementState::NeedsReading;
};

/// What the passes of a day gave.
struct DayReadings {
  std::vector<ComparedPass> current;   ///< in the log's order; fouled ones are left out
  std::vector<OutdatedPass> outdated;  ///< not compared, and named
  std::size_t fouled = 0;              ///< on the sheet
};

/// Gathers the readings that count: none of a pass whose marks the program found and nobody has looked at. A
/// pass whose clip is not there now keeps its readings: they are of the file that it was made on. Errors as
/// Log.
Result<DayReadings> dayReadings(const Log& log, const DayPlan& plan, FingerprintCache& fingerprints);
/// The same over several days: blocks of one are none of another, and a rig that was tied otherwise by then
/// is another rig (Rack::nameOn); so are two pieces of one rig that a day filmed beside each other.
Result<DayReadings> readingsOver(const Log& log, const std::vector<DayPlan>& plans,
                                 FingerprintCache& fingerprints);

}  // namespace fin
