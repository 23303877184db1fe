// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/day_plan.h"
#include "core/records/database.h"
#include "core/records/rows.h"

namespace fin::records {

/// A day's plan with its rack and its sheet, read from and written to a log's tables. They throw
/// SQLite::Exception and Refused; the transaction is the caller's.

DayPlan planIn(const SQLite::Database& database, const Place& place, DayId day);
/// Writes the rows in which the two differ, and no others: what could not be read, or what another window
/// changed, is in neither and stays. Refused where a row to be written is not as it was before.
void writePlan(const SQLite::Database& database, const DayPlan& before, const DayPlan& after);
/// By date, of equals by number.
std::vector<DayHead> daysIn(const SQLite::Database& database, const Place& place);
/// Out of sight with all that is its own, or back.
void hideDay(const SQLite::Database& database, DayId day, bool hidden);

}  // namespace fin::records
