// SPDX-License-Identifier: GPL-3.0-or-later
// What went wrong is said where the person looks, and nothing of it is lost: through the real window.
#include <SQLiteCpp/SQLiteCpp.h>
#include <QComboBox>
#include <QLabel>

#include "core/rehearsal/rehearse.h"
#include "read_day_fixture.h"
#include "support/numbered_film.h"

namespace fin::app {
namespace {

namespace fs = std::filesystem;

class Faults : public ReadDayTest {
 protected:
  void SetUp() override {
    plan_.rack.models = {{.id = 1, .name = "Wide"}, {.id = 2, .name = "Even"}};
    plan_.rack.rigs = {{.id = 11, .model = 1}, {.id = 12, .model = 2}};
    plan_.options.tasks = {{Protocol::Retrieve, View::Top, {}}};
    for (std::int64_t i = 1; i <= 10; ++i)
      plan_.sheet.push_back({.id = i, .rig = 11 + i % 2, .protocol = Protocol::Retrieve, .view = View::Top});
    auto log = Log::open(file());
    ASSERT_TRUE(log) << log.error().message;
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan_));
  }
  [[nodiscard]] fs::path file() const { return folder_ / "day.finlog"; }
  void spoil(const std::string& sql) { SQLite::Database(file().string(), SQLite::OPEN_READWRITE).exec(sql); }
  int count(const std::string& sql) {
    return SQLite::Database(file().string(), SQLite::OPEN_READONLY).execAndGet(sql).getInt();
  }
  void key(Qt::Key key) { QTest::keyClick(window_->focusWidget(), key); }
  PassController& passes() { return window_->passController(); }
};

TEST_F(Faults, APlannedPassThatCannotBeReadIsNamedAndOutlivesEveryEdit) {
  spoil("UPDATE planned_pass SET doc = '{\"id\": 7, \"state\": \"odd\"}' WHERE id = 7");
  openWindow();
  EXPECT_TRUE(window_->notice().contains("planned pass 7")) << window_->notice().toStdString();
  EXPECT_EQ(window_->day().plan().sheet.size(), 9U);
  window_->day().edit("Tick", [](DayPlan& plan) { plan.questions = {"fall"}; });
  window_->go(Place::Poolside);
  key(Qt::Key_1);
  EXPECT_EQ(window_->day().plan().sheet.front().state, PassState::Done);
  window_->day().makeLastAgain();
  EXPECT_EQ(count("SELECT count(*) FROM planned_pass"), 11);
  EXPECT_EQ(count("SELECT count(*) FROM rig"), 2);
}

TEST_F(Faults, AKeyInAWindowWhoseViewIsOldWipesNothing) {
  openWindow();
  {
    // Another window ends the first three passes.
    auto other = *Log::open(file());
    const DayPlan seen = *other->plan();
    DayPlan made = seen;
    for (std::size_t i = 0; i < 3; ++i) made.sheet[i].state = PassState::Done;
    ASSERT_TRUE(other->savePlan(seen, made));
  }
  window_->go(Place::Poolside);
  key(Qt::Key_4);  // skips the first pass, as this window still shows it
  EXPECT_TRUE(window_->notice().contains("changed elsewhere")) << window_->notice().toStdString();
  EXPECT_EQ(window_->edits().count(), 0) << "what did not happen cannot be undone";
  EXPECT_EQ(count("SELECT count(*) FROM planned_pass WHERE state = 'done'"), 3);
  EXPECT_EQ(count("SELECT count(*) FROM planned_pass WHERE state = 'skipped'"), 0);
  ASSERT_TRUE(waitFor([this] { return window_->day().now() != nullptr && window_->day().now()->id == 4; }))
      << "and it is shown as it stands";
}

TEST_F(Faults, WhatAnotherWindowWroteIsShownByItself) {
  openWindow();
  auto other = *Log::open(file());
  const DayPlan seen = *other->plan();
  DayPlan made = seen;
  made.sheet[0].state = PassState::Done;
  ASSERT_TRUE(other->savePlan(seen, made));
  EXPECT_TRUE(waitFor([this] { return window_->day().now()->id == 2; }));
}

