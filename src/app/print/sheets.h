// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>

#include "app/controllers/day_controller.h"
#include "core/calibration/lens_board.h"
#include "core/exchange/rack_csv.h"

namespace fin::app {

// Sheets for a clipboard or a wall, A4, as PDF. NotWritable with the file's name where that fails.

Result<void> printPassSheet(const DayController& controller, const QString& file);
Result<void> printCautions(const QString& file);
/// The chequered board at true size, with a line of 100 mm to check the printer by. BadRequest for a board
/// that does not fit on the sheet; A3 where A4 is too small.
Result<void> printLensBoard(const LensBoard& board, const QString& file);
/// The pass sheet as a table for other programs.
CsvTable passSheetTable(const DayController& controller);

}  // namespace fin::app
