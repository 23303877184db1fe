// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/lens_store.h"

#include <SQLiteCpp/VariadicBind.h>
#include <algorithm>
#include <nlohmann/json.hpp>

namespace fin::records {
namespace {

KeptLens lensFrom(SQLite::Statement& row) {
  KeptLens out;
  out.camera = row.getColumn(0).getString();
  out.width_px = row.getColumn(1).getInt();
  out.height_px = row.getColumn(2).getInt();
  out.window = row.getColumn(3).getString();
  out.lens = {row.getColumn(4).getDouble(),
              row.getColumn(5).getDouble(),
              row.getColumn(6).getDouble(),
              row.getColumn(7).getDouble(),
              {}};
  const auto k = nlohmann::json::parse(row.getColumn(8).getString(), nullptr, false);
  for (std::size_t i = 0; i < std::min(k.size(), out.lens.k.size()); ++i) {
    if (k[i].is_number()) out.lens.k[i] = k[i].get<double>();
  }
  out.rms = Pixels(row.getColumn(9).getDouble());
  return out;
}

}  // namespace

std::vector<KeptLens> lensesIn(const SQLite::Database& database) {
  SQLite::Statement query(database,
                          "SELECT camera, width_px, height_px, window, fx, fy, cx, cy, k, rms_px FROM lens "
                          "ORDER BY camera, window");
  std::vector<KeptLens> out;
  while (query.executeStep()) out.push_back(lensFrom(query));
  return out;
}

void writeLens(SQLite::Database& database, const KeptLens& kept) {
  SQLite::Statement insert(database, "INSERT OR REPLACE INTO lens VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)");
  const Lens& l = kept.lens;
  SQLite::bind(insert, kept.camera, kept.width_px, kept.height_px, kept.window, l.fx, l.fy, l.cx, l.cy,
               nlohmann::json(l.k).dump(), kept.rms.value());
  insert.exec();
}

}  // namespace fin::records
