// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "core/planning/rack.h"
#include "core/units/result.h"

namespace fin {

/// A table out of a CSV file: separator (comma, semicolon, tab or bar) found by which gives the most even
/// rows.
struct CsvTable {
  char separator = ',';
  std::vector<std::string> heads;
  std::vector<std::vector<std::string>> rows;
};

/// UTF-8 or UTF-16, with or without a byte order mark, else Latin-1; LF or CR LF, quotes as in RFC 4180.
/// BadRequest where nothing can be read, or where a quote is opened and never closed.
Result<CsvTable> readCsv(std::string_view bytes);
/// Commas, quotes where needed, LF. A cell that a spreadsheet would take for a formula gets an apostrophe
/// before it, which readCsv takes off again.
std::string writeCsv(const CsvTable& table);

/// A head may name the unit of its numbers: "Weight (oz)", "length_in", "Hook, g".
/// Which column of a table holds which field (by RackField::name); guessed from the heads, to be corrected by
/// the person.
using ColumnMap = std::map<std::string, std::size_t>;
ColumnMap guessColumns(const CsvTable& table);

struct BadLine {
  std::size_t line = 0;  ///< of the file, the heads being 1
  std::string why;
};
struct RackImport {
  Rack rack;  ///< the rack given, with what was read added
  std::size_t added = 0;
  std::vector<BadLine> bad;
};
/// Adds models and rigs to a rack. Lines of one model name become rigs of one model. A line that cannot be
/// meant is named and left out; the others go on. Decimal commas and points are both taken. Errors:
/// BadRequest where no column holds the model's name.
Result<RackImport> importRack(const Rack& rack, const CsvTable& table, const ColumnMap& columns);

/// One line per rig, its columns in the order of rackFields() (a model without a rig has one line of its
/// own).
CsvTable exportRack(const Rack& rack);

}  // namespace fin
