// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/track_rows.h"

#include <SQLiteCpp/VariadicBind.h>
#include <fmt/format.h>
#include <algorithm>
#include <cmath>
#include <sstream>

namespace fin::records {
namespace {

constexpr const char* kBackground = "background";  ///< stands among the marks

std::vector<MarkSample> samplesOf(const SQLite::Database& database, PassId pass, const std::string& mark,
                                  const Track& track) {
  std::vector<MarkSample> out(track.frameCount);
  SQLite::Statement query(
      database, "SELECT frame, x_px, y_px, quality FROM track_sample WHERE pass_id = ? AND mark = ?");
  query.bind(1, pass.value());
  query.bind(2, mark);
  while (query.executeStep()) {
    const auto i = static_cast<std::size_t>(query.getColumn(0).getInt64()) - track.firstFrame;
    if (i >= out.size()) continue;
    out[i] = {true,
              {query.getColumn(1).getDouble(), query.getColumn(2).getDouble()},
              query.getColumn(3).getDouble()};
  }
  return out;
}

void insertSamples(const SQLite::Database& database, PassId pass, const std::string& mark,
                   std::size_t firstFrame, const std::vector<MarkSample>& samples) {
  SQLite::Statement insert(database, "INSERT INTO track_sample VALUES (?, ?, ?, ?, ?, ?)");
  for (std::size_t i = 0; i < samples.size(); ++i) {
    const MarkSample& s = samples[i];
    if (!s.seen) continue;
    SQLite::bind(insert, pass.value(), mark, static_cast<std::int64_t>(firstFrame + i), s.at.x_px, s.at.y_px,
                 s.quality);
    insert.exec();
    insert.reset();
  }
}

/// Rims as whole pixels: "x y x y …", one rim after the other with a semicolon between.
std::string toText(const std::vector<std::vector<PixelPoint>>& contours) {
  std::string out;
  for (const auto& contour : contours) {
    if (!out.empty()) out += ';';
    for (const PixelPoint p : contour) out += fmt::format("{} {} ", std::lround(p.x_px), std::lround(p.y_px));
  }
  return out;
}

std::vector<std::vector<PixelPoint>> contoursFrom(const std::string& text) {
  std::vector<std::vector<PixelPoint>> out;
  std::istringstream rims(text);
  for (std::string rim; std::getline(rims, rim, ';');) {
    std::istringstream numbers(rim);
    out.emplace_back();
    for (PixelPoint p; numbers >> p.x_px >> p.y_px;) out.back().push_back(p);
  }
  return out;
}

std::vector<OutlineSample> outlineOf(const SQLite::Database& database, PassId pass, const Track& track) {
  std::vector<OutlineSample> out;
  SQLite::Statement query(database,
                          "SELECT frame, whole, area_px2, x_px, y_px, angle_rad, length_px, width_px, luma, "
                          "rims FROM outline_sample WHERE pass_id = ?");
  query.bind(1, pass.value());
  while (query.executeStep()) {
    out.resize(track.frameCount);
    const auto i = static_cast<std::size_t>(query.getColumn(0).getInt64()) - track.firstFrame;
    if (i >= out.size()) continue;
    const auto number = [&query](int column) { return query.getColumn(column).getDouble(); };
    out[i] = {true,
              query.getColumn(1).getInt() != 0,
              number(2),
              {number(3), number(4)},
              number(5),
              number(6),
              number(7),
              number(8),
              contoursFrom(query.getColumn(9).getString())};
  }
  return out;
}

void insertOutline(const SQLite::Database& database, PassId pass, const Track& track) {
  SQLite::Statement insert(database, "INSERT INTO outline_sample VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)");
  for (std::size_t i = 0; i < track.outline.size(); ++i) {
    const OutlineSample& s = track.outline[i];
    if (!s.seen) continue;
    SQLite::bind(insert, pass.value(), static_cast<std::int64_t>(track.firstFrame + i), s.whole ? 1 : 0,
                 s.area_px2, s.centre.x_px, s.centre.y_px, s.angle_rad, s.length_px, s.width_px, s.brightness,
                 toText(s.contours));
    insert.exec();
    insert.reset();
  }
}

std::vector<std::optional<double>> brightnessOf(const SQLite::Database& database, PassId pass,
                                                const Track& track) {
  std::vector<std::optional<double>> out(track.frameCount);
  SQLite::Statement query(database, "SELECT frame, luma FROM body_brightness WHERE pass_id = ?");
  query.bind(1, pass.value());
  while (query.executeStep()) {
    const auto i = static_cast<std::size_t>(query.getColumn(0).getInt64()) - track.firstFrame;
    if (i < out.size()) out[i] = query.getColumn(1).getDouble();
  }
  return out;
}

void insertBrightness(const SQLite::Database& database, PassId pass, const Track& track) {
  SQLite::Statement insert(database, "INSERT INTO body_brightness VALUES (?, ?, ?)");
  for (std::size_t i = 0; i < track.brightness.size(); ++i) {
    if (!track.brightness[i]) continue;
    SQLite::bind(insert, pass.value(), static_cast<std::int64_t>(track.firstFrame + i), *track.brightness[i]);
    insert.exec();
    insert.reset();
  }
}

}  // namespace

void fillTrack(const SQLite::Database& database, PassId pass, Track& track) {
  for (MarkTrack& mark : track.marks)
    mark.samples = samplesOf(database, pass, std::string(toString(mark.name)), track);
  track.background = samplesOf(database, pass, kBackground, track);
  const bool followed = std::any_of(track.background.begin(), track.background.end(),
                                    [](const MarkSample& s) { return s.seen; });
  if (!followed) track.background.clear();
  track.outline = outlineOf(database, pass, track);
  track.brightness = brightnessOf(database, pass, track);
}

void writeTrack(const SQLite::Database& database, PassId pass, const Track& track) {
  for (const char* table : {"track_sample", "outline_sample", "body_brightness"}) {
    SQLite::Statement clear(database, fmt::format("DELETE FROM {} WHERE pass_id = ?", table));
    clear.bind(1, pass.value());
    clear.exec();
  }
  for (const MarkTrack& mark : track.marks)
    insertSamples(database, pass, std::string(toString(mark.name)), track.firstFrame, mark.samples);
  insertSamples(database, pass, kBackground, track.firstFrame, track.background);
  insertOutline(database, pass, track);
  insertBrightness(database, pass, track);
}

}  // namespace fin::records
