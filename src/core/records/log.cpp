// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/log.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <sqlite3.h>
#include <sys/stat.h>

#include <fmt/format.h>
#include <algorithm>
#include <limits>

#include "core/exchange/json_documents.h"
#include "core/exchange/verdict_json.h"
#include "core/records/calibration_store.h"
#include "core/records/measurement_store.h"
#include "core/records/pass_store.h"
#include "core/records/plan_store.h"
#include "core/records/refusal.h"
#include "core/records/schema.h"

namespace fin {
namespace {

namespace fs = std::filesystem;
using namespace records;

constexpr const char* kVerdict = "the verdict";

/// Which file lies at a place: another one there by now is not this log.
struct FileIdentity {
  dev_t device = 0;
  ino_t inode = 0;

  friend bool operator==(const FileIdentity&, const FileIdentity&) = default;
};

std::optional<FileIdentity> identityOf(const fs::path& file) {
  struct stat found {};
  if (::stat(file.c_str(), &found) != 0) return std::nullopt;
  return FileIdentity{found.st_dev, found.st_ino};
}

class SqliteLog : public Log {
 public:
  SqliteLog(fs::path file, int flags)
      : file_(std::move(file)),
        database_(file_.string(), flags, kPatience_ms),
        identity_(identityOf(file_)) {}

  [[nodiscard]] const fs::path& file() const override { return file_; }
  [[nodiscard]] const std::string& readOnlyReason() const override { return readOnlyReason_; }
  void setReadOnly(std::string why) { readOnlyReason_ = std::move(why); }
  SQLite::Database& database() { return database_; }
  void remember() {
    identity_ = identityOf(file_);
    seen_ = dataVersion();
  }

  [[nodiscard]] const std::map<std::string, std::string>& unreadable() const override { return unreadable_; }

  bool changedElsewhere() override {
    const auto now = reading([&]() -> Result<std::int64_t> { return dataVersion(); });
    if (!now || *now == seen_) return false;
    seen_ = *now;
    return true;
  }

  Result<void> together(const std::function<Result<void>()>& changes) override {
    return changing([&] {
      if (auto ok = changes(); !ok) throw Refused(ok.error());
    });
  }

  Result<std::vector<LoggedPass>> passes() const override {
    return reading([&]() -> Result<std::vector<LoggedPass>> { return passesIn(database_, place()); });
  }

  Result<LoggedPass> pass(PassId id) const override {
    return reading([&]() -> Result<LoggedPass> { return passIn(database_, place(), id); });
  }

  Result<PassId> addPass(const NewPass& pass) override {
    PassId id;
    if (auto ok = changing([&] { id = insertPass(database_, place(), pass); }); !ok)
      return tl::unexpected(ok.error());
    return id;
  }

  Result<void> changePasses(const std::vector<PassChange>& changes) override {
    return changing([&] {
      for (const PassChange& change : changes) writePass(database_, place(), change);
    });
  }

  Result<std::shared_ptr<const Measurement>> measurement(PassId id) const override {
    return measured(id, With::TheTrack);
  }
  Result<std::shared_ptr<const Measurement>> readingsOf(PassId id) const override {
    return measured(id, With::ReadingsAlone);
  }

  Result<void> saveMeasurement(PassId id, const Measurement& measurement) override {
    return changing([&] {
      const auto pass = passIn(database_, place(), id);
      if (!pass) throw Refused(pass.error());
      if (pass->clip != measurement.clip || !sameReading(measurement.readFrom, pass->request))
        refuseMovedOn("pass " + std::to_string(id.value()));
      writeMeasurement(database_, place(), id, measurement);
    });
  }

  Result<std::vector<KeptCalibration>> calibrations() const override {
    return reading(
        [&]() -> Result<std::vector<KeptCalibration>> { return calibrationsIn(database_, place()); });
  }

  Result<void> keepCalibration(const std::string& camera, const std::string& day,
                               const std::optional<KeptCalibration>& before,
                               const std::optional<KeptCalibration>& after) override {
    return changing([&] { writeCalibration(database_, place(), camera, day, before, after); });
  }

  Result<std::vector<KeptLens>> lenses() const override {
    return reading([&]() -> Result<std::vector<KeptLens>> { return lensesIn(database_, place()); });
  }

  Result<void> keepLens(const KeptLens& kept) override {
    return changing([&] { writeLens(database_, kept); });
  }

  Result<std::vector<DayHead>> days() const override {
    return reading([&]() -> Result<std::vector<DayHead>> { return daysIn(database_, place()); });
  }

