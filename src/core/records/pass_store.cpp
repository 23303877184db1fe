// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/pass_store.h"

#include "core/exchange/finding_json.h"
#include "core/exchange/pass_json.h"
#include "core/records/refusal.h"

namespace fin::records {
namespace {

namespace fs = std::filesystem;

constexpr const char* kColumns =
    "SELECT pass.id, title, request, size_bytes, sha256, planned_id, camera, shared_instant_s, removed, "
    "finding, day_id "
    "FROM pass JOIN clip ON clip.id = clip_id ";

std::string nameOf(const SQLite::Statement& row) {
  return fmt::format("pass {} ({})", row.getColumn(0).getInt64(), row.getColumn(1).getString());
}

Result<LoggedPass> passFrom(SQLite::Statement& row, const Place& place) {
  auto request = parsePassRequest(row.getColumn(2).getString(), place.folder, Stage::Draft);
  if (!request) return failure(ErrorCode::Unreadable, request.error().message, nameOf(row));
  LoggedPass pass{
      .id = row.getColumn(0).getInt64(),
      .title = row.getColumn(1).getString(),
      .request = std::move(*request),
      .clip = {static_cast<std::uintmax_t>(row.getColumn(3).getInt64()), row.getColumn(4).getString()},
      .planned = idIn<PlannedPassId>(row.getColumn(5)),
      .camera = row.getColumn(6).getString(),
      .day = row.getColumn(10).getInt64(),
      .sharedInstant = std::nullopt,
      .removed = row.getColumn(8).getInt() != 0};
  if (const auto instant = numberIn(row.getColumn(7))) pass.sharedInstant = Seconds(*instant);
  if (!row.getColumn(9).isNull()) {
    auto finding = findingFrom(row.getColumn(9).getString());
    if (!finding) return failure(ErrorCode::Unreadable, finding.error().message, nameOf(row));
    pass.finding = std::move(*finding);
  }
  return pass;
}

std::int64_t clipId(const SQLite::Database& database, const Place& place, const fs::path& clip,
                    const ClipFingerprint& fingerprint) {
  const fs::path relative = fs::absolute(clip).lexically_relative(place.folder);
  const bool below = !relative.empty() && *relative.begin() != "..";
  const std::string path = below ? relative.string() : fs::absolute(clip).string();
  const auto size = static_cast<std::int64_t>(fingerprint.size_bytes);
  run(database, "INSERT OR IGNORE INTO clip (path, size_bytes, sha256) VALUES (?, ?, ?)", path, size,
      fingerprint.sha256);
  SQLite::Statement query(database, "SELECT id FROM clip WHERE path = ? AND size_bytes = ? AND sha256 = ?");
  bindAll(query, path, size, fingerprint.sha256);
  query.executeStep();
  return query.getColumn(0).getInt64();
}

/// As it comes back out of the log: a clip may be named in several ways.
LoggedPass asKept(LoggedPass pass, const Place& place) {
  const auto kept =
      parsePassRequest(writePassRequest(pass.request, place.folder), place.folder, Stage::Draft);
  if (kept) pass.request = *kept;
  return pass;
}

std::optional<std::string> kept(const std::optional<Finding>& finding) {
  return finding ? std::optional(toJson(*finding)) : std::nullopt;
}

std::optional<double> valueOf(const std::optional<Seconds>& instant) {
  return instant ? std::optional(instant->value()) : std::nullopt;
}

}  // namespace

std::vector<LoggedPass> passesIn(const SQLite::Database& database, const Place& place) {
  SQLite::Statement query(database,
                          std::string(kColumns) +
                              "WHERE NOT removed AND day_id NOT IN (SELECT id FROM day WHERE day.removed) "
                              "ORDER BY pass.id");
  std::vector<LoggedPass> out;
  while (query.executeStep()) {
    const std::string name = nameOf(query);
    if (auto pass = passFrom(query, place)) {
      place.clear(name);
      out.push_back(std::move(*pass));
    } else {
      place.note(name, pass.error().message);
    }
  }
  return out;
}

Result<LoggedPass> passIn(const SQLite::Database& database, const Place& place, PassId id) {
  SQLite::Statement query(database, std::string(kColumns) + "WHERE pass.id = ?");
  query.bind(1, id.value());
  if (!query.executeStep()) return failure(ErrorCode::BadRequest, "the log holds no such pass");
  return passFrom(query, place);
}

PassId insertPass(const SQLite::Database& database, const Place& place, const NewPass& pass) {
  run(database, "INSERT OR IGNORE INTO day (id, doc) VALUES (?, '{}')", pass.day);
  run(database,
      "INSERT INTO pass (clip_id, title, request, planned_id, camera, finding, day_id) "
      "VALUES (?, ?, ?, ?, ?, ?, ?)",
      clipId(database, place, pass.request.clip, pass.clip), pass.title,
      writePassRequest(pass.request, place.folder), pass.planned, pass.camera, kept(pass.finding), pass.day);
  return database.getLastInsertRowid();
}

void writePass(const SQLite::Database& database, const Place& place, const PassChange& change) {
  const auto& [before, after] = change;
  const std::string name = fmt::format("pass {} ({})", before.id.value(), before.title);
  const auto stored = passIn(database, place, before.id);
  if (!stored) refuseUnread(name, stored.error().message);
  if (*stored != asKept(before, place)) refuseMovedOn(name);
  run(database,
      "UPDATE pass SET clip_id = ?, title = ?, request = ?, planned_id = ?, camera = ?, shared_instant_s = "
      "?, "
      "removed = ?, finding = ?, day_id = ? WHERE id = ?",
      clipId(database, place, after.request.clip, after.clip), after.title,
      writePassRequest(after.request, place.folder), after.planned, after.camera,
      valueOf(after.sharedInstant), after.removed ? 1 : 0, kept(after.finding), after.day, before.id);
}

}  // namespace fin::records
