// SPDX-License-Identifier: GPL-3.0-or-later
// Several days in one log, through the window.
#include <QDate>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>

#include "read_day_fixture.h"
#include "support/reading_words.h"

namespace fin::app {
namespace {

class DaysTest : public ReadDayTest {
 protected:
  void SetUp() override {
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    plan_.name = "Trough";
    plan_.date = "2026-05-02";
    plan_.rack.models = {{.id = 1, .name = "Vinto"}, {.id = 2, .name = "Mirk"}};
    plan_.rack.rigs = {{.id = 11, .model = 1}, {.id = 12, .model = 2}};
    for (const double rate : {200.0, 204.0, 198.0}) {
      for (const RigId rig : {RigId(11), RigId(12)})
        keep(**log, rig, "fall " + std::to_string(rate) + std::to_string(rig.value()), Protocol::Fall,
             {{ReadingId::FallRate, rate, "mm/s", 1.0, 60.0}}, true);
    }
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan_));
    log->reset();
    openWindow();
  }
  [[nodiscard]] QString strip() { return find<QPushButton>("days")->text(); }
  QListWidget* openDays() {
    QTest::keyClick(window_.get(), Qt::Key_D, Qt::ControlModifier);
    return visible<QListWidget>("dayList");
  }
  void beginSecond() {
    openDays();
    typeInto(visible<QLineEdit>("newDate"), "2026-06-01");
    QTest::mouseClick(visible<QPushButton>("newTestDay"), Qt::LeftButton);
  }
  void undo() { QTest::keyClick(window_.get(), Qt::Key_Z, Qt::ControlModifier); }
  void redo() { press("redo"); }
};

TEST_F(DaysTest, ANewDayIsBegunChosenAndUndone) {
  EXPECT_EQ(strip(), "2 May, Trough");
  beginSecond();
  EXPECT_EQ(strip(), "1 Jun");
  EXPECT_TRUE(waitFor([this] { return window_->findChild<QListWidget*>("dayList") == nullptr; }));
  const DayPlan& day = window_->day().plan();
  EXPECT_TRUE(day.sheet.empty());
  EXPECT_EQ(day.rack.models.size(), 2U) << "the rack is all days'";
  EXPECT_EQ(window_->passController().current(), nullptr) << "nothing was filmed yet";
  undo();
  EXPECT_EQ(strip(), "2 May, Trough");
  EXPECT_NE(window_->passController().current(), nullptr);
  EXPECT_EQ(window_->day().days().size(), 1U);
  redo();
  EXPECT_EQ(strip(), "1 Jun");
  openWindow();
  EXPECT_EQ(strip(), "1 Jun") << "the newest is shown first";
}

TEST_F(DaysTest, WhatIsNoDateIsSaid) {
  openDays();
  typeInto(visible<QLineEdit>("newDate"), "tomorrow");
  QTest::mouseClick(visible<QPushButton>("newTestDay"), Qt::LeftButton);
  EXPECT_EQ(window_->day().days().size(), 1U);
  EXPECT_TRUE(visible<QLabel>("dayTrouble")->text().startsWith("tomorrow is no date."));
}

TEST_F(DaysTest, UndoingWhatWasDoneOnAnotherDayShowsThatDay) {
  window_->day().edit("Name the day", [](DayPlan& plan) { plan.name = "Pool"; });
  beginSecond();
  window_->day().choose(1);
  EXPECT_EQ(strip(), "2 May, Pool");
  undo();  // the second day goes
  undo();
  EXPECT_EQ(strip(), "2 May, Trough");
}

TEST_F(DaysTest, APassIsMovedToAnotherDayAndBack) {
  beginSecond();
  const DayId second = window_->day().plan().id;
  window_->day().choose(1);
  const PassId id = window_->passController().current()->id;
  auto* list = openDays();
  EXPECT_FALSE(visible<QPushButton>("movePass")->isEnabled()) << "it is of this day";
  list->setCurrentRow(0);
  QTest::mouseClick(visible<QPushButton>("movePass"), Qt::LeftButton);
  EXPECT_EQ(window_->passController().passWith(id)->day, second);
  EXPECT_FALSE(window_->passController().passWith(id)->planned) << "it was planned there, not here";
  undo();
  EXPECT_EQ(window_->passController().passWith(id)->day, DayId(1));
  EXPECT_TRUE(window_->passController().passWith(id)->planned);
}

