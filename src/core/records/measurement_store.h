// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/records/database.h"
#include "core/records/log.h"
#include "core/records/rows.h"

namespace fin::records {

/// What passes gave, read from and written to a log's tables. They throw SQLite::Exception and Refused; the
/// transaction is the caller's.

enum class With { ReadingsAlone, TheTrack };

/// Null where nothing was measured. Unreadable where the record is damaged.
Result<std::shared_ptr<const Measurement>> measurementIn(const SQLite::Database& database, const Place& place,
                                                         PassId pass, With with);
/// In place of what was measured before.
void writeMeasurement(const SQLite::Database& database, const Place& place, PassId pass,
                      const Measurement& measurement);

}  // namespace fin::records
