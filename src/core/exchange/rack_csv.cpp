// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/exchange/rack_csv.h"

#include <csv.h>

#include <fmt/format.h>
#include <algorithm>
#include <boost/locale/encoding_utf.hpp>
#include <boost/locale/utf.hpp>
#include <cstring>

#include "core/planning/rack_fields.h"
#include "core/units/typed_amount.h"

namespace fin {
namespace {

constexpr std::string_view kByteOrderMark = "\xEF\xBB\xBF";

using Rows = std::vector<std::vector<std::string>>;

struct Collector {
  Rows rows;
  std::vector<std::string> row;
};

Result<Rows> parse(std::string_view text, char separator) {
  csv_parser parser;
  if (csv_init(&parser, CSV_APPEND_NULL) != 0)
    return failure(ErrorCode::BadRequest, "no memory to read the table");
  csv_set_delim(&parser, static_cast<unsigned char>(separator));
  Collector collector;
  const auto field = [](void* data, std::size_t size, void* to) {
    static_cast<Collector*>(to)->row.emplace_back(static_cast<const char*>(data), size);
  };
  const auto line = [](int, void* to) {
    auto* c = static_cast<Collector*>(to);
    c->rows.push_back(std::move(c->row));
    c->row.clear();
  };
  const bool whole = csv_parse(&parser, text.data(), text.size(), field, line, &collector) == text.size() &&
                     csv_fini(&parser, field, line, &collector) == 0;
  csv_free(&parser);
  if (!whole) return failure(ErrorCode::BadRequest, "the table has quotes that do not match");
  return std::move(collector.rows);
}

/// Rows that have as many cells as the heads, of those with more than one.
std::size_t evenRows(const Rows& rows) {
  if (rows.empty() || rows.front().size() < 2) return 0;
  return static_cast<std::size_t>(std::count_if(
      rows.begin(), rows.end(), [&](const auto& row) { return row.size() == rows.front().size(); }));
}

/// A quote that is opened and never closed swallows the rest of the file.
constexpr std::ptrdiff_t kMostLinesInACell = 20;

Result<void> checkQuotes(const Rows& rows) {
  for (std::size_t i = 0; i < rows.size(); ++i) {
    for (const std::string& cell : rows[i]) {
      if (std::count(cell.begin(), cell.end(), '\n') <= kMostLinesInACell) continue;
      return failure(ErrorCode::BadRequest,
                     fmt::format("a quote is opened and not closed in line {}, before: {}", i + 1,
                                 cell.substr(0, cell.find_first_of("\r\n"))));
    }
  }
  return {};
}

bool isUtf8(std::string_view text) {
  namespace utf = boost::locale::utf;
  for (const char* at = text.data(); at != text.data() + text.size();) {
    const utf::code_point point = utf::utf_traits<char>::decode(at, text.data() + text.size());
    if (point == utf::illegal || point == utf::incomplete) return false;
  }
  return true;
}

/// Two bytes each, low byte first unless told otherwise.
std::string fromUtf16(std::string_view text, bool highFirst) {
  std::u16string units;
  for (std::size_t i = 0; i + 1 < text.size(); i += 2) {
    const auto first = static_cast<unsigned char>(text[i]);
    const auto second = static_cast<unsigned char>(text[i + 1]);
    units += static_cast<char16_t>(highFirst ? first << 8U | second : second << 8U | first);
  }
  return boost::locale::conv::utf_to_utf<char>(units);
}

/// Each byte is one letter.
std::string fromLatin1(std::string_view text) {
  std::u32string letters;
  for (const char c : text) letters += static_cast<char32_t>(static_cast<unsigned char>(c));
  return boost::locale::conv::utf_to_utf<char>(letters);
}

/// As UTF-8, whatever a spreadsheet has made of it.
std::string asUtf8(std::string_view text) {
  if (text.starts_with("\xFF\xFE")) return fromUtf16(text.substr(2), false);
  if (text.starts_with("\xFE\xFF")) return fromUtf16(text.substr(2), true);
  if (text.starts_with(kByteOrderMark)) text.remove_prefix(kByteOrderMark.size());
  return isUtf8(text) ? std::string(text) : fromLatin1(text);
}

/// What a spreadsheet would take for a formula, and is no number.
bool looksLikeFormula(const std::string& cell) {
  if (cell.empty() || std::strchr("=+-@\t\r", cell.front()) == nullptr) return false;
  char* end = nullptr;
  std::strtod(cell.c_str(), &end);
  return end == cell.c_str() || *end != '\0';
}

/// The mark that keeps a cell from being a formula, taken off again.
std::string withoutGuard(std::string cell) {
  if (cell.size() > 1 && cell.front() == '\'' && looksLikeFormula(cell.substr(1))) cell.erase(0, 1);
  return cell;
}

std::string plain(std::string_view head) {
  std::string out;
  for (char c : head) {
    if (std::isalnum(static_cast<unsigned char>(c)) != 0) {
      out += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    }
  }
  return out;
}

/// A column's head: "Weight (oz)" is a weight in ounces.
struct Head {
  std::string name;  ///< in small letters, without signs
  std::string unit;  ///< that numbers without one are in; empty where it names none
};

Head headOf(const RackField& field, const std::string& text) {
  const std::size_t at = text.find_last_of(" _(,[/");
  if (field.unit.empty() || at == std::string::npos) return {plain(text), {}};
  std::string unit = text.substr(at + 1);
  unit.erase(std::remove_if(unit.begin(), unit.end(), [](char c) { return c == ')' || c == ']'; }),
             unit.end());
  if (unit.empty() || !typedAmount("1 " + unit, field.unit, field.unit)) return {plain(text), {}};
  return {plain(text.substr(0, at)), unit};
}

/// A cell as its field takes it: a number of the unit that the column's head names.
std::string withUnitOf(const RackField& field, const std::string& head, const std::string& cell) {
  const std::string unit = headOf(field, head).unit;
  if (unit.empty()) return cell;
  const auto amount = typedAmount(cell, field.unit, unit);
  return amount ? fmt::format("{}", *amount) : cell;
}

/// Fills a model and a rig from one row; says what is wrong with it, or nothing.
std::string fillFrom(const CsvTable& table, const std::vector<std::string>& row, const ColumnMap& columns,
                     Model& model, Rig& rig) {
  for (const RackField& field : rackFields()) {
    const auto column = columns.find(field.name);
    if (column == columns.end()) continue;
    if (column->second >= row.size()) return fmt::format("the column {} is missing in this line", field.name);
    if (row[column->second].empty()) continue;
    const std::string cell = withUnitOf(field, table.heads[column->second], row[column->second]);
    if (auto ok = field.set(model, rig, cell); !ok) return ok.error().message;
  }
  if (model.name.empty()) return "the model has no name";
  return {};
}

bool hasOwnRig(const Rig& rig) {
  Rig bare;
  bare.id = rig.id;
  bare.model = rig.model;
  return !(rig == bare);
}

}  // namespace

Result<CsvTable> readCsv(std::string_view bytes) {
  const std::string text = asUtf8(bytes);
  Rows best;
  char separator = ',';
  std::size_t most = 0;
  for (char candidate : {',', ';', '\t', '|'}) {
    auto rows = parse(text, candidate);
    if (!rows) continue;
    const std::size_t even = evenRows(*rows);
    // The first that reads at all stands until a more even one comes.
    if (best.empty() || even > most) {
      best = std::move(*rows);
      separator = candidate;
      most = even;
    }
  }
  if (best.empty()) return failure(ErrorCode::BadRequest, "no line of this file can be read as a table");
  if (auto ok = checkQuotes(best); !ok) return tl::unexpected(ok.error());
  for (auto& row : best) {
    for (std::string& cell : row) cell = withoutGuard(std::move(cell));
  }
  CsvTable out{separator, std::move(best.front()), {}};
  out.rows.assign(std::make_move_iterator(best.begin() + 1), std::make_move_iterator(best.end()));
  return out;
}

std::string writeCsv(const CsvTable& table) {
  std::string out;
  const auto addRow = [&](const std::vector<std::string>& row) {
    for (std::size_t i = 0; i < row.size(); ++i) {
      if (i > 0) out += table.separator;
      const std::string& plain = looksLikeFormula(row[i]) ? "'" + row[i] : row[i];
      const bool quoted = plain.find_first_of(std::string("\"\r\n") + table.separator) != std::string::npos;
      if (!quoted) {
        out += plain;
        continue;
      }
      std::string cell(2 * plain.size() + 3, '\0');
      cell.resize(csv_write(cell.data(), cell.size(), plain.data(), plain.size()));
      out += cell;
    }
    out += "\n";
  };
  addRow(table.heads);
  for (const auto& row : table.rows) addRow(row);
  return out;
}

ColumnMap guessColumns(const CsvTable& table) {
  ColumnMap out;
  for (const RackField& field : rackFields()) {
    for (std::size_t i = 0; i < table.heads.size(); ++i) {
      const std::string whole = plain(table.heads[i]);
      const std::string head = headOf(field, table.heads[i]).name;
      const auto& others = field.otherHeads;
      const bool known =
          whole == plain(field.name) || std::find(others.begin(), others.end(), head) != others.end();
      if (known) {
        out.emplace(field.name, i);
        break;
      }
    }
  }
  return out;
}

Result<RackImport> importRack(const Rack& rack, const CsvTable& table, const ColumnMap& columns) {
  if (!columns.contains("model")) {
    return failure(ErrorCode::BadRequest, "say which column holds the model's name", "model");
  }
  RackImport out{rack, 0, {}};
  std::int64_t next = rack.nextId();
  std::map<std::string, ModelId> known;
  for (const Model& m : rack.models) known.emplace(m.name, m.id);
  for (std::size_t i = 0; i < table.rows.size(); ++i) {
    Model model;
    Rig rig;
    if (const std::string why = fillFrom(table, table.rows[i], columns, model, rig); !why.empty()) {
      out.bad.push_back({i + 2, why});
      continue;
    }
    const auto already = known.find(model.name);
    if (already == known.end()) {
      model.id = next++;
      model.graded = model.whyNotGraded.empty();
      known.emplace(model.name, model.id);
      rig.model = model.id;
      out.rack.models.push_back(std::move(model));
    } else {
      rig.model = already->second;
    }
    if (already == known.end() || hasOwnRig(rig)) {
      rig.id = next++;
      out.rack.rigs.push_back(std::move(rig));
    }
    ++out.added;
  }
  return out;
}

CsvTable exportRack(const Rack& rack) {
  CsvTable out;
  for (const RackField& f : rackFields()) out.heads.push_back(f.name);
  const auto add = [&](const Model& model, const Rig& rig) {
    std::vector<std::string> row;
    for (const RackField& f : rackFields()) row.push_back(f.get(model, rig));
    out.rows.push_back(std::move(row));
  };
  for (const Model& model : rack.models) {
    bool rigged = false;
    for (const Rig& rig : rack.rigs) {
      if (rig.model != model.id) continue;
      add(model, rig);
      rigged = true;
    }
    if (!rigged) add(model, {});
  }
  return out;
}

}  // namespace fin
