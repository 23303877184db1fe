// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>

#include "app/models/day_desk.h"
#include "core/planning/rack_csv.h"

namespace fin::app {

// Sheets for a clipboard or a wall, A4, as PDF. NotWritable with the file's name where that fails.

Result<void> printPassSheet(const DayDesk& desk, const QString& file);
Result<void> printCautions(const QString& file);
/// The pass sheet as a table for other programs.
CsvTable passSheetTable(const DayDesk& desk);

}  // namespace fin::app
