// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/log.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <fmt/format.h>
#include <sstream>

#include "core/records/lens_store.h"
#include "core/records/plan_json.h"
#include "core/records/reading_store.h"
#include "core/records/schema.h"
#include "core/records/track_store.h"
#include "core/records/verdict_json.h"

namespace fin {
namespace {

namespace fs = std::filesystem;

class SqliteLog : public Log {
 public:
  SqliteLog(fs::path file, int flags) : file_(std::move(file)), database_(file_.string(), flags, 2000) {}

  [[nodiscard]] const fs::path& file() const override { return file_; }
  [[nodiscard]] const std::string& readOnlyReason() const override { return readOnlyReason_; }
  void setReadOnly(std::string why) { readOnlyReason_ = std::move(why); }
  SQLite::Database& database() { return database_; }

  Result<std::vector<LoggedPass>> passes() const override {
    return reading([&]() -> Result<std::vector<LoggedPass>> {
      SQLite::Statement query(database_, std::string(kPassColumns) + "WHERE NOT removed ORDER BY pass.id");
      std::vector<LoggedPass> out;
      while (query.executeStep()) {
        auto pass = passFrom(query);
        if (!pass) return tl::unexpected(pass.error());
        out.push_back(std::move(*pass));
      }
      return out;
    });
  }

  Result<LoggedPass> pass(RowId id) const override {
    return reading([&]() -> Result<LoggedPass> {
      SQLite::Statement query(database_, std::string(kPassColumns) + "WHERE pass.id = ?");
      query.bind(1, id);
      if (!query.executeStep()) return failure(ErrorCode::BadRequest, "the log holds no such pass");
      return passFrom(query);
    });
  }

  Result<RowId> addPass(const std::string& title, const PassRequest& request) override {
    const auto print = printOf(request.clip);
    if (!print) return tl::unexpected(print.error());
    RowId id = 0;
    auto done = changing([&] {
      SQLite::Statement insert(database_, "INSERT INTO pass (clip_id, title, request) VALUES (?, ?, ?)");
      insert.bind(1, clipId(request.clip, *print));
      insert.bind(2, title);
      insert.bind(3, writePassRequest(request, folder()));
      insert.exec();
      id = database_.getLastInsertRowid();
    });
    if (!done) return tl::unexpected(done.error());
    return id;
  }

  Result<void> setRemoved(RowId id, bool removed) override {
    return changing([&] { run("UPDATE pass SET removed = ? WHERE id = ?", removed ? 1 : 0, id); });
  }

  Result<void> saveRequest(RowId id, const PassRequest& request) override {
    return changing([&] {
      run("UPDATE pass SET request = ? WHERE id = ?", writePassRequest(request, folder()), id);
      rememberClip(id, request.clip);
    });
  }

  Result<void> assign(RowId id, std::optional<RowId> planned, const std::string& camera) override {
    return changing([&] {
      run("UPDATE pass SET camera = ? WHERE id = ?", camera, id);
      if (planned) {
        run("UPDATE pass SET planned_id = ? WHERE id = ?", *planned, id);
      } else {
        run("UPDATE pass SET planned_id = NULL WHERE id = ?", id);
      }
    });
  }

  Result<void> setSharedInstant(RowId id, std::optional<Seconds> instant) override {
    return changing([&] {
      SQLite::Statement update(database_, "UPDATE pass SET shared_instant_s = ? WHERE id = ?");
      if (instant) update.bind(1, instant->value());
      update.bind(2, id);
      update.exec();
    });
  }

  Result<std::vector<KeptCalibration>> calibrations() const override {
    return reading([&]() -> Result<std::vector<KeptCalibration>> {
      SQLite::Statement query(database_, "SELECT camera, day, doc FROM calibration ORDER BY day, camera");
      std::vector<KeptCalibration> out;
      while (query.executeStep()) {
        auto from = parsePassRequest(query.getColumn(2).getString(), folder(), Stage::Draft);
        if (!from) return tl::unexpected(from.error());
        out.push_back({query.getColumn(0).getString(), query.getColumn(1).getString(), calibrationOf(*from),
                       std::move(from->clip)});
      }
      return out;
    });
  }

