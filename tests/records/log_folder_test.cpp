// SPDX-License-Identifier: GPL-3.0-or-later
// Whole logs: written as a folder, made of one, and merged.
#include "core/records/log_folder.h"
#include "core/records/kept_versions.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <gtest/gtest.h>

#include <fstream>
#include <nlohmann/json.hpp>

#include "core/records/log.h"
#include "core/records/log_merge.h"
#include "support/logged.h"
#include "support/small_scene.h"

namespace fin {
namespace {

namespace fs = std::filesystem;

std::string contentOf(const fs::path& file) {
  std::ifstream in(file, std::ios::binary);
  return {std::istreambuf_iterator<char>(in), {}};
}

std::map<std::string, std::string> filesIn(const fs::path& folder) {
  std::map<std::string, std::string> out;
  for (const auto& one : fs::directory_iterator(folder)) {
    if (one.is_regular_file()) out[one.path().filename().string()] = contentOf(one.path());
  }
  return out;
}

void sql(const fs::path& log, const std::string& text) {
  SQLite::Database(log.string(), SQLite::OPEN_READWRITE).exec(text);
}
std::string ask(const fs::path& log, const std::string& text) {
  const SQLite::Database database(log.string(), SQLite::OPEN_READONLY);
  SQLite::Statement query(database, text);
  return query.executeStep() ? query.getColumn(0).getString() : "nothing";
}

class WholeLog : public testing::Test {
 protected:
  void SetUp() override {
    auto log = std::move(*Log::open(log_));
    plan_.rack.models = {{.id = 1, .name = "Vinto, \"the\" <one>\n=1+1", .length_mm = 0.1 + 0.2}};
    plan_.rack.rigs = {{.id = 2, .model = 1, .name = "7 g head"}};
    plan_.rack.pieces = {{.id = 3, .model = 1}};
    plan_.waters = {{.id = 4, .name = "Trough"}};
    plan_.waterBody = 4;
    plan_.options.controlRig = 2;
    plan_.date = "2027-05-02";
    plan_.sheet = {{.id = 5, .rig = 2, .piece = 3}};
    ASSERT_TRUE(log->savePlan(DayPlan{}, plan_));
    VerdictPlan verdict;
    verdict.interest = "none";
    ASSERT_TRUE(log->saveVerdict({}, verdict));
    addPass(*log, "first", 5);
    ASSERT_TRUE(log->addEyeScores({{1, ReadingId::FallRate, 7.5}}));
    ASSERT_TRUE(log->keepCameraGain("top", -1.5));
  }
  PassId addPass(Log& log, const std::string& title, std::optional<PlannedPassId> planned = {}) {
    PassRequest request;
    request.clip = folder_ / "clips here" / (title + ".mp4");
    fs::create_directories(request.clip.parent_path());
    test::write(request.clip, "the clip of " + title);
    const PassId id = test::addPass(log, title, request, planned, "top");
    Track track{3, 2, {{MarkName::Nose, {{true, {1.0 / 3.0, 60.5}, 1.0}, {}}}}};
    test::keepReadings(
        log, id,
        {{{ReadingId::FallRate, 2.0 / 3.0, "mm/s", 1e-7, 80.0, Grade::Fair, {"a, \"note\""}},
          {ReadingId::FallMode, std::string("plumb"), "text", std::nullopt, 80.0, Grade::Good, {}}},
         {{ReadingId::RunningDepth, "no waterline is marked"}}},
        track);
    return id;
  }
  /// A second person's copy, with the same rows.
  fs::path copied(const std::string& name) {
    fs::copy_file(log_, folder_ / name);
    return folder_ / name;
  }

