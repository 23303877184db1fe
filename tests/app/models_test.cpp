// SPDX-License-Identifier: GPL-3.0-or-later
// What stands behind the window, without a window.
#include <gtest/gtest.h>

#include <QtTest/QTest>

#include "app/controllers/day_controller.h"
#include "app/controllers/pass_controller.h"
#include "app/jobs/frame_loader.h"
#include "app/phrases/words.h"
#include "core/readings/registry.h"
#include "support/small_scene.h"

namespace fin::app {
namespace {

Reading number(double value, double u95, const char* unit) {
  return {ReadingId::FallRate, value, unit, u95, 5.0, Grade::Good, {}};
}

TEST(SpokenValue, HasAsManyFiguresAsItsUncertaintyDeserves) {
  struct Row {
    double value, u95;
    const char* text;
    const char* uncertainty;
  };
  for (const Row& row : {Row{6.6124, 0.0312, "6.61", "± 0.03"}, Row{259.4, 2.3, "259", "± 2"},
                         Row{3.7954, 0.0129, "3.795", "± 0.013"}, Row{1234.5, 38.0, "1235", "± 38"},
                         Row{-0.42, 0.05, "−0.42", "± 0.05"}}) {
    const SpokenValue v = spoken(number(row.value, row.u95, "mm/s"), UnitSystem::Metric);
    EXPECT_EQ(v.value, QString::fromUtf8(row.text));
    EXPECT_EQ(v.uncertainty, QString::fromUtf8(row.uncertainty));
  }
}

TEST(SpokenValue, CountsWithoutDecimals) {
  EXPECT_EQ(spoken(number(4.0, 0.0, ""), UnitSystem::Metric).value, "4");
  EXPECT_TRUE(spoken(number(4.0, 0.0, ""), UnitSystem::Metric).uncertainty.isEmpty());
}

TEST(SpokenValue, SpeaksInchesFeetAndOunces) {
  EXPECT_EQ(spoken(number(254.0, 2.54, "mm"), UnitSystem::Imperial).value, "10.00");
  EXPECT_EQ(spoken(number(10.0, 0.5, "s/m"), UnitSystem::Imperial).unit, "s/ft");
  EXPECT_NEAR(shownUnit("s/m", UnitSystem::Imperial).factor, 0.3048, 1e-12);
  EXPECT_NEAR(28.349523125 * shownUnit("g", UnitSystem::Imperial).factor, 1.0, 1e-12);
  EXPECT_NEAR(0.45359237 * shownUnit("kg", UnitSystem::Imperial).factor, 1.0, 1e-7);
}

TEST(SpokenValue, HasAWordForEveryReading) {
  for (Protocol p : kAllProtocols) {
    for (const ReadingSpec& spec : readingsOf(p)) {
      EXPECT_FALSE(spokenName(spec.id).isEmpty()) << toString(spec.id);
    }
  }
}

TEST(FrameLoader, EndsOnTheFrameAskedForLast) {
  const test::TemporaryFolder folder;
  ASSERT_TRUE(filmRehearsal(test::smallPull(), folder / "a.mp4"));
  FrameLoader loader;
  std::size_t last = 9999;
  QObject::connect(&loader, &FrameLoader::loaded, &loader, [&](std::size_t n, const QImage&) { last = n; });
  loader.setClip(*Clip::open(folder / "a.mp4"));
  for (std::size_t n : {5U, 180U, 20U, 199U, 60U}) loader.request(n);
  ASSERT_TRUE(QTest::qWaitFor([&] { return last == 60; }, 20000));
  QTest::qWait(50);
  EXPECT_EQ(last, 60U);
}

TEST(FrameLoader, ShowsTheNearestItHasAtOnceAndThenTheExactOne) {
  const test::TemporaryFolder folder;
  ASSERT_TRUE(filmRehearsal(test::smallPull(), folder / "a.mp4"));
  FrameLoader loader;
  std::vector<std::size_t> glimpsed;
  std::size_t last = 9999;
  QObject::connect(&loader, &FrameLoader::glimpsed, &loader,
                   [&](std::size_t n, const QImage&) { glimpsed.push_back(n); });
  QObject::connect(&loader, &FrameLoader::loaded, &loader, [&](std::size_t n, const QImage&) { last = n; });
  loader.setClip(*Clip::open(folder / "a.mp4"));
  for (std::size_t n : {10U, 150U}) {
    loader.request(n);
    ASSERT_TRUE(QTest::qWaitFor([&] { return last == n; }, 20000));
    QTest::qWait(100);
  }
  glimpsed.clear();
  loader.request(120);
  EXPECT_EQ(glimpsed, std::vector<std::size_t>{150});  // before the call returns
  ASSERT_TRUE(QTest::qWaitFor([&] { return last == 120; }, 20000));
}

TEST(FrameLoader, ForgetsTheClipBefore) {
  const test::TemporaryFolder folder;
  ASSERT_TRUE(filmRehearsal(test::smallPull(), folder / "a.mp4"));
  FrameLoader loader;
  int loaded = 0;
  QObject::connect(&loader, &FrameLoader::loaded, &loader, [&] { ++loaded; });
  loader.setClip(*Clip::open(folder / "a.mp4"));
  loader.request(150);
  loader.setClip(nullptr);
  QTest::qWait(300);
  EXPECT_EQ(loaded, 0);
}

TEST(DayController, UndoesAndRedoesWholePlans) {
  const test::TemporaryFolder folder;
  const auto log = Log::open(folder / "day.finlog");
  Edits edits;
  DayController controller(**log, edits);
  controller.edit("Name", [](DayPlan& p) { p.name = "one"; });
  controller.edit("Nothing", [](DayPlan&) {});
  controller.edit("Name", [](DayPlan& p) { p.name = "two"; });
  EXPECT_EQ(edits.count(), 2);
  edits.undo();
  EXPECT_EQ(controller.plan().name, "one");
  EXPECT_EQ((*log)->plan()->name, "one");
  edits.redo();
  EXPECT_EQ((*log)->plan()->name, "two");
}

TEST(DayController, MakesTheLastPassAgainRightAway) {
  const test::TemporaryFolder folder;
  const auto log = Log::open(folder / "day.finlog");
  Edits edits;
  DayController controller(**log, edits);
  controller.edit("Plan", [](DayPlan& p) {
    p.rack.models = {{.id = 1, .name = "Vinto 11"}};
    p.rack.rigs = {{.id = 2, .model = 1}};
    p.options.tasks = {{Protocol::Fall, View::Side, {}}};
    p.options.repeats = 3;
  });
  ASSERT_TRUE(controller.makeSheet());
  EXPECT_EQ(controller.titleOf(*controller.now()), "Vinto 11");
  controller.finishNow(PassState::Fouled, "a leaf");
  controller.makeLastAgain();
  ASSERT_EQ(controller.plan().sheet.size(), 4U);
  EXPECT_EQ(controller.now()->attempt, 2);
  EXPECT_EQ(controller.now(), &controller.plan().sheet[1]);
  EXPECT_TRUE(controller.taskOf(*controller.now()).contains("attempt 2"));
}

}  // namespace
}  // namespace fin::app