  Result<std::vector<DayId>> daysOf(RigId rig) const override {
    return reading([&]() -> Result<std::vector<DayId>> {
      SQLite::Statement query(database_,
                              "SELECT DISTINCT day_id FROM planned_pass WHERE removed = 0 AND rig_id = ? "
                              "AND state = 'done' ORDER BY day_id");
      query.bind(1, rig.value());
      std::vector<DayId> out;
      while (query.executeStep()) out.emplace_back(query.getColumn(0).getInt64());
      return out;
    });
  }

  Result<void> hideDay(DayId day, bool hidden) override {
    return changing([&] { records::hideDay(database_, day, hidden); });
  }

  Result<DayPlan> plan(DayId day) const override {
    return reading([&]() -> Result<DayPlan> { return planIn(database_, place(), day); });
  }

  Result<void> savePlan(const DayPlan& before, const DayPlan& after) override {
    return changing([&] { writePlan(database_, before, after); });
  }

  Result<std::int64_t> freeId() const override {
    return reading([&]() -> Result<std::int64_t> {
      SQLite::Statement query(
          database_,
          "SELECT 1 + max(id) FROM (SELECT 0 AS id UNION ALL SELECT max(id) FROM model "
          "UNION ALL SELECT max(id) FROM rig UNION ALL SELECT max(id) FROM edition "
          "UNION ALL SELECT max(id) FROM piece UNION ALL SELECT max(id) FROM price "
          "UNION ALL SELECT max(id) FROM claim UNION ALL SELECT max(id) FROM water "
          "UNION ALL SELECT max(id) FROM tie_rule UNION ALL SELECT max(id) FROM run_event "
          "UNION ALL SELECT max(id) FROM day UNION ALL SELECT max(id) FROM planned_pass "
          "UNION ALL SELECT max(planned_id) FROM pass)");
      query.executeStep();
      return query.getColumn(0).getInt64();
    });
  }

  Result<VerdictPlan> verdict(DayId day) const override {
    return reading([&]() -> Result<VerdictPlan> {
      const auto text = textOf(database_, "SELECT doc FROM verdict WHERE day_id = ?", day);
      if (!text) return VerdictPlan{};
      auto plan = verdictFrom(*text);
      if (!plan) place().note(kVerdict, plan.error().message);
      return plan;
    });
  }

  Result<void> saveVerdict(const VerdictPlan& before, const VerdictPlan& after, DayId day) override {
    return changing([&] {
      const auto text = textOf(database_, "SELECT doc FROM verdict WHERE day_id = ?", day);
      if (text) {
        const auto stored = verdictFrom(*text);
        if (!stored) refuseUnread(kVerdict, stored.error().message);
        if (!(*stored == before)) refuseMovedOn(kVerdict);
      }
      run(database_,
          "INSERT INTO verdict (day_id, doc) VALUES (?, ?) ON CONFLICT DO UPDATE SET doc = excluded.doc", day,
          text ? updated(*text, toJson(after)) : toJson(after));
    });
  }

  Result<std::vector<EyeScore>> eyeScores() const override {
    return reading([&]() -> Result<std::vector<EyeScore>> {
      SQLite::Statement query(database_, "SELECT pass_id, property, score FROM eye_score ORDER BY id");
      std::vector<EyeScore> out;
      while (query.executeStep()) {
        // What only a later program reads stays in the log and is not shown.
        if (const auto property = readingNamed(query.getColumn(1).getString()))
          out.push_back({query.getColumn(0).getInt64(), *property, query.getColumn(2).getDouble()});
      }
      return out;
    });
  }

  Result<void> addEyeScores(const std::vector<EyeScore>& scores) override {
    return changing([&] {
      for (const EyeScore& score : scores)
        run(database_, "INSERT INTO eye_score (pass_id, property, score) VALUES (?, ?, ?)", score.pass,
            std::string(toString(score.property)), score.score);
    });
  }