  Result<void> keepCalibration(const std::string& camera, const std::string& day,
                               const std::optional<KeptCalibration>& kept) override {
    return changing([&] {
      run("DELETE FROM calibration WHERE camera = ? AND day = ?", camera, day);
      if (!kept) return;
      PassRequest from;
      from.clip = kept->madeOn;
      applyCalibration(from, kept->calibration);
      run("INSERT INTO calibration (camera, day, doc) VALUES (?, ?, ?)", camera, day,
          writePassRequest(from, folder()));
    });
  }

  Result<std::vector<KeptLens>> lenses() const override {
    return reading([&]() -> Result<std::vector<KeptLens>> { return records::lensesIn(database_); });
  }

  Result<void> keepLens(const KeptLens& kept) override {
    return changing([&] { records::writeLens(database_, kept); });
  }

  Result<DayPlan> plan() const override {
    return reading([&]() -> Result<DayPlan> {
      SQLite::Statement day(database_, "SELECT doc FROM day WHERE id = ?");
      day.bind(1, kDay);
      if (!day.executeStep()) return DayPlan{};
      auto plan = records::dayFrom(day.getColumn(0).getString());
      if (!plan) return plan;
      for (auto read :
           {documents("SELECT doc FROM model ORDER BY id", records::modelFrom, plan->rack.models),
            documents("SELECT doc FROM rig ORDER BY id", records::rigFrom, plan->rack.rigs),
            documents("SELECT doc FROM planned_pass ORDER BY place", records::plannedFrom, plan->sheet)}) {
        if (!read) return tl::unexpected(read.error());
      }
      return plan;
    });
  }

  Result<void> savePlan(const DayPlan& plan) override {
    return changing([&] {
      run("INSERT INTO day (id, doc) VALUES (?, ?) ON CONFLICT (id) DO UPDATE SET doc = excluded.doc", kDay,
          records::dayToJson(plan));
      replaceRows("model", plan.rack.models);
      replaceRows("rig", plan.rack.rigs);
      run("DELETE FROM planned_pass WHERE day_id = ?", kDay);
      SQLite::Statement insert(database_,
                               "INSERT INTO planned_pass (day_id, id, place, doc) VALUES (?, ?, ?, ?)");
      std::int64_t place = 0;
      for (const PlannedPass& pass : plan.sheet) {
        bindAll(insert, kDay, pass.id, place++, records::toJson(pass));
        insert.exec();
        insert.reset();
      }
    });
  }

  Result<VerdictPlan> verdict() const override {
    return reading([&]() -> Result<VerdictPlan> {
      SQLite::Statement query(database_, "SELECT doc FROM verdict WHERE day_id = ?");
      query.bind(1, kDay);
      return query.executeStep() ? records::verdictFrom(query.getColumn(0).getString()) : VerdictPlan{};
    });
  }

  Result<void> saveVerdict(const VerdictPlan& plan) override {
    return changing([&] {
      run("INSERT OR REPLACE INTO verdict (day_id, doc) VALUES (?, ?)", kDay, records::toJson(plan));
    });
  }

  Result<std::vector<EyeScore>> eyeScores() const override {
    return reading([&]() -> Result<std::vector<EyeScore>> {
      SQLite::Statement query(database_, "SELECT pass_id, property, score FROM eye_score ORDER BY id");
      std::vector<EyeScore> out;
      while (query.executeStep())
        out.push_back(
            {query.getColumn(0).getInt64(), query.getColumn(1).getString(), query.getColumn(2).getDouble()});
      return out;
    });
  }

  Result<void> addEyeScore(const EyeScore& score) override {
    return changing([&] {
      run("INSERT INTO eye_score (pass_id, property, score) VALUES (?, ?, ?)", score.pass, score.property,
          score.score);
    });
  }

  Result<void> forgetEyeScores(const std::string& property) override {
    return changing([&] { run("DELETE FROM eye_score WHERE property = ?", property); });
  }

  Result<std::map<std::string, double>> cameraGains_dB() const override {
    return reading([&]() -> Result<std::map<std::string, double>> {
      SQLite::Statement query(database_, "SELECT camera, gain_dB FROM camera_gain");
      std::map<std::string, double> out;
      while (query.executeStep()) out[query.getColumn(0).getString()] = query.getColumn(1).getDouble();
      return out;
    });
  }

