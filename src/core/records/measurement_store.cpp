// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/measurement_store.h"

#include <nlohmann/json.hpp>
#include <sstream>

#include "core/exchange/pass_json.h"
#include "core/records/reading_rows.h"
#include "core/records/refusal.h"
#include "core/records/track_rows.h"

namespace fin::records {
namespace {

/// More frames than any clip of a day has; a damaged count must not ask for all of the memory.
constexpr std::int64_t kMostFrames = 5'000'000;

tl::unexpected<Error> damaged(const std::string& why) {
  return failure(ErrorCode::Unreadable, why);
}

Result<PassRequest> requestIn(const SQLite::Column& column, const Place& place) {
  if (column.isNull()) return PassRequest{};
  auto request = parsePassRequest(column.getString(), place.folder, Stage::Draft);
  if (!request) return damaged(request.error().message);
  return request;
}

Result<void> takeWindow(SQLite::Statement& row, Track& track) {
  const std::int64_t first = row.getColumn("first_frame").getInt64();
  const std::int64_t count = row.getColumn("frame_count").getInt64();
  if (first < 0 || count < 0 || first > kMostFrames || count > kMostFrames)
    return damaged(fmt::format("its window of {} frames from frame {} cannot be", count, first));
  track.firstFrame = static_cast<std::size_t>(first);
  track.frameCount = static_cast<std::size_t>(count);
  std::istringstream names(row.getColumn("marks").getString());
  for (std::string name; names >> name;) {
    const auto mark = markNamed(name);
    if (!mark) return damaged("unknown mark " + name);
    track.marks.push_back({*mark, {}});
  }
  track.outlineLost = row.getColumn("outline_lost").getString();
  return {};
}

std::string marksOf(const Track& track) {
  std::string out;
  for (const MarkTrack& mark : track.marks) out += std::string(toString(mark.name)) + " ";
  return out;
}

std::vector<std::string> linesIn(const SQLite::Column& column) {
  std::vector<std::string> out;
  for (const auto& line : nlohmann::json::parse(column.getString(), nullptr, false)) {
    if (line.is_string()) out.push_back(line.get<std::string>());
  }
  return out;
}

std::optional<double> followedAt(const SQLite::Database& database, PassId pass) {
  SQLite::Statement query(database, "SELECT followed_at_s FROM measurement WHERE pass_id = ?");
  query.bind(1, pass.value());
  return query.executeStep() ? std::optional(query.getColumn(0).getDouble()) : std::nullopt;
}

std::size_t countIn(const SQLite::Column& column) {
  return static_cast<std::size_t>(std::max<std::int64_t>(column.getInt64(), 0));
}

}  // namespace

Result<std::shared_ptr<const Measurement>> measurementIn(const SQLite::Database& database, const Place& place,
                                                         PassId pass, With with) {
  SQLite::Statement row(database, "SELECT * FROM measurement WHERE pass_id = ?");
  row.bind(1, pass.value());
  if (!row.executeStep()) return std::shared_ptr<const Measurement>();
  auto out = std::make_shared<Measurement>();
  out->clip = {static_cast<std::uintmax_t>(row.getColumn("clip_size_bytes").getInt64()),
               row.getColumn("clip_sha256").getString()};
  auto followed = requestIn(row.getColumn("followed_from"), place);
  if (!followed) return tl::unexpected(followed.error());
  out->followedFrom = std::move(*followed);
  auto read = requestIn(row.getColumn("read_from"), place);
  if (!read) return tl::unexpected(read.error());
  out->readFrom = std::move(*read);
  out->followingVersion = row.getColumn("following_version").getInt();
  out->followedAt_s = row.getColumn("followed_at_s").getDouble();
  out->methodVersion = row.getColumn("method_version").getInt();
  out->madeAt_s = row.getColumn("made_at_s").getDouble();
  out->frames = {countIn(row.getColumn("frames_read")), countIn(row.getColumn("frames_followed")),
                 countIn(row.getColumn("frames_bridged"))};
  out->warnings = linesIn(row.getColumn("warnings"));
  if (auto ok = takeWindow(row, out->track); !ok) return tl::unexpected(ok.error());
  auto readings = readingsIn(database, pass);
  if (!readings) return tl::unexpected(readings.error());
  out->readings = std::move(*readings);
  if (with == With::TheTrack) fillTrack(database, pass, out->track);
  return std::shared_ptr<const Measurement>(std::move(out));
}

void writeMeasurement(const SQLite::Database& database, const Place& place, PassId pass,
                      const Measurement& m) {
  const bool sameTrack = m.followedAt_s > 0.0 && followedAt(database, pass) == m.followedAt_s;
  run(database, "DELETE FROM measurement WHERE pass_id = ?", pass);
  run(database,
      "INSERT INTO measurement (pass_id, clip_size_bytes, clip_sha256, followed_from, following_version, "
      "followed_at_s, "
      "first_frame, frame_count, marks, outline_lost, read_from, method_version, made_at_s, frames_read, "
      "frames_followed, frames_bridged, warnings) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
      pass, static_cast<std::int64_t>(m.clip.size_bytes), m.clip.sha256,
      writePassRequest(m.followedFrom, place.folder), m.followingVersion, m.followedAt_s,
      static_cast<std::int64_t>(m.track.firstFrame), static_cast<std::int64_t>(m.track.frameCount),
      marksOf(m.track), m.track.outlineLost, writePassRequest(m.readFrom, place.folder), m.methodVersion,
      m.madeAt_s, static_cast<std::int64_t>(m.frames.read), static_cast<std::int64_t>(m.frames.followed),
      static_cast<std::int64_t>(m.frames.bridged), nlohmann::json(m.warnings).dump());
  if (!sameTrack) writeTrack(database, pass, m.track);
  writeReadings(database, pass, m.readings, m.methodVersion);
}

}  // namespace fin::records