  Result<void> forgetEyeScores(ReadingId property) override {
    return changing(
        [&] { run(database_, "DELETE FROM eye_score WHERE property = ?", std::string(toString(property))); });
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
        run(database_, "INSERT OR REPLACE INTO camera_gain (camera, gain_dB) VALUES (?, ?)", camera,
            *gain_dB);
      } else {
        run(database_, "DELETE FROM camera_gain WHERE camera = ?", camera);
      }
    });
  }

 private:
  [[nodiscard]] Place place() const { return {fs::absolute(file_).parent_path(), &unreadable_}; }

  [[nodiscard]] std::int64_t dataVersion() const {
    SQLite::Statement query(database_, "PRAGMA data_version");
    return query.executeStep() ? query.getColumn(0).getInt64() : 0;
  }

  [[nodiscard]] Result<std::shared_ptr<const Measurement>> measured(PassId id, With with) const {
    return reading([&]() -> Result<std::shared_ptr<const Measurement>> {
      const std::string name = fmt::format("what was measured of pass {}", id.value());
      auto out = measurementIn(database_, place(), id, with);
      if (out) {
        place().clear(name);
      } else {
        place().note(name, out.error().message);
      }
      return out;
    });
  }

  [[nodiscard]] std::string name() const { return file_.filename().string(); }
  [[nodiscard]] tl::unexpected<Error> notWritten(const std::string& why) const {
    return failure(ErrorCode::NotWritable,
                   fmt::format("{} could not be written ({}); nothing was changed", name(), why),
                   file_.string());
  }

  /// Exceptions stop here, SQLite's and those of damaged contents.
  template <class Work>
  auto reading(Work work) const -> decltype(work()) {
    try {
      return work();
    } catch (const std::exception& e) {
      return failure(ErrorCode::Unreadable, fmt::format("{} could not be read ({})", name(), e.what()),
                     file_.string());
    }
  }
  /// A change within another one is a part of it.
  template <class Work>
  Result<void> changing(Work work) {
    if (!readOnlyReason_.empty()) return failure(ErrorCode::NotWritable, readOnlyReason_, file_.string());
    if (within_) {
      work();
      return {};
    }
    if (identityOf(file_) != identity_)
      return notWritten("it was moved, deleted or replaced by another file since it was opened");
    try {
      SQLite::Transaction transaction(database_, SQLite::TransactionBehavior::IMMEDIATE);
      const Within within(within_);
      work();
      transaction.commit();
      return {};
    } catch (const Refused& refused) {
      return tl::unexpected(refused.error());
    } catch (const std::exception& e) {
      return notWritten(e.what());
    }
  }
  struct Within {
    explicit Within(bool& flag) : flag_(flag) { flag_ = true; }
    ~Within() { flag_ = false; }
    Within(const Within&) = delete;
    Within& operator=(const Within&) = delete;
    bool& flag_;
  };

  fs::path file_;
  SQLite::Database database_;
  std::optional<FileIdentity> identity_;
  std::string readOnlyReason_;
  mutable std::map<std::string, std::string> unreadable_;
  std::int64_t seen_ = 0;
  bool within_ = false;
};

Result<std::unique_ptr<Log>> openReadOnly(const fs::path& file, std::string why) {
  auto log = std::make_unique<SqliteLog>(file, SQLite::OPEN_READONLY);
  log->setReadOnly(std::move(why));
  log->remember();
  return log;
}

Result<std::unique_ptr<Log>> openWritable(const fs::path& file) {
  auto log = std::make_unique<SqliteLog>(file, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
  SQLite::Database& database = log->database();
  const std::string name = file.filename().string();
  if (!isLog(database))
    return failure(ErrorCode::Unreadable,
                   name + ": this file belongs to another program, or is no log; it was left as it is",
                   file.string());
  if (versionOf(database) > currentVersion())
    return openReadOnly(file,
                        fmt::format("{} was made by a newer Agile Fin (log version {}, this one writes {}); "
                                    "it can be looked at but not changed",
                                    name, versionOf(database), currentVersion()));
  try {
    migrate(database);
    database.exec("PRAGMA foreign_keys = ON");
    // Only now is it known whether the file can be written.
    SQLite::Transaction(database, SQLite::TransactionBehavior::IMMEDIATE).commit();
  } catch (const SQLite::Exception& e) {
    if (versionOf(database) != currentVersion()) throw;
    if (e.getErrorCode() == SQLITE_BUSY) {  // another window is writing just now
      log->remember();
      return log;
    }
    return openReadOnly(
        file,
        fmt::format("{} cannot be written here ({}); it can be looked at but not changed", name, e.what()));
  }
  log->remember();
  return log;
}

}  // namespace

Result<std::unique_ptr<Log>> Log::open(const fs::path& file) {
  std::error_code ignored;
  const bool there = fs::exists(file, ignored);
  if (there && !fs::is_regular_file(file, ignored))
    return failure(ErrorCode::Unreadable, file.filename().string() + ": this is not a file", file.string());
  try {
    return openWritable(file);
  } catch (const std::exception& e) {
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

const KeptCalibration* keptFor(const std::vector<KeptCalibration>& all, const std::string& camera,
                               const std::string& day) {
  const auto found = std::find_if(
      all.begin(), all.end(), [&](const KeptCalibration& k) { return k.camera == camera && k.day == day; });
  return found == all.end() ? nullptr : &*found;
}

Result<std::unique_ptr<Log>> Log::openForLooking(const fs::path& file, std::string why) {
  try {
    return openReadOnly(file, std::move(why));
  } catch (const std::exception& e) {
    return failure(ErrorCode::Unreadable, fmt::format("{}: {}", file.filename().string(), e.what()),
                   file.string());
  }
}

}  // namespace fin
