// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/calibration_store.h"

#include <nlohmann/json.hpp>

#include "core/exchange/pass_json.h"
#include "core/records/refusal.h"

namespace fin::records {
namespace {

std::string nameOf(const std::string& camera, const std::string& day) {
  return fmt::format("size and time of camera {} on {}", camera.empty() ? "(no name)" : camera, day);
}

Result<KeptCalibration> calibrationFrom(const std::string& camera, const std::string& day,
                                        const std::string& doc, const Place& place) {
  auto from = parsePassRequest(doc, place.folder, Stage::Draft);
  if (!from) return tl::unexpected(from.error());
  return KeptCalibration{camera, day, calibrationOf(*from), std::move(from->clip)};
}

Result<std::array<double, 5>> distortionFrom(const std::string& text) {
  const auto list = nlohmann::json::parse(text, nullptr, false);
  std::array<double, 5> out{};
  if (!list.is_array() || list.size() != out.size())
    return failure(ErrorCode::Unreadable, "its distortion is not a list of five numbers");
  for (std::size_t i = 0; i < out.size(); ++i) {
    if (!list[i].is_number()) return failure(ErrorCode::Unreadable, "its distortion is not all numbers");
    out[i] = list[i].get<double>();
  }
  return out;
}

}  // namespace

std::vector<KeptCalibration> calibrationsIn(const SQLite::Database& database, const Place& place) {
  SQLite::Statement query(database, "SELECT camera, day, doc FROM calibration ORDER BY day, camera");
  std::vector<KeptCalibration> out;
  while (query.executeStep()) {
    const std::string camera = query.getColumn(0).getString();
    const std::string day = query.getColumn(1).getString();
    if (auto kept = calibrationFrom(camera, day, query.getColumn(2).getString(), place)) {
      place.clear(nameOf(camera, day));
      out.push_back(std::move(*kept));
    } else {
      place.note(nameOf(camera, day), kept.error().message);
    }
  }
  return out;
}

void writeCalibration(const SQLite::Database& database, const Place& place, const std::string& camera,
                      const std::string& day, const std::optional<KeptCalibration>& before,
                      const std::optional<KeptCalibration>& after) {
  const auto text = textOf(database, "SELECT doc FROM calibration WHERE camera = ? AND day = ?", camera, day);
  if (text.has_value() != before.has_value()) refuseMovedOn(nameOf(camera, day));
  if (text) {
    const auto stored = calibrationFrom(camera, day, *text, place);
    if (!stored) refuseUnread(nameOf(camera, day), stored.error().message);
    if (*stored != *before) refuseMovedOn(nameOf(camera, day));
  }
  run(database, "DELETE FROM calibration WHERE camera = ? AND day = ?", camera, day);
  if (!after) return;
  PassRequest from;
  from.clip = after->madeOn;
  applyCalibration(from, after->calibration);
  run(database, "INSERT INTO calibration (camera, day, doc) VALUES (?, ?, ?)", camera, day,
      writePassRequest(from, place.folder));
}

std::vector<KeptLens> lensesIn(const SQLite::Database& database, const Place& place) {
  SQLite::Statement row(database,
                        "SELECT camera, width_px, height_px, window, fx, fy, cx, cy, k, rms_px FROM lens "
                        "ORDER BY camera, window");
  std::vector<KeptLens> out;
  while (row.executeStep()) {
    KeptLens kept{.camera = row.getColumn(0).getString(),
                  .width_px = row.getColumn(1).getInt(),
                  .height_px = row.getColumn(2).getInt(),
                  .window = row.getColumn(3).getString()};
    const std::string name = fmt::format("lens of camera {} through {}", kept.camera, kept.window);
    const auto k = distortionFrom(row.getColumn(8).getString());
    if (!k) {
      place.note(name, k.error().message);
      continue;
    }
    place.clear(name);
    kept.lens = {row.getColumn(4).getDouble(), row.getColumn(5).getDouble(), row.getColumn(6).getDouble(),
                 row.getColumn(7).getDouble(), *k};
    kept.rms = Pixels(row.getColumn(9).getDouble());
    out.push_back(std::move(kept));
  }
  return out;
}

void writeLens(const SQLite::Database& database, const KeptLens& kept) {
  const Lens& l = kept.lens;
  run(database, "INSERT OR REPLACE INTO lens VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)", kept.camera,
      kept.width_px, kept.height_px, kept.window, l.fx, l.fy, l.cx, l.cy, nlohmann::json(l.k).dump(),
      kept.rms.value());
}

}  // namespace fin::records