TEST_F(DaysTest, AMovedPassStandsOnThatDaysSizeAndTime) {
  beginSecond();
  const DayId second = window_->day().plan().id;
  window_->day().choose(1);
  const LoggedPass pass = *window_->passController().current();
  fin::Calibration there;
  there.captureRate = Hertz(240.0);
  auto log = std::move(*Log::open(folder_ / "day.finlog"));
  ASSERT_TRUE(log->keepCalibration(pass.camera, "2026-06-01", {},
                                   KeptCalibration{pass.camera, "2026-06-01", there, pass.request.clip}));
  window_->passController().moveTo(second, {pass.id});
  EXPECT_EQ(window_->passController().passWith(pass.id)->day, second);
  EXPECT_EQ(window_->passController().passWith(pass.id)->request.captureRate, Hertz(240.0));
  undo();
  EXPECT_EQ(window_->passController().passWith(pass.id)->request, pass.request);
}

TEST_F(DaysTest, ADayIsTestedAgainWithOneThingChanged) {
  openDays();
  EXPECT_FALSE(visible<QPushButton>("retest")->isEnabled());
  typeInto(visible<QLineEdit>("newDate"), "2026-06-01");
  visible<QLineEdit>("whatChanges")->setText("12 g of salt");
  QTest::mouseClick(visible<QPushButton>("retest"), Qt::LeftButton);
  const DayPlan& day = window_->day().plan();
  EXPECT_EQ(day.name, "Trough, again: 12 g of salt");
  ASSERT_EQ(day.sheet.size(), 6U);
  EXPECT_EQ(day.sheet.front().state, PassState::Planned);
  EXPECT_EQ(day.heldEqual.back().value, "12 g of salt");
}

TEST_F(DaysTest, TickedDaysAreComparedTogether) {
  beginSecond();
  auto* list = openDays();
  ASSERT_EQ(list->count(), 2);
  list->item(1)->setCheckState(Qt::Checked);
  QTest::keyClick(list, Qt::Key_Escape);
  EXPECT_EQ(strip(), "1 Jun and 1 more");
  QTest::keyClick(window_.get(), Qt::Key_4, Qt::ControlModifier);
  EXPECT_EQ(find<QListWidget>("comparedPasses")->count(), 6) << "of the first day";
}

TEST_F(DaysTest, ADayIsTakenOutAndBroughtBack) {
  beginSecond();
  auto* list = openDays();
  list->setCurrentRow(1);
  QTest::mouseClick(visible<QPushButton>("hideDay"), Qt::LeftButton);
  EXPECT_EQ(window_->day().days().size(), 1U);
  EXPECT_TRUE(window_->passController().passes().empty()) << "its passes go with it";
  QTest::keyClick(visible<QListWidget>("dayList"), Qt::Key_Escape);
  undo();
  EXPECT_EQ(strip(), "2 May, Trough");
  EXPECT_EQ(window_->passController().passes().size(), 6U);
}

TEST_F(DaysTest, ARigThatIsChangedIsASlipOrChangedFromThisDayOn) {
  beginSecond();
  const auto hook = [this](const char* size) {
    window_->day().edit("Hook", [size](DayPlan& plan) { plan.rack.rigs[0].hookSize = size; });
  };
  auto* bar = find<QFrame>("editionBar");
  hook("4");
  EXPECT_TRUE(bar->isVisible());
  EXPECT_EQ(text("editionText"), "Vinto was filmed on 1 other day as it was before.");
  press("editionSlip");
  EXPECT_FALSE(bar->isVisible());
  EXPECT_TRUE(window_->day().plan().rack.editions.empty()) << "correct everywhere";
  hook("2");
  press("editionFrom");
  ASSERT_EQ(window_->day().plan().rack.editions.size(), 1U);
  EXPECT_EQ(window_->day().plan().rack.rigOn(1, 11)->hookSize, "4");
  EXPECT_EQ(window_->day().plan().rack.rig(11)->hookSize, "2");
  hook("1");
  EXPECT_FALSE(bar->isVisible()) << "of the earlier day it is said already";
  window_->day().choose(1);
  QTest::keyClick(window_.get(), Qt::Key_4, Qt::ControlModifier);
  EXPECT_TRUE(find<QWidget>("pairMatrix")->accessibleDescription().contains("Vinto (hook 4)"));
}

}  // namespace
}  // namespace fin::app