TEST_F(Faults, AtThePoolsideALogThatCannotBeWrittenIsSaid) {
  openWindow();
  window_->go(Place::Poolside);
  fs::rename(file(), folder_ / "put away");
  key(Qt::Key_1);
  EXPECT_TRUE(find<QLabel>("noticeText")->isVisible());
  EXPECT_TRUE(window_->notice().contains("could not be written")) << window_->notice().toStdString();
  EXPECT_EQ(window_->day().now()->id, 1) << "the pass is not shown as done";
  EXPECT_EQ(window_->edits().count(), 0);
  fs::rename(folder_ / "put away", file());
  key(Qt::Key_1);
  EXPECT_EQ(window_->day().now()->id, 2);
}

TEST_F(Faults, ADamagedPassDoesNotMakeTheBenchLookEmpty) {
  {
    auto log = *Log::open(file());
    for (const char* title : {"one", "two"}) keep(*log, 11, title, Protocol::Retrieve, {}, false);
  }
  spoil("UPDATE pass SET request = 'no JSON' WHERE title = 'one'");
  openWindow();
  EXPECT_EQ(passes().passes().size(), 1U);
  EXPECT_TRUE(window_->notice().contains("one")) << window_->notice().toStdString();
}

/// A clip of its own, measured on the bench.
class ReplacedClip : public Faults {
 protected:
  void SetUp() override {
    Faults::SetUp();
    openWindow();
    scene_ = test::smallPull();
    ASSERT_TRUE(filmRehearsal(scene_, clip()));
    measureIt();
  }
  [[nodiscard]] fs::path clip() const { return folder_ / "pull.mp4"; }
  void measureIt() {
    passes().openClip(QString::fromStdString(clip().string()));
    ASSERT_TRUE(waitFor([this] { return passes().clip() != nullptr; }));
    passes().edit("Say it", [this](PassRequest& r) {
      const PassRequest truth = requestFor(RehearsalTank(scene_), clip());
      r.marks = truth.marks;
      r.scale = truth.scale;
      r.captureRate = truth.captureRate;
      r.firstFrame = truth.firstFrame;
      r.lastFrame = truth.lastFrame;
    });
    ASSERT_TRUE(waitFor([this] { return passes().result() != nullptr && !passes().busy(); }));
  }
  double speed() { return std::get<double>(passes().readings().find(ReadingId::TravelSpeed)->value); }
  void replaceClip() {
    test::film(clip(), {.frames = 120});
    window_.reset();
    openWindow();
    ASSERT_TRUE(waitFor([this] { return passes().clip() != nullptr && !passes().busy(); }));
  }

  RehearsalScene scene_;
};

TEST_F(ReplacedClip, IsNamedAndAHarmlessEditChangesNoNumber) {
  const double before = speed();
  const ClipFingerprint made = passes().current()->clip;
  replaceClip();
  EXPECT_TRUE(passes().clipChanged());
  EXPECT_TRUE(find<QLabel>("messageText")->text().contains("another file"));
  EXPECT_EQ(speed(), before);
  passes().edit("A note", [](PassRequest& r) { r.rigNote = "harmless"; });
  passes().edit("Another length", [](PassRequest& r) { r.scale->length = r.scale->length * 2.0; });
  QTest::qWait(200);
  EXPECT_FALSE(passes().busy()) << "nothing is measured on the other file";
  EXPECT_EQ(speed(), before);
  EXPECT_EQ(passes().current()->clip, made) << "it stays known by the file that it was made on";
  // Put back, it is read with the length that was said meanwhile.
  ASSERT_TRUE(filmRehearsal(scene_, clip()));
  window_.reset();
  openWindow();
  ASSERT_TRUE(waitFor([this] { return passes().result() != nullptr && !passes().busy(); }));
  EXPECT_FALSE(passes().clipChanged());
  EXPECT_NEAR(speed(), 2.0 * before, 1e-6 * before);
}

TEST_F(ReplacedClip, IsMeasuredWhenThePersonSaysSoAndThatIsUndone) {
  const ClipFingerprint made = passes().current()->clip;
  replaceClip();
  press("measureChangedClip");
  EXPECT_FALSE(passes().clipChanged());
  EXPECT_NE(passes().current()->clip, made);
  press("undo");
  ASSERT_TRUE(waitFor([this] { return passes().clip() != nullptr; }));
  EXPECT_EQ(passes().current()->clip, made);
  EXPECT_TRUE(passes().clipChanged());
}

TEST_F(ReplacedClip, IsNotComparedAndIsNamedInTheLineUp) {
  replaceClip();
  window_->go(Place::LineUp);
  const QString said = find<QLabel>("outdatedText")->text();
  EXPECT_TRUE(find<QLabel>("outdatedText")->isVisible());
  EXPECT_TRUE(said.contains("pull") && said.contains("another file")) << said.toStdString();
}