  Result<void> keepCameraGain(const std::string& camera, std::optional<double> gain_dB) override {
    return changing([&] {
      if (gain_dB) {
        run("INSERT OR REPLACE INTO camera_gain (camera, gain_dB) VALUES (?, ?)", camera, *gain_dB);
      } else {
        run("DELETE FROM camera_gain WHERE camera = ?", camera);
      }
    });
  }

  Result<std::optional<LoggedTrack>> track(RowId id) const override {
    return reading([&]() -> Result<std::optional<LoggedTrack>> {
      SQLite::Statement head(
          database_, "SELECT first_frame, frame_count, marks, followed_from FROM track WHERE pass_id = ?");
      head.bind(1, id);
      if (!head.executeStep()) return std::optional<LoggedTrack>();
      LoggedTrack out;
      out.track.firstFrame = static_cast<std::size_t>(head.getColumn(0).getInt64());
      out.track.frameCount = static_cast<std::size_t>(head.getColumn(1).getInt64());
      auto from = parsePassRequest(head.getColumn(3).getString(), folder(), Stage::Draft);
      if (!from) return tl::unexpected(from.error());
      out.followedFrom = std::move(*from);
      std::istringstream names(head.getColumn(2).getString());
      for (std::string name; names >> name;) {
        if (const auto mark = markNamed(name)) out.track.marks.push_back({*mark, {}});
      }
      records::fillTrack(database_, id, out.track);
      return std::optional<LoggedTrack>(std::move(out));
    });
  }

  Result<void> saveTrack(RowId id, const LoggedTrack& kept) override {
    return changing([&] {
      rememberClip(id, kept.followedFrom.clip);
      std::string marks;
      for (const MarkTrack& mark : kept.track.marks) marks += std::string(toString(mark.name)) + " ";
      run("INSERT OR REPLACE INTO track VALUES (?, ?, ?, ?, ?)", id,
          static_cast<std::int64_t>(kept.track.firstFrame), static_cast<std::int64_t>(kept.track.frameCount),
          marks, writePassRequest(kept.followedFrom, folder()));
      records::writeTrack(database_, id, kept.track);
    });
  }

  Result<ReadingSet> readings(RowId id) const override {
    return reading([&]() -> Result<ReadingSet> { return records::readingsIn(database_, id); });
  }

  Result<void> saveReadings(RowId id, const ReadingSet& set) override {
    return changing([&] { records::writeReadings(database_, id, set); });
  }

 private:
  static constexpr const char* kPassColumns =
      "SELECT pass.id, title, request, size_bytes, sha256, planned_id, camera, shared_instant_s FROM pass "
      "JOIN clip ON clip.id = clip_id ";

  static constexpr RowId kDay = 1;  ///< a log holds one day's plan

  template <class T>
  Result<void> documents(const char* sql, Result<T> (*from)(const std::string&), std::vector<T>& to) const {
    SQLite::Statement query(database_, sql);
    while (query.executeStep()) {
      auto row = from(query.getColumn(0).getString());
      if (!row) return tl::unexpected(row.error());
      to.push_back(std::move(*row));
    }
    return {};
  }

  template <class T>
  void replaceRows(const std::string& table, const std::vector<T>& rows) {
    database_.exec("DELETE FROM " + table);
    SQLite::Statement insert(database_, "INSERT INTO " + table + " (id, doc) VALUES (?, ?)");
    for (const T& row : rows) {
      bindAll(insert, row.id, records::toJson(row));
      insert.exec();
      insert.reset();
    }
  }

  [[nodiscard]] fs::path folder() const { return fs::absolute(file_).parent_path(); }

  static void bindOne(SQLite::Statement& s, int i, const std::optional<double>& v) {
    if (v) s.bind(i, *v);
  }
  template <class T>
  static void bindOne(SQLite::Statement& s, int i, const T& v) {
    s.bind(i, v);
  }
  template <class... Values>
  static void bindAll(SQLite::Statement& statement, const Values&... values) {
    int i = 0;
    (bindOne(statement, ++i, values), ...);
  }
  template <class... Values>
  void run(const char* sql, const Values&... values) {
    SQLite::Statement statement(database_, sql);
    bindAll(statement, values...);
    statement.exec();
  }

