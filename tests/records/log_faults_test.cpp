// SPDX-License-Identifier: GPL-3.0-or-later
// What must never happen to a log: something overwritten that was not read, something lost by half a change.
#include <SQLiteCpp/SQLiteCpp.h>
#include <gtest/gtest.h>
#include <sys/stat.h>

#include <fstream>

#include "core/records/day_readings.h"
#include "core/records/log.h"
#include "support/logged.h"
#include "support/small_scene.h"

namespace fin {
namespace {

namespace fs = std::filesystem;

class LogFaults : public testing::Test {
 protected:
  void SetUp() override {
    plan_.name = "A day at the trough";
    for (std::int64_t i = 1; i <= 8; ++i) {
      plan_.rack.models.push_back({.id = i, .name = "Bait " + std::to_string(i)});
      plan_.rack.rigs.push_back({.id = 20 + i, .model = i});
    }
    for (std::int64_t i = 1; i <= 40; ++i) plan_.sheet.push_back({.id = i, .rig = 21 + i % 8});
    auto log = open();
    ASSERT_TRUE(log->savePlan(DayPlan{}, plan_));
    request_.clip = folder_ / "a.mp4";
    test::write(request_.clip, "stands for a clip");
    request_.scale = ScaleMark{{10.0, 20.0}, {110.5, 20.0}, Millimetres(250.0), Millimetres(0.5)};
    for (const char* title : {"One", "Two", "Three"}) ids_.push_back(test::addPass(*log, title, request_));
    test::keepReadings(*log, ids_[0], {{{ReadingId::TravelSpeed, 270.6, "mm/s", 2.0, 100.0}}, {}},
                       Track{0, 10, {{MarkName::Nose, std::vector<MarkSample>(10, {true, {1, 2}, 1.0})}}});
  }
  [[nodiscard]] fs::path file() const { return folder_ / "day.finlog"; }
  [[nodiscard]] std::unique_ptr<Log> open() const {
    auto log = Log::open(file());
    EXPECT_TRUE(log) << log.error().message;
    return log ? std::move(*log) : nullptr;
  }
  void spoil(const std::string& sql) const {
    SQLite::Database(file().string(), SQLite::OPEN_READWRITE).exec(sql);
  }
  [[nodiscard]] std::string stored(const std::string& sql) const {
    SQLite::Database plain(file().string(), SQLite::OPEN_READONLY);
    return plain.execAndGet(sql).getString();
  }

