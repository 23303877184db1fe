// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/records/database.h"
#include "core/records/log.h"
#include "core/records/rows.h"

namespace fin::records {

/// What is kept for cameras: size and time by day, lenses, and how loud they are heard. They throw
/// SQLite::Exception and Refused; the transaction is the caller's.

std::vector<KeptCalibration> calibrationsIn(const SQLite::Database& database, const Place& place);
/// Refused where the log holds another one than `before`.
void writeCalibration(const SQLite::Database& database, const Place& place, const std::string& camera,
                      const std::string& day, const std::optional<KeptCalibration>& before,
                      const std::optional<KeptCalibration>& after);

std::vector<KeptLens> lensesIn(const SQLite::Database& database, const Place& place);
/// In place of what stood for that camera, size and window.
void writeLens(const SQLite::Database& database, const KeptLens& kept);

}  // namespace fin::records