  /// SQLite's exceptions stop here.
  template <class Work>
  auto reading(Work work) const -> decltype(work()) {
    try {
      return work();
    } catch (const SQLite::Exception& e) {
      return failure(ErrorCode::Unreadable, fmt::format("{}: {}", file_.filename().string(), e.what()),
                     file_.string());
    }
  }
  template <class Work>
  Result<void> changing(Work work) {
    if (!readOnlyReason_.empty()) return failure(ErrorCode::NotWritable, readOnlyReason_, file_.string());
    try {
      SQLite::Transaction transaction(database_);
      work();
      transaction.commit();
      return {};
    } catch (const SQLite::Exception& e) {
      return failure(ErrorCode::NotWritable,
                     fmt::format("{} could not be written ({}); nothing was changed",
                                 file_.filename().string(), e.what()),
                     file_.string());
    }
  }

  RowId clipId(const fs::path& clip, const ClipPrint& print) {
    const fs::path relative = fs::absolute(clip).lexically_relative(folder());
    const bool below = !relative.empty() && *relative.begin() != "..";
    const std::string path = below ? relative.string() : fs::absolute(clip).string();
    run("INSERT INTO clip (path, size_bytes, sha256) VALUES (?, ?, ?) "
        "ON CONFLICT (path) DO UPDATE SET size_bytes = excluded.size_bytes, sha256 = excluded.sha256",
        path, static_cast<std::int64_t>(print.size_bytes), print.sha256);
    SQLite::Statement query(database_, "SELECT id FROM clip WHERE path = ?");
    query.bind(1, path);
    query.executeStep();
    return query.getColumn(0).getInt64();
  }

  /// Sets down by what a pass's clip is known again; a clip that is not there now keeps what stood.
  void rememberClip(RowId pass, const fs::path& clip) {
    if (const auto print = printOf(clip))
      run("UPDATE pass SET clip_id = ? WHERE id = ?", clipId(clip, *print), pass);
  }

  [[nodiscard]] Result<LoggedPass> passFrom(SQLite::Statement& row) const {
    auto request = parsePassRequest(row.getColumn(2).getString(), folder(), Stage::Draft);
    if (!request) return tl::unexpected(request.error());
    LoggedPass pass{row.getColumn(0).getInt64(),
                    row.getColumn(1).getString(),
                    std::move(*request),
                    {static_cast<std::uintmax_t>(row.getColumn(3).getInt64()), row.getColumn(4).getString()},
                    std::nullopt,
                    row.getColumn(6).getString()};
    if (!row.getColumn(5).isNull()) pass.planned = row.getColumn(5).getInt64();
    if (!row.getColumn(7).isNull()) pass.sharedInstant = Seconds(row.getColumn(7).getDouble());
    return pass;
  }

  fs::path file_;
  SQLite::Database database_;
  std::string readOnlyReason_;
};

Result<std::unique_ptr<Log>> openWritable(const fs::path& file) {
  auto log = std::make_unique<SqliteLog>(file, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
  if (records::versionOf(log->database()) > records::currentVersion()) {
    log = std::make_unique<SqliteLog>(file, SQLite::OPEN_READONLY);
    log->setReadOnly(fmt::format(
        "{} was made by a newer Agile Fin (log version {}, this one writes {}); it can be "
        "looked at but not changed",
        file.filename().string(), records::versionOf(log->database()), records::currentVersion()));
    return log;
  }
  log->database().exec("PRAGMA foreign_keys = ON");
  try {
    records::bringForward(log->database());
  } catch (const SQLite::Exception&) {
    if (records::versionOf(log->database()) != records::currentVersion()) throw;
  }
  return log;
}

}  // namespace

bool sameFollowing(const PassRequest& before, const PassRequest& now) {
  return before.marks == now.marks && onlySeedsDiffer(before, now);
}

Result<std::unique_ptr<Log>> Log::open(const fs::path& file) {
  std::error_code ignored;
  const bool there = fs::exists(file, ignored);
  try {
    return openWritable(file);
  } catch (const SQLite::Exception& e) {
    if (!there) {
      return failure(
          ErrorCode::NotWritable,
          fmt::format("{}: no log can be begun in this folder ({})", file.filename().string(), e.what()),
          file.string());
    }
    return failure(
        ErrorCode::Unreadable,
        fmt::format("{}: this is not a log that can be opened ({})", file.filename().string(), e.what()),
        file.string());
  }
}

}  // namespace fin