  test::TemporaryFolder folder_;
  DayPlan plan_;
  PassRequest request_;
  std::vector<PassId> ids_;
};

TEST_F(LogFaults, ABadDocumentLeavesTheRestOfThePlanAndStaysAsItIs) {
  const std::string bad = R"({"id": 17, "rig": 22, "protocol": "a word of a later version"})";
  spoil("UPDATE planned_pass SET doc = '" + bad + "' WHERE id = 17");
  const auto log = open();
  const auto read = log->plan();
  ASSERT_TRUE(read) << read.error().message;
  EXPECT_EQ(read->rack.models.size(), 8U);
  EXPECT_EQ(read->sheet.size(), 39U);
  ASSERT_TRUE(log->unreadable().contains("planned pass 17"));
  // One question ticked, and one pass made, with what could be read.
  DayPlan after = *read;
  after.questions = {"fall"};
  after.sheet[3].state = PassState::Done;
  ASSERT_TRUE(log->savePlan(*read, after));
  EXPECT_EQ(stored("SELECT count(*) FROM planned_pass"), "40");
  EXPECT_EQ(stored("SELECT count(*) FROM rig"), "8");
  EXPECT_EQ(stored("SELECT doc FROM planned_pass WHERE id = 17"), bad);
}

TEST_F(LogFaults, ADayThatCannotBeReadIsNotWrittenOver) {
  spoil("UPDATE day SET doc = '{\"name\": 7}'");
  const auto log = open();
  const auto read = log->plan();
  ASSERT_TRUE(read);
  EXPECT_EQ(read->sheet.size(), 40U);
  DayPlan after = *read;
  after.questions = {"fall"};
  const auto saved = log->savePlan(*read, after);
  ASSERT_FALSE(saved);
  EXPECT_EQ(saved.error().code, ErrorCode::Unreadable);
  EXPECT_EQ(stored("SELECT doc FROM day"), "{\"name\": 7}");
}

TEST_F(LogFaults, AnEmptyPlanInPlaceOfOneThatWasNotReadDeletesNothing) {
  const auto log = open();
  DayPlan ticked;
  ticked.questions = {"fall"};
  const auto saved = log->savePlan(DayPlan{}, ticked);
  ASSERT_FALSE(saved);
  EXPECT_EQ(saved.error().code, ErrorCode::MovedOn);
  EXPECT_EQ(*log->plan(), plan_);
}

TEST_F(LogFaults, KeysOfALaterVersionStayInARowThatIsChanged) {
  spoil("UPDATE model SET doc = json_set(doc, '$.scent', 'garlic') WHERE id = 3");
  const auto log = open();
  const DayPlan read = *log->plan();
  DayPlan after = read;
  after.rack.models[2].price = 4.5;
  ASSERT_TRUE(log->savePlan(read, after));
  EXPECT_EQ(stored("SELECT doc ->> 'scent' FROM model WHERE id = 3"), "garlic");
  EXPECT_EQ(open()->plan()->rack.models[2].price, 4.5);
}

TEST_F(LogFaults, TwoWindowsOnOneLogDoNotUndoEachOther) {
  const auto first = open();
  const auto second = open();
  const DayPlan seen = *second->plan();
  DayPlan made = *first->plan();
  const DayPlan before = made;
  for (std::size_t i = 0; i < 3; ++i) made.sheet[i].state = PassState::Done;
  ASSERT_TRUE(first->savePlan(before, made));
  EXPECT_TRUE(second->changedElsewhere());
  EXPECT_FALSE(second->changedElsewhere()) << "told once";
  // The second window still shows the first pass as the one to make.
  DayPlan key = seen;
  key.sheet[0].state = PassState::Skipped;
  const auto refused = second->savePlan(seen, key);
  ASSERT_FALSE(refused);
  EXPECT_EQ(refused.error().code, ErrorCode::MovedOn);
  // What the first one did not touch is free.
  DayPlan other = seen;
  other.sheet[30].state = PassState::Skipped;
  ASSERT_TRUE(second->savePlan(seen, other));
  const DayPlan now = *first->plan();
  for (std::size_t i = 0; i < 3; ++i) EXPECT_EQ(now.sheet[i].state, PassState::Done);
  EXPECT_EQ(now.sheet[30].state, PassState::Skipped);
}

TEST_F(LogFaults, MarksOfAnotherWindowAreNotOverwritten) {
  const auto first = open();
  const auto second = open();
  const LoggedPass seen = *second->pass(ids_[1]);
  LoggedPass marked = seen;
  marked.request.marks = {{MarkName::Nose, 3, {50.25, 60.5}}};
  ASSERT_TRUE(first->changePasses({{seen, marked}}));
  LoggedPass other = seen;
  other.camera = "top";
  EXPECT_EQ(second->changePasses({{seen, other}}).error().code, ErrorCode::MovedOn);
  EXPECT_EQ(first->pass(ids_[1])->request.marks.size(), 1U);
}

TEST_F(LogFaults, OneOfSeveralChangesThatFailsTakesAllBack) {
  const auto log = open();
  const auto passes = *log->passes();
  LoggedPass stale = passes[1];
  stale.title = "as another window has it";
  const auto renamed = [](LoggedPass pass) {
    pass.camera = "top";
    return pass;
  };
  EXPECT_FALSE(log->changePasses({{passes[0], renamed(passes[0])}, {stale, renamed(stale)}}));
  const auto both = log->together([&]() -> Result<void> {
    if (auto ok = log->changePasses({{passes[0], renamed(passes[0])}}); !ok) return ok;
    return log->keepCalibration("top", "2026-11-27", KeptCalibration{}, std::nullopt);  // none is kept
  });
  EXPECT_EQ(both.error().code, ErrorCode::MovedOn);
  EXPECT_EQ(*log->passes(), passes);
}

TEST_F(LogFaults, ADamagedPassIsNamedAndTheOthersStand) {
  spoil("UPDATE pass SET request = json_set(request, '$.later', 1) WHERE id = " +
        std::to_string(ids_[1].value()));
  const auto log = open();
  const auto passes = log->passes();
  ASSERT_TRUE(passes);
  ASSERT_EQ(passes->size(), 2U);
  EXPECT_EQ(passes->at(1).title, "Three");
  ASSERT_EQ(log->unreadable().size(), 1U);
  EXPECT_EQ(log->unreadable().begin()->first, "pass 2 (Two)");
  EXPECT_NE(log->unreadable().begin()->second.find("later"), std::string::npos) << "the key is named";
}

TEST_F(LogFaults, AMeasurementOfWhatHasChangedMeanwhileIsNotKept) {
  const auto log = open();
  const LoggedPass before = *log->pass(ids_[0]);
  const Measurement late = test::measurementOf(before, {});
  LoggedPass after = before;
  after.request.scale->length = Millimetres(300.0);
  ASSERT_TRUE(log->changePasses({{before, after}}));
  EXPECT_EQ(log->saveMeasurement(ids_[0], late).error().code, ErrorCode::MovedOn);
  Measurement otherFile = test::measurementOf(after, {});
  otherFile.clip.sha256 = "another file's";
  EXPECT_EQ(log->saveMeasurement(ids_[0], otherFile).error().code, ErrorCode::MovedOn);
  EXPECT_EQ((*log->readingsOf(ids_[0]))->readings.readings.size(), 1U);
}

TEST_F(LogFaults, AnEditAfterTheClipWasReplacedKeepsTheFingerprintOfTheFirst) {
  const auto log = open();
  const LoggedPass before = *log->pass(ids_[0]);
  test::write(request_.clip, "another film by now, of other length");
  LoggedPass after = before;
  after.request.scale->length = Millimetres(300.0);
  ASSERT_TRUE(log->changePasses({{before, after}}));
  EXPECT_EQ(log->pass(ids_[0])->clip, before.clip);
  // A new pass on the same name is of the new file, and does not touch the earlier ones.
  const PassId fresh = test::addPass(*log, "New", request_);
  EXPECT_NE(log->pass(fresh)->clip, before.clip);
  EXPECT_EQ(log->pass(ids_[0])->clip, before.clip);
  FingerprintCache fingerprints;
  const auto day = dayReadings(*log, DayPlan{}, fingerprints);
  ASSERT_TRUE(day);
  EXPECT_TRUE(day->current.empty());
  ASSERT_EQ(day->outdated.size(), 1U);
  EXPECT_EQ(day->outdated[0].state, MeasurementState::ClipChanged);
}

TEST_F(LogFaults, AFileOfAnotherProgramIsLeftAsItIs) {
  const fs::path other = folder_ / "notes.db";
  {
    SQLite::Database plain(other.string(), SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
    plain.exec("CREATE TABLE note (text); INSERT INTO note VALUES ('mine')");
  }
  std::ifstream before(other, std::ios::binary);
  const std::string bytes(std::istreambuf_iterator<char>(before), {});
  const auto log = Log::open(other);
  ASSERT_FALSE(log);
  EXPECT_EQ(log.error().code, ErrorCode::Unreadable);
  std::ifstream after(other, std::ios::binary);
  EXPECT_EQ(std::string(std::istreambuf_iterator<char>(after), {}), bytes);
}

TEST_F(LogFaults, AnImpossibleVersionIsRefused) {
  for (const char* version : {"-5", "0"}) {
    spoil(std::string("PRAGMA user_version = ") + version);
    EXPECT_EQ(Log::open(file()).error().code, ErrorCode::Unreadable) << version;
  }
}

/// One damage each: where it is done, and what is still there.
struct Damage {
  const char* name;
  const char* sql;
};
class DamagedMeasurement : public LogFaults, public testing::WithParamInterface<Damage> {};

TEST_P(DamagedMeasurement, IsToldAndNothingElseIsLost) {
  spoil(GetParam().sql);
  const auto log = open();
  const auto measured = log->measurement(ids_[0]);
  ASSERT_FALSE(measured);
  EXPECT_EQ(measured.error().code, ErrorCode::Unreadable);
  EXPECT_EQ(log->passes()->size(), 3U);
  EXPECT_EQ(*log->plan(), plan_);
  FingerprintCache fingerprints;
  EXPECT_TRUE(dayReadings(*log, plan_, fingerprints)->current.empty());
  // Measured once more, it is whole again.
  test::keepReadings(*log, ids_[0], {{{ReadingId::TravelSpeed, 250.0, "mm/s", 2.0, 100.0}}, {}});
  EXPECT_TRUE(log->measurement(ids_[0]));
}

INSTANTIATE_TEST_SUITE_P(
    Log, DamagedMeasurement,
    testing::Values(Damage{"NegativeCount", "UPDATE measurement SET frame_count = -1"},
                    Damage{"HugeCount", "UPDATE measurement SET frame_count = 200000000"},
                    Damage{"AbsurdCount", "UPDATE measurement SET frame_count = 1000000000000000"},
                    Damage{"NegativeFirstFrame", "UPDATE measurement SET first_frame = -3"},
                    Damage{"UnknownMark", "UPDATE measurement SET marks = 'nose ear'"},
                    Damage{"ReadingWithoutValue", "UPDATE reading SET value = NULL"},
                    Damage{"WordsForANumber", "UPDATE reading SET value = NULL, words = 'fast'"},
                    Damage{"ReadingOfALaterProgram", "UPDATE reading SET name = 'shimmer'"},
                    Damage{"RequestThatIsNone", "UPDATE measurement SET read_from = '[]'"}),
    [](const auto& param) { return std::string(param.param.name); });

TEST_F(LogFaults, ALensThatIsNoneIsNamedAndTheOthersStand) {
  {
    const auto log = open();
    ASSERT_TRUE(log->keepLens({"fixed", 1280, 720, "air", {}, Pixels(0.2)}));
    ASSERT_TRUE(log->keepLens({"chase", 1280, 720, "air", {}, Pixels(0.3)}));
  }
  spoil(R"(UPDATE lens SET k = '{"a": 1}' WHERE camera = 'fixed')");
  const auto log = open();
  const auto lenses = log->lenses();
  ASSERT_TRUE(lenses);
  ASSERT_EQ(lenses->size(), 1U);
  EXPECT_EQ(lenses->front().camera, "chase");
  EXPECT_EQ(log->unreadable().size(), 1U);
}

TEST_F(LogFaults, ALogThatWasDeletedOrReplacedIsNotWrittenIntoTheVoid) {
  const auto log = open();
  const LoggedPass before = *log->pass(ids_[0]);
  LoggedPass after = before;
  after.camera = "top";
  fs::rename(file(), folder_ / "put away.finlog");
  const auto gone = log->changePasses({{before, after}});
  ASSERT_FALSE(gone);
  EXPECT_EQ(gone.error().code, ErrorCode::NotWritable);
  { ASSERT_TRUE(Log::open(file())); }  // another one in its place
  EXPECT_FALSE(log->changePasses({{before, after}}));
  fs::rename(folder_ / "put away.finlog", file());
  EXPECT_TRUE(log->changePasses({{before, after}})) << "back in its place it takes changes again";
}

TEST_F(LogFaults, ALogThatAnotherProgramLocksSaysSoAndIsAsBefore) {
  const auto log = open();
  const LoggedPass before = *log->pass(ids_[0]);
  LoggedPass after = before;
  after.camera = "top";
  {
    SQLite::Database other(file().string(), SQLite::OPEN_READWRITE);
    SQLite::Transaction held(other, SQLite::TransactionBehavior::EXCLUSIVE);
    const auto locked = log->changePasses({{before, after}});
    ASSERT_FALSE(locked);
    EXPECT_NE(locked.error().message.find("locked"), std::string::npos);
    EXPECT_FALSE(log->plan()) << "an error, and no empty plan";
  }
  EXPECT_EQ(*log->plan(), plan_);
  EXPECT_TRUE(log->changePasses({{before, after}}));
}

TEST_F(LogFaults, ALogThatAnotherWindowIsWritingIntoOpensForWritingAllTheSame) {
  std::unique_ptr<Log> log;
  {
    SQLite::Database other(file().string(), SQLite::OPEN_READWRITE);
    SQLite::Transaction held(other, SQLite::TransactionBehavior::IMMEDIATE);
    log = open();
    ASSERT_TRUE(log);
    EXPECT_EQ(log->readOnlyReason(), "");
  }
  EXPECT_TRUE(log->addEyeScores({{ids_[0], ReadingId::WobbleAngle, 7.0}}));
}

TEST_F(LogFaults, APlaceThatIsNoFileIsRefused) {
  fs::create_directory(folder_ / "folder.finlog");
  EXPECT_EQ(Log::open(folder_ / "folder.finlog").error().code, ErrorCode::Unreadable);
  ASSERT_EQ(::mkfifo((folder_ / "pipe.finlog").c_str(), 0600), 0);
  EXPECT_EQ(Log::open(folder_ / "pipe.finlog").error().code, ErrorCode::Unreadable);
}

}  // namespace
}  // namespace fin
