// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/exchange/rack_csv.h"

#include <csv.h>

#include <fmt/format.h>
#include <algorithm>

#include "core/planning/rack_fields.h"

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

std::string plain(std::string_view head) {
  std::string out;
  for (char c : head) {
    if (std::isalnum(static_cast<unsigned char>(c)) != 0) {
      out += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    }
  }
  return out;
}

/// Fills a model and a rig from one row; says what is wrong with it, or nothing.
std::string fillFrom(const std::vector<std::string>& row, const ColumnMap& columns, Model& model, Rig& rig) {
  for (const RackField& field : rackFields()) {
    const auto column = columns.find(field.name);
    if (column == columns.end()) continue;
    if (column->second >= row.size()) return fmt::format("the column {} is missing in this line", field.name);
    if (row[column->second].empty()) continue;
    if (auto ok = field.set(model, rig, row[column->second]); !ok) return ok.error().message;
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

Result<CsvTable> readCsv(std::string_view text) {
  if (text.substr(0, kByteOrderMark.size()) == kByteOrderMark) text.remove_prefix(kByteOrderMark.size());
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
  CsvTable out{separator, std::move(best.front()), {}};
  out.rows.assign(std::make_move_iterator(best.begin() + 1), std::make_move_iterator(best.end()));
  return out;
}

std::string writeCsv(const CsvTable& table) {
  std::string out;
  const auto addRow = [&](const std::vector<std::string>& row) {
    for (std::size_t i = 0; i < row.size(); ++i) {
      if (i > 0) out += table.separator;
      const bool quoted = row[i].find_first_of(std::string("\"\r\n") + table.separator) != std::string::npos;
      if (!quoted) {
        out += row[i];
        continue;
      }
      std::string cell(2 * row[i].size() + 3, '\0');
      cell.resize(csv_write(cell.data(), cell.size(), row[i].data(), row[i].size()));
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
      const std::string head = plain(table.heads[i]);
      const bool known =
          head == plain(field.name) ||
          std::find(field.otherHeads.begin(), field.otherHeads.end(), head) != field.otherHeads.end();
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
  RowId next = rack.nextId();
  std::map<std::string, RowId> known;
  for (const Model& m : rack.models) known.emplace(m.name, m.id);
  for (std::size_t i = 0; i < table.rows.size(); ++i) {
    Model model;
    Rig rig;
    if (const std::string why = fillFrom(table.rows[i], columns, model, rig); !why.empty()) {
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
