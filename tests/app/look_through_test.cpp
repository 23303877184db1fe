// SPDX-License-Identifier: GPL-3.0-or-later
// Clips that are measured while nobody presses anything, and the page on which a person looks at each once.
#include <QLabel>

#include "app/window_fixture.h"
#include "support/logged.h"
#include "support/numbered_film.h"

namespace fin::app {
namespace {

class LookingThrough : public WindowTest {
 protected:
  void SetUp() override {
    for (const char* name : {"one.mp4", "two.mp4"}) {
      ASSERT_TRUE(filmRehearsal(test::smallPull(), folder_ / name));
    }
    RehearsalScene empty = test::smallPull();
    std::get<StraightPull>(empty.motion).start_mm = -5000.0;  // it never comes
    ASSERT_TRUE(filmRehearsal(empty, folder_ / "empty.mp4"));
  }
  /// A pass without marks on a clip.
  PassId add(Log& log, const std::string& name) {
    PassRequest request = requestFor(RehearsalTank(test::smallPull()), folder_ / name);
    request.marks.clear();
    return test::addPass(log, name, request);
  }
  std::unique_ptr<Log> log() { return std::move(*Log::open(folder_ / "day.finlog")); }
  /// Those two, measured by one press.
  void measureBoth() {
    {
      const auto day = log();
      one_ = add(*day, "one.mp4");
      two_ = add(*day, "two.mp4");
    }
    openWindow();
    EXPECT_TRUE(find<QPushButton>("measureUnmarked")->isVisible());
    press("measureUnmarked");
    ASSERT_TRUE(waitFor([this] { return window_->queue().left() == 0; }));
    window_->go(Place::LookThrough);
  }
  void key(Qt::Key key) { QTest::keyClick(QApplication::focusWidget(), key); }
  QString text(const char* label) { return find<QLabel>(label)->text(); }
  [[nodiscard]] std::optional<Finding> findingOf(PassId id) { return log()->pass(id)->finding; }
  [[nodiscard]] std::size_t compared() {
    FingerprintCache fingerprints;
    return dayReadings(*log(), {}, fingerprints)->current.size();
  }