TEST_F(ReplacedClip, ReadingsOfAnEarlierMethodAreNamedAndReadAgain) {
  const double before = speed();
  window_.reset();
  spoil(
      "UPDATE measurement SET method_version = 1; UPDATE reading SET value = 7.0 WHERE name = "
      "'travel_speed'");
  {
    // Not on the bench, where it would be read at once.
    auto log = *Log::open(file());
    const LoggedPass first = log->passes()->front();
    test::write(folder_ / "other.mp4", "stands for a clip");
    PassRequest request;
    request.clip = folder_ / "other.mp4";
    test::addPass(*log, "other", request);
    spoil("UPDATE pass SET id = 0 WHERE title = 'other'");
  }
  openWindow();
  window_->go(Place::LineUp);
  EXPECT_TRUE(find<QLabel>("outdatedText")->text().contains("method"))
      << find<QLabel>("outdatedText")->text().toStdString();
  ASSERT_TRUE(waitFor([this] { return !find<QLabel>("outdatedText")->isVisible(); })) << "read unasked";
  EXPECT_EQ(count("SELECT method_version FROM measurement"), kMethodVersion);
  auto log = *Log::open(file());
  const auto measured = log->readingsOf(log->passes()->back().id);
  EXPECT_NEAR(std::get<double>((*measured)->readings.find(ReadingId::TravelSpeed)->value), before, 1e-9);
}

TEST_F(ReplacedClip, ATrackOfAnEarlierMethodIsFollowedAgainAtAKey) {
  const double before = speed();
  window_.reset();
  spoil(
      "UPDATE measurement SET following_version = 1; UPDATE pass SET id = 5; UPDATE measurement SET pass_id "
      "= 5;"
      "UPDATE reading SET pass_id = 5; UPDATE refusal SET pass_id = 5; UPDATE track_sample SET pass_id = 5;"
      "UPDATE body_brightness SET pass_id = 5");
  {
    auto log = *Log::open(file());
    test::write(folder_ / "other.mp4", "stands for a clip");
    PassRequest request;
    request.clip = folder_ / "other.mp4";
    test::addPass(*log, "other", request);
    spoil("UPDATE pass SET id = 1 WHERE title = 'other'");
  }
  openWindow();
  window_->go(Place::LineUp);
  EXPECT_TRUE(find<QLabel>("outdatedText")->text().contains("following"))
      << find<QLabel>("outdatedText")->text().toStdString();
  press("measureOutdated");
  EXPECT_TRUE(find<QLabel>("outdatedText")->text().contains("1 pass left"));
  ASSERT_TRUE(waitFor([this] { return !find<QLabel>("outdatedText")->isVisible(); }));
  auto log = *Log::open(file());
  const auto measured = log->readingsOf(5);
  ASSERT_TRUE(measured && *measured);
  EXPECT_EQ((*measured)->followingVersion, kFollowingVersion);
  EXPECT_NEAR(std::get<double>((*measured)->readings.find(ReadingId::TravelSpeed)->value), before, 1e-9);
}

TEST_F(Faults, MarkupInANameIsShownAsItIs) {
  const std::string name = "<img src='x'> <b>Bold</b> & co";
  window_.reset();
  plan_.rack.models[0].name = name;
  {
    auto log = *Log::open(file());
    const DayPlan before = *log->plan();
    DayPlan after = before;
    after.rack.models[0].name = name;
    after.name = name;
    ASSERT_TRUE(log->savePlan(before, after));
  }
  openWindow();
  window_->go(Place::Poolside);
  int shown = 0;
  for (const QLabel* label : window_->findChildren<QLabel*>()) {
    if (!label->text().contains("<img") || !label->isVisible()) continue;
    EXPECT_EQ(label->textFormat(), Qt::PlainText) << label->text().toStdString();
    ++shown;
  }
  EXPECT_GT(shown, 0);
}

TEST_F(Faults, ALongPathDoesNotWidenTheWindow) {
  fs::path deep = folder_.path();
  for (int i = 0; i < 8; ++i) deep /= "a folder with quite a long name of its own " + std::to_string(i);
  fs::create_directories(deep);
  auto log = Log::open(deep / "day.finlog");
  ASSERT_TRUE(log) << log.error().message;
  MainWindow window(std::move(*log));
  window.show();
  window.go(Place::Log);
  EXPECT_LE(window.minimumSizeHint().width(), 1280);
}

}  // namespace
}  // namespace fin::app
