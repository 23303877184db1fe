// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

#include "core/comparison/score_table.h"

namespace fin {

/// All readings of a day's passes with what was refused, by pass; and the rigs as they are judged. JSON,
/// `agile-fin-passes/1`.
std::string writePasses(const std::string& day, const std::vector<Entry>& entries,
                        const std::vector<ComparedPass>& passes);

/// The same readings as rows for a table: rig, pass, protocol, reading, value, unit, u95, n, grade, notes.
/// What was refused has no value, and why in its notes.
struct ReadingRows {
  std::vector<std::string> heads;
  std::vector<std::vector<std::string>> rows;
};
ReadingRows rowsOf(const std::vector<ComparedPass>& passes);

}  // namespace fin