  test::TemporaryFolder folder_;
  fs::path log_ = folder_ / "season.finlog";
  DayPlan plan_;
};

TEST_F(WholeLog, ExportedImportedAndExportedAgainIsTheSameByteForByte) {
  sql(log_, "UPDATE rig SET doc = json_set(doc, '$.of_later', json('{\"deep\": [1, 2.5, 1e-9]}'))");
  const auto out = exportLog(log_, folder_ / "export");
  ASSERT_TRUE(out) << out.error().message;
  EXPECT_GT(out->rows, 10U);
  const auto in = importLog(folder_ / "export", folder_ / "again.finlog");
  ASSERT_TRUE(in) << in.error().message;
  EXPECT_EQ(in->rows, out->rows);
  ASSERT_TRUE(exportLog(folder_ / "again.finlog", folder_ / "export 2"));
  const auto first = filesIn(folder_ / "export"), second = filesIn(folder_ / "export 2");
  ASSERT_EQ(first.size(), out->files + 1);
  for (const auto& [name, content] : first) EXPECT_EQ(content, second.at(name)) << name;
  EXPECT_NE(first.at("rig.json").find("of_later"), std::string::npos) << "what only a later program knows";
  EXPECT_NE(first.at("reading.csv").find("0.6666666666666666"), std::string::npos) << "to the last bit";
  const auto log = std::move(*Log::open(folder_ / "again.finlog"));
  EXPECT_EQ(*log->plan(), plan_);
  EXPECT_EQ((*log->measurement(1))->track.marks[0].samples[0].at, (PixelPoint{1.0 / 3.0, 60.5}));
  EXPECT_EQ(log->verdict()->interest, "none");
  EXPECT_TRUE(log->unreadable().empty());
}

TEST_F(WholeLog, OfAnExportThatIsNotWholeNothingIsTakenIn) {
  ASSERT_TRUE(exportLog(log_, folder_ / "export"));
  const auto refused = [&](const std::string& part) {
    const auto in = importLog(folder_ / "export", folder_ / "again.finlog");
    ASSERT_FALSE(in);
    EXPECT_NE(in.error().message.find(part), std::string::npos) << in.error().message;
    EXPECT_FALSE(fs::exists(folder_ / "again.finlog")) << "no half log";
  };
  const std::string rig = contentOf(folder_ / "export" / "rig.json");
  test::write(folder_ / "export" / "rig.json", rig + " ");
  refused("rig.json was changed since it was exported");
  fs::remove(folder_ / "export" / "rig.json");
  refused("rig.json is missing");
  fs::remove(folder_ / "export" / "manifest.json");
  refused("there is no manifest.json");
  EXPECT_FALSE(exportLog(log_, folder_ / "clips here")) << "that folder holds something else";
  EXPECT_FALSE(importLog(folder_ / "export", log_)) << "it is there already";
}

TEST_F(WholeLog, TakesInWhatTheProgramBeforeExported) {
  const fs::path folder = folder_ / "export";
  ASSERT_TRUE(exportLog(log_, folder));
  auto manifest = nlohmann::ordered_json::parse(contentOf(folder / "manifest.json"));
  auto& files = manifest["files"];
  for (const char* later : {"tie_rule.json", "run_event.json"}) {
    ASSERT_TRUE(fs::remove(folder / later)) << later;
    files.erase(std::find_if(files.begin(), files.end(), [&](const auto& f) { return f["name"] == later; }));
  }
  manifest["schema"] = 10;
  test::write(folder / "manifest.json", manifest.dump(1));
  const auto taken = importLog(folder, folder_ / "again.finlog");
  ASSERT_TRUE(taken) << taken.error().message;
  EXPECT_EQ((*Log::open(folder_ / "again.finlog"))->plan()->rack, plan_.rack);
  manifest["schema"] = 9;
  test::write(folder / "manifest.json", manifest.dump(1));
  EXPECT_FALSE(importLog(folder, folder_ / "older.finlog"));
}

TEST_F(WholeLog, TakesItsClipsAlongWhereWanted) {
  const auto out = exportLog(log_, folder_ / "export", {.copyClips = true});
  ASSERT_TRUE(out);
  EXPECT_EQ(out->clips, 1U);
  fs::remove_all(folder_ / "clips here");
  ASSERT_TRUE(importLog(folder_ / "export", folder_ / "again.finlog"));
  const auto pass = (*Log::open(folder_ / "again.finlog"))->pass(1);
  EXPECT_EQ(contentOf(pass->request.clip), "the clip of first");
}

TEST_F(WholeLog, FindsClipsThatWereMoved) {
  fs::create_directories(folder_ / "disk" / "deep");
  fs::rename(folder_ / "clips here" / "first.mp4", folder_ / "disk" / "deep" / "renamed.mp4");
  test::write(folder_ / "disk" / "other.mp4", "the clip of fIrst");
  const auto found = findClips(log_, folder_ / "disk");
  ASSERT_TRUE(found) << found.error().message;
  EXPECT_EQ(found->clips, 1U);
  const auto log = std::move(*Log::open(log_));
  EXPECT_EQ(log->pass(1)->request.clip.filename(), "renamed.mp4");
  const auto measured = log->readingsOf(1);
  EXPECT_EQ(stateOf(measured->get(), log->pass(1)->request, log->pass(1)->clip), MeasurementState::Current)
      << "what was measured of it still counts";
  EXPECT_FALSE(findClips(log_, folder_ / "no such folder"));
}

TEST_F(WholeLog, TwoPeoplesLogsAreMergedInEitherOrder) {
  const fs::path other = copied("helper.finlog");
  {
    auto log = std::move(*Log::open(log_));
    DayPlan after = plan_;
    after.rack.models[0].note = "mine";
    after.rack.models.push_back({.id = 6, .name = "Mirk"});
    ASSERT_TRUE(log->savePlan(plan_, after));
    addPass(*log, "mine");
  }
  {
    auto log = std::move(*Log::open(other));
    DayPlan after = plan_;
    after.rack.models[0].note = "the helper's";
    after.rack.models.push_back({.id = 6, .name = "Tavver"});
    after.rack.rigs.push_back({.id = 7, .model = 6, .name = "bare"});
    ASSERT_TRUE(log->savePlan(plan_, after));
    addPass(*log, "the helper's");
  }
  sql(other, "UPDATE model SET edited_s = edited_s + 60 WHERE id = 1");
  const fs::path first = copied("first.finlog");
  fs::copy_file(other, folder_ / "second.finlog");
  const fs::path second = folder_ / "second.finlog";

  const auto merged = mergeLogs(first, other);
  ASSERT_TRUE(merged) << merged.error().message;
  EXPECT_EQ(merged->overtaken, 1U);
  EXPECT_EQ(merged->kept, 0U);
  const auto log = std::move(*Log::open(first));
  const DayPlan plan = *log->plan();
  ASSERT_EQ(plan.rack.models.size(), 3U);
  EXPECT_EQ(plan.rack.models[0].note, "the helper's") << "changed later";
  const auto bare = std::find_if(plan.rack.rigs.begin(), plan.rack.rigs.end(),
                                 [](const Rig& r) { return r.name == "bare"; });
  ASSERT_NE(bare, plan.rack.rigs.end());
  EXPECT_EQ(plan.rack.model(bare->model)->name, "Tavver") << "whatever number it has now";
  EXPECT_EQ(log->passes()->size(), 3U);
  const auto measured = log->measurement(log->passes()->back().id);
  ASSERT_TRUE(measured && *measured);
  EXPECT_EQ((*measured)->readings.readings.size(), 2U);
  EXPECT_EQ(stateOf(measured->get(), log->passes()->back().request, log->passes()->back().clip),
            MeasurementState::Current);
  EXPECT_NE(ask(first, "SELECT version FROM conflict").find("mine"), std::string::npos) << "nothing is lost";
  EXPECT_TRUE(log->unreadable().empty());

  const auto again = mergeLogs(first, other);
  ASSERT_TRUE(again);
  EXPECT_EQ(again->added + again->overtaken, 0U);
  EXPECT_EQ(ask(first, "SELECT count(*) FROM conflict"), "1") << "twice changes nothing";

  const auto kept = keptVersions(first);
  ASSERT_TRUE(kept) << kept.error().message;
  ASSERT_EQ(kept->size(), 1U);
  EXPECT_EQ((*kept)[0].kind, "model");
  ASSERT_EQ((*kept)[0].differences.size(), 1U);
  EXPECT_EQ((*kept)[0].differences[0].what, "note");
  EXPECT_EQ((*kept)[0].differences[0].here, "the helper's");
  EXPECT_EQ((*kept)[0].differences[0].kept, "mine");

  ASSERT_TRUE(mergeLogs(second, log_));
  const std::string all =
      "SELECT group_concat(uid || coalesce(doc ->> 'note', '') || (doc ->> 'name'), '; ') FROM "
      "(SELECT uid, doc FROM model ORDER BY uid)";
  EXPECT_EQ(ask(first, all), ask(second, all)) << "in either order";
  EXPECT_EQ(ask(second, "SELECT version FROM conflict"), ask(first, "SELECT version FROM conflict"));
  EXPECT_EQ((*Log::open(second))->passes()->size(), 3U);

  ASSERT_TRUE(decideOn(first, (*kept)[0].id, true));
  EXPECT_EQ((*Log::open(first))->plan()->rack.models[0].note, "mine");
  EXPECT_TRUE(keptVersions(first)->empty()) << "it is decided";
  EXPECT_EQ(ask(first, "SELECT count(*) FROM conflict"), "2") << "the other version is kept in turn";
  ASSERT_TRUE(mergeLogs(first, second));
  EXPECT_EQ((*Log::open(first))->plan()->rack.models[0].note, "mine") << "and stays so";
}

TEST(EarlierLogs, ThatAreCopiesOfOneAreMergedAsOne) {
  const test::TemporaryFolder folder;
  for (const char* name : {"mine.finlog", "helpers.finlog"})
    fs::copy_file(fs::path(FIN_EARLIER_LOGS) / "9.finlog", folder / name);
  const auto merged = mergeLogs(folder / "mine.finlog", folder / "helpers.finlog");
  ASSERT_TRUE(merged) << merged.error().message;
  EXPECT_EQ(merged->added, 0U) << "though each got its random numbers by itself";
  EXPECT_GT(merged->same, 3U);
}

TEST_F(WholeLog, MergedWithItselfStaysAsItIs) {
  const auto merged = mergeLogs(log_, log_);
  ASSERT_TRUE(merged) << merged.error().message;
  EXPECT_EQ(merged->added + merged->overtaken + merged->kept, 0U);
  EXPECT_GT(merged->same, 5U);
  EXPECT_FALSE(mergeLogs(log_, folder_ / "none.finlog"));
}

TEST_F(WholeLog, AnothersLogOfItsOwnComesInWithItsDay) {
  const fs::path other = folder_ / "stranger.finlog";
  {
    auto log = std::move(*Log::open(other));
    DayPlan day;
    day.date = "2027-06-01";
    day.rack.models = {{.id = 1, .name = "Skrell"}};
    day.rack.rigs = {{.id = 2, .model = 1}};
    day.sheet = {{.id = 5, .rig = 2}};
    day.foretold = {{{.rig = 2, .reading = ReadingId::FallRate, .line = 200.0}},
                    {{ReadingId::FallRate, {2}, 0.0}}};
    day.events = {{.id = 6, .at_s = 1e9, .rig = 2}};
    day.rules = {{7, "1", "clarity < 1", "kick_angle +", "felt"}};
    ASSERT_TRUE(log->savePlan(DayPlan{}, day));
    addPass(*log, "a stranger's", 5);
  }
  ASSERT_TRUE(mergeLogs(log_, other));
  const auto log = std::move(*Log::open(log_));
  ASSERT_EQ(log->days()->size(), 2U);
  const DayPlan day = *log->plan(log->days()->back().id);
  EXPECT_EQ(day.date, "2027-06-01");
  ASSERT_EQ(day.sheet.size(), 1U);
  EXPECT_EQ(day.rack.fullName(*day.rack.rig(day.sheet[0].rig)), "Skrell");
  const LoggedPass pass = log->passes()->back();
  EXPECT_EQ(pass.day, day.id);
  EXPECT_EQ(pass.planned, day.sheet[0].id);
  EXPECT_NE(day.id, DayId(1));
  // Rigs that stand within lists of the day, and in what happened, are the stranger's here too.
  EXPECT_EQ(day.foretold.lines[0].rig, day.sheet[0].rig);
  EXPECT_EQ(day.foretold.orders[0].rigs[0], day.sheet[0].rig);
  ASSERT_EQ(day.events.size(), 1U);
  EXPECT_EQ(day.events[0].rig, day.sheet[0].rig);
  EXPECT_EQ(day.rules[0].wants, "kick_angle +");
}

}  // namespace
}  // namespace fin
