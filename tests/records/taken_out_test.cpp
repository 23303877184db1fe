// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/records/taken_out.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <gtest/gtest.h>

#include <algorithm>

#include "core/records/day_readings.h"
#include "core/records/log.h"
#include "support/logged.h"
#include "support/reading_words.h"
#include "support/small_scene.h"

namespace fin {
namespace {

namespace fs = std::filesystem;

class TakenOutRows : public testing::Test {
 protected:
  void SetUp() override {
    auto log = std::move(*Log::open(file_));
    plan_.rack.models = {{.id = 1, .name = "Vinto"}, {.id = 2, .name = "Mirk"}};
    plan_.rack.rigs = {{.id = 11, .model = 1, .name = "7 g head"}, {.id = 12, .model = 2}};
    plan_.sheet = {{.id = 20, .rig = 11}, {.id = 21, .rig = 12}};
    plan_.events = {{.id = 30, .at_s = 1e9, .rig = 11}};
    ASSERT_TRUE(log->savePlan(DayPlan{}, plan_));
    keep(*log, "first", 200.0);
    keep(*log, "second", 210.0);
  }
  void keep(Log& log, const std::string& title, double rate) {
    PassRequest request;
    request.clip = folder_ / (title + ".mp4");
    test::write(request.clip, title);
    const PassId id = test::addPass(log, title, request, {}, "top");
    Track track{0, 2, {{MarkName::Nose, {{true, {1.0, 2.0}, 1.0}, {}}}}};
    test::keepReadings(log, id, {{{ReadingId::FallRate, rate, "mm/s", 1.0, 60.0}}, {}}, track);
  }
  /// The plan without its first rig and model and what hangs on them.
  DayPlan lessVinto() const {
    DayPlan after = plan_;
    after.rack.models.erase(after.rack.models.begin());
    after.rack.rigs.erase(after.rack.rigs.begin());
    after.sheet.erase(after.sheet.begin());
    return after;
  }
  TakenOut named(const std::string& kind) {
    const auto rows = takenOut(file_);
    EXPECT_TRUE(rows);
    const auto found =
        std::find_if(rows->begin(), rows->end(), [&](const TakenOut& r) { return r.kind == kind; });
    return found == rows->end() ? TakenOut{} : *found;
  }

  test::TemporaryFolder folder_;
  fs::path file_ = folder_ / "day.finlog";
  DayPlan plan_;
};

TEST_F(TakenOutRows, ComeBackWithWhatTheyAreOf) {
  EXPECT_TRUE(takenOut(file_)->empty());
  ASSERT_TRUE((*Log::open(file_))->savePlan(plan_, lessVinto()));
  EXPECT_EQ(takenOut(file_)->size(), 3U);
  const TakenOut pass = named("planned_pass");
  EXPECT_EQ(pass.name, "7 g head retrieve");
  ASSERT_TRUE(bringBack(file_, pass));
  EXPECT_TRUE(takenOut(file_)->empty()) << "its rig and model came with it";
  const DayPlan again = *(*Log::open(file_))->plan();
  EXPECT_EQ(again.rack, plan_.rack);
  EXPECT_EQ(again.sheet, plan_.sheet);
  EXPECT_FALSE(bringBack(file_, pass)) << "it is there";
  EXPECT_FALSE(bringBack(file_, {.kind = "pass; drop table pass", .uid = "x"}));
}

TEST_F(TakenOutRows, ADayComesBackWithItsOwn) {
  auto log = std::move(*Log::open(file_));
  ASSERT_TRUE(log->hideDay(1, true));
  EXPECT_TRUE(log->passes()->empty());
  ASSERT_TRUE(bringBack(file_, named("day")));
  EXPECT_EQ(log->passes()->size(), 2U);
}

TEST_F(TakenOutRows, AreNotInAThinCopyThatStillHasTheReadings) {
  {
    auto log = std::move(*Log::open(file_));
    const LoggedPass second = *log->pass(2);
    LoggedPass gone = second;
    gone.removed = true;
    ASSERT_TRUE(log->changePasses({{second, gone}}));
    ASSERT_TRUE(log->savePlan(plan_, lessVinto()));
  }
  const fs::path thin = folder_ / "thin.finlog";
  const auto done = thinCopy(file_, thin);
  ASSERT_TRUE(done) << done.error().message;
  EXPECT_EQ(takenOut(file_)->size(), 4U) << "the log itself stays as it is";
  EXPECT_TRUE(takenOut(thin)->empty());
  const auto log = std::move(*Log::open(thin));
  EXPECT_EQ(log->readOnlyReason(), "");
  ASSERT_EQ(log->passes()->size(), 1U);
  FingerprintCache fingerprints;
  const auto day = dayReadings(*log, *log->plan(), fingerprints);
  ASSERT_TRUE(day);
  ASSERT_EQ(day->current.size(), 1U);
  EXPECT_EQ(numberIn(day->current[0].readings, ReadingId::FallRate), 200.0);
  SQLite::Database plain(thin.string(), SQLite::OPEN_READONLY);
  EXPECT_EQ(plain.execAndGet("SELECT count(*) FROM track_sample").getInt(), 0);
  EXPECT_EQ(plain.execAndGet("SELECT count(*) FROM pragma_foreign_key_check").getInt(), 0);
  EXPECT_FALSE(thinCopy(file_, thin)) << "there is a file already";
}

TEST_F(TakenOutRows, SayWhoTookThemOut) {
  EXPECT_EQ(*editorOf(file_), "");
  ASSERT_TRUE(sayEditor(file_, "the helper"));
  EXPECT_EQ(*editorOf(file_), "the helper");
  ASSERT_TRUE((*Log::open(file_))->savePlan(plan_, lessVinto()));
  EXPECT_EQ(named("model").editor, "the helper");
  EXPECT_EQ(named("model").name, "Vinto");
  ASSERT_TRUE(sayEditor(file_, ""));
  EXPECT_EQ(*editorOf(file_), "");
}

}  // namespace
}  // namespace fin