  PassId one_, two_;
};

TEST_F(LookingThrough, ClipsAreMeasuredByOnePressAndTakenByEnter) {
  measureBoth();
  ASSERT_TRUE(findingOf(one_) && findingOf(one_)->found());
  EXPECT_EQ(compared(), 0U) << "nobody has looked";
  EXPECT_TRUE(text("lookCount").startsWith("1 of 2")) << text("lookCount").toStdString();
  ASSERT_TRUE(waitFor([this] { return text("lookNumbers").contains("Wobble rate"); }));
  key(Qt::Key_Return);
  EXPECT_EQ(compared(), 1U);
  EXPECT_TRUE(text("lookCount").startsWith("1 of 1"));
  key(Qt::Key_Return);
  EXPECT_EQ(compared(), 2U);
  EXPECT_EQ(text("lookTitle"), "No pass waits for a look");
  EXPECT_FALSE(find<QPushButton>("lookThrough")->isVisible());
  window_->edits().undo();
  EXPECT_EQ(compared(), 1U);
  EXPECT_TRUE(text("lookCount").startsWith("1 of 1"));
}

TEST_F(LookingThrough, SwappedEndsAreFollowedAnewAndLookedAtAgain) {
  measureBoth();
  const PassId shown = one_;
  const auto nose = [&] {
    const PassRequest kept = log()->pass(shown)->request;
    for (const MarkSeed& mark : kept.marks) {
      if (mark.name == MarkName::Nose) return mark.at;
    }
    return PixelPoint{};
  };
  const PixelPoint before = nose();
  const QString title = text("lookTitle");
  ASSERT_EQ(title, "one.mp4");
  key(Qt::Key_X);
  EXPECT_GT(length(nose() - before).value(), 20.0) << "the other end";
  ASSERT_TRUE(waitFor([this] { return window_->queue().left() == 0; }));
  EXPECT_TRUE(findingOf(shown)) << "it waits for another look";
  EXPECT_EQ(compared(), 0U);
  key(Qt::Key_F);
  EXPECT_FALSE(findingOf(shown));
  EXPECT_EQ(log()->pass(shown)->request.fouled.size(), 1U);
}

TEST_F(LookingThrough, MarksTheDetailsThatAPersonMarkedInAnEarlierPassOfTheRig) {
  const RehearsalTank tank(test::smallPull());
  const auto placed = [&](double share, std::size_t frame) {
    const PixelPoint nose = tank.markAt(MarkName::Nose, frame), tail = tank.markAt(MarkName::Tail, frame);
    return tail + (nose - tail) * share;
  };
  PassId id;
  {
    const auto day = log();
    PassRequest request = requestFor(tank, folder_ / "one.mp4");
    request.rigName = "Oblig 18";
    request.marks = {{MarkName::Nose, 70, placed(0.8, 70)}, {MarkName::Tail, 70, placed(0.4, 70)}};
    test::addPass(*day, "one.mp4", request);
    request.clip = folder_ / "two.mp4";
    request.marks.clear();
    id = test::addPass(*day, "two.mp4", request);
  }
  openWindow();
  window_->queue().add({id}, Depth::Find);
  ASSERT_TRUE(waitFor([this] { return window_->queue().left() == 0; }));
  ASSERT_TRUE(findingOf(id) && findingOf(id)->found());
  const PassRequest kept = log()->pass(id)->request;
  for (const MarkSeed& mark : kept.marks) {
    const double share = mark.name == MarkName::Nose ? 0.8 : 0.4;
    EXPECT_LT(length(mark.at - placed(share, mark.frame)).value(), 4.0) << "a twentieth of the body";
  }
}

TEST_F(LookingThrough, SaysWhereNothingWasFoundAndLeavesItToTheHand) {
  PassId id;
  {
    const auto day = log();
    add(*day, "one.mp4");
    id = add(*day, "empty.mp4");
  }
  openWindow();
  press("measureUnmarked");
  ASSERT_TRUE(waitFor([this] { return window_->queue().left() == 0; }));
  ASSERT_TRUE(findingOf(id));
  EXPECT_FALSE(findingOf(id)->found());
  window_->go(Place::LookThrough);
  EXPECT_EQ(text("lookTitle"), "empty.mp4") << "what needs the hand comes first";
  EXPECT_TRUE(text("lookSentence").contains("Not found")) << text("lookSentence").toStdString();
  EXPECT_FALSE(find<QPushButton>("takeFound")->isEnabled());
  key(Qt::Key_Return);
  EXPECT_TRUE(findingOf(id)) << "there is nothing to be taken";
  key(Qt::Key_B);
  EXPECT_TRUE(window_->bench().isVisible());
  ASSERT_TRUE(waitFor([&] { return window_->passController().clip() != nullptr; }));
  EXPECT_EQ(window_->passController().current()->id, id);
  window_->passController().edit("Place the nose", [](PassRequest& r) {
    r.marks = {{MarkName::Nose, 5, {200.0, 100.0}}, {MarkName::Tail, 5, {150.0, 100.0}}};
  });
  EXPECT_FALSE(findingOf(id)) << "a person has looked";
}

TEST_F(LookingThrough, ClipsOfPlannedPassesAreMeasuredAsTheyCome) {
  const auto planned = [this](const std::string& name) {
    const auto day = log();
    DayPlan plan = *day->plan(), before = plan;
    plan.rack.models.push_back({.id = 1, .name = "Oblig 18"});
    plan.rack.rigs.push_back({.id = 2, .model = 1});
    plan.sheet.push_back({.id = 3, .rig = 2, .protocol = Protocol::Retrieve});
    EXPECT_TRUE(day->savePlan(before, plan));
    PassRequest request = requestFor(RehearsalTank(test::smallPull()), folder_ / name);
    request.marks.clear();
    return test::addPass(*day, name, request, PlannedPassId(3));
  };
  const PassId id = planned("one.mp4");
  Settings::all().setMeasuresByItself(false);
  openWindow();
  EXPECT_EQ(window_->queue().left(), 0U) << "left until asked";
  Settings::all().setMeasuresByItself(true);
  openWindow();
  EXPECT_EQ(window_->queue().left(), 1U);
  press("stopFinding");
  EXPECT_EQ(window_->queue().left(), 0U);
  EXPECT_FALSE(findingOf(id)) << "nothing of it is kept";
  openWindow();  // it goes on
  ASSERT_TRUE(waitFor([this] { return window_->queue().left() == 0; }));
  ASSERT_TRUE(findingOf(id));
  EXPECT_TRUE(findingOf(id)->found());
  EXPECT_TRUE(find<QPushButton>("lookThrough")->isVisible());
  press("lookThrough");
  EXPECT_EQ(text("lookTitle"), "one.mp4");
}

TEST_F(WindowTest, AThousandClipsThatCannotBeReadAreEachSaidAndNoneIsInventedOf) {
  constexpr std::size_t kMany = 1000;
  {
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    PassRequest request;
    request.clip = folder_ / "notes.mp4";
    test::write(request.clip, "This is a shopping list, not a film.");
    for (std::size_t i = 0; i < kMany; ++i) test::addPass(**log, "clip " + std::to_string(i), request);
  }
  openWindow();
  std::size_t told = 0;
  QObject::connect(&window_->queue(), &MeasuringQueue::told, window_.get(),
                   [&told](const QString& message, bool trouble) { told += trouble && !message.isEmpty(); });
  press("measureUnmarked");
  EXPECT_EQ(window_->queue().left(), kMany);
  ASSERT_TRUE(waitFor([this] { return window_->queue().left() == 0; }));
  EXPECT_EQ(told, kMany);
  for (const LoggedPass& pass : window_->passController().passes())
    ASSERT_TRUE(!pass.finding && pass.request.marks.empty()) << pass.title;
}

TEST_F(WindowTest, SeveralThingsInAFoundClipBecomePassesThatWaitForALook) {
  test::film(folder_ / "several.mp4", {.frames = 350});
  PassRequest request;
  request.clip = folder_ / "several.mp4";
  request.pull = Pull::Right;
  request.scale = ScaleMark{{0.0, 90.0}, {100.0, 90.0}, Millimetres(100.0), Millimetres(0.5)};
  request.marks = {{MarkName::Nose, 0, {80.0, 20.0}}, {MarkName::Tail, 0, {0.0, 20.0}}};
  request.lastFrame = 349;
  {
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    const PassId id = test::addPass(**log, "several", request);
    const LoggedPass placed = *(*log)->pass(id);
    LoggedPass found = placed;
    found.finding = Finding{{{request.marks[0], 0.9}, {request.marks[1], 0.6}}, {}};
    ASSERT_TRUE((*log)->changePasses({{placed, found}}));
    test::keepReadings(**log, id, {}, test::severalThings());
  }
  openWindow();
  window_->go(Place::LookThrough);
  QPushButton* split = find<QPushButton>("splitFound");
  ASSERT_TRUE(waitFor([&] { return split->isVisible(); }));
  EXPECT_TRUE(find<QLabel>("lookNotes")->text().contains("Several things")) << "and which they are";
  QTest::keyClick(QApplication::focusWidget(), Qt::Key_S);
  ASSERT_TRUE(waitFor([&] { return window_->lookThrough().waiting().size() == 3; }));
  for (const LoggedPass& part : window_->passController().passes()) {
    EXPECT_TRUE(part.finding) << part.title;
    EXPECT_NE(part.title, "several") << "its parts stand in place of the whole";
  }
}

}  // namespace
}  // namespace fin::app
