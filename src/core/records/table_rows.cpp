// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/table_rows.h"

#include <fmt/format.h>

#include <array>

namespace fin::records {
namespace {

using nlohmann::ordered_json;

constexpr std::array kTables{
    TableSpec{"model", "id", false},
    TableSpec{"rig", "id", false},
    TableSpec{"piece", "id", false},
    TableSpec{"price", "id", false},
    TableSpec{"claim", "id", false},
    TableSpec{"water", "id", false},
    TableSpec{"tie_rule", "id", false},
    TableSpec{"day", "id", false},
    TableSpec{"edition", "id", false},
    TableSpec{"planned_pass", "day_id, id", false},
    TableSpec{"run_event", "day_id, id", false},
    TableSpec{"verdict", "day_id", false},
    TableSpec{"clip", "id", false},
    TableSpec{"pass", "id", false},
    TableSpec{"eye_score", "id", false},
    TableSpec{"calibration", "camera, day", false},
    TableSpec{"lens", "camera, width_px, height_px, window", false},
    TableSpec{"camera_gain", "camera", false},
    TableSpec{"conflict", "id", false},
    TableSpec{"measurement", "pass_id", false},
    TableSpec{"reading", "pass_id, place, name", true},
    TableSpec{"refusal", "pass_id, place, name", true},
    TableSpec{"track_sample", "pass_id, mark, frame", true},
    TableSpec{"outline_sample", "pass_id, frame", true},
    TableSpec{"body_brightness", "pass_id, frame", true},
};

bool isDocument(const ordered_json& parsed) {
  return parsed.is_object() || parsed.is_array();
}

}  // namespace

std::span<const TableSpec> tablesOfALog() {
  return kTables;
}

std::vector<TableColumn> columnsOf(const SQLite::Database& database, const std::string& table,
                                   const std::string& schema) {
  SQLite::Statement query(database, fmt::format("PRAGMA {}.table_info({})", schema, table));
  std::vector<TableColumn> out;
  while (query.executeStep()) out.push_back({query.getColumn(1).getString(), query.getColumn(2).getString()});
  return out;
}

std::string listed(const std::vector<TableColumn>& columns) {
  std::string out;
  for (const TableColumn& c : columns) out += (out.empty() ? "" : ", ") + c.name;
  return out;
}

std::string placesFor(const std::vector<TableColumn>& columns) {
  std::string out;
  for (std::size_t i = 0; i < columns.size(); ++i) out += out.empty() ? "?" : ", ?";
  return out;
}

ordered_json rowIn(const SQLite::Statement& query, const std::vector<TableColumn>& columns) {
  ordered_json out = ordered_json::object();
  for (std::size_t i = 0; i < columns.size(); ++i) {
    const SQLite::Column cell = query.getColumn(static_cast<int>(i));
    ordered_json& to = out[columns[i].name];
    if (cell.isInteger()) {
      to = cell.getInt64();
    } else if (cell.isFloat()) {
      to = cell.getDouble();
    } else if (!cell.isNull()) {
      const std::string text = cell.getString();
      to = ordered_json::parse(text, nullptr, false);
      if (!isDocument(to)) to = text;
    }
  }
  return out;
}

void bindRow(SQLite::Statement& statement, const std::vector<TableColumn>& columns, const ordered_json& row) {
  int i = 0;
  for (const TableColumn& column : columns) {
    ++i;
    const auto found = row.find(column.name);
    if (found == row.end() || found->is_null()) continue;
    if (found->is_number_integer()) {
      statement.bind(i, found->get<std::int64_t>());
    } else if (found->is_number()) {
      statement.bind(i, found->get<double>());
    } else {
      statement.bind(i, found->is_string() ? found->get<std::string>() : found->dump());
    }
  }
}

}  // namespace fin::records
