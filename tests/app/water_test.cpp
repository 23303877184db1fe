// SPDX-License-Identifier: GPL-3.0-or-later
// A day on the water through the window: noted, chosen by, run by keys alone, and what came of it.
#include <QComboBox>
#include <QLineEdit>
#include <QListWidget>
#include <QSpinBox>
#include <QTableWidget>

#include "app/places/log/day_page.h"
#include "app/places/plan/plan_place.h"
#include "app/print/pocket_card.h"
#include "app/ui/unit_box.h"
#include "core/units/date.h"
#include "read_day_fixture.h"
#include "support/reading_words.h"

namespace fin::app {
namespace {

constexpr double kMorning_s = 1.78e9;

class WaterTest : public ReadDayTest {
 protected:
  /// Three rigs that were measured on a test day, and a day on the water that was not fished yet.
  void SetUp() override {
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    plan_.name = "Trough";
    plan_.date = "2026-05-02";
    plan_.rack.models = {{.id = 1, .name = "Vinto", .length_mm = 110.0, .finish = Finish::Dull},
                         {.id = 2, .name = "Mirk", .length_mm = 70.0, .finish = Finish::Bright},
                         {.id = 3, .name = "Hasp", .length_mm = 60.0}};
    plan_.rack.rigs = {{.id = 11, .model = 1}, {.id = 12, .model = 2}, {.id = 13, .model = 3}};
    plan_.rack.pieces = {{.id = 31, .model = 1, .paid = 5.0, .currency = "EUR"}};
    for (int n = 0; n < 2; ++n) {
      keep(**log, 11, "pull a" + std::to_string(n), Protocol::Retrieve,
           {{ReadingId::KickAngle, 36.0 + n, "deg", 1.0, 60.0}}, true);
      keep(**log, 12, "pull b" + std::to_string(n), Protocol::Retrieve,
           {{ReadingId::KickAngle, 18.0 + n, "deg", 1.0, 60.0}}, true);
    }
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan_));
    DayPlan none;
    none.id = 50;
    none.rack = plan_.rack;
    DayPlan wet = none;
    wet.kind = DayKind::Water;
    wet.date = dateAt(kMorning_s);
    wet.name = "Canal";
    ASSERT_TRUE((*log)->savePlan(none, wet));
    log->reset();
    openWindow();
    window_->water().setClock([this] { return now_s_; });
    window_->day().choose(50);
  }
  void go(int place) { press(QString("place%1").arg(place).toUtf8().constData()); }
  void note(const char* what, const QString& typed) {
    auto* box = find<QComboBox>((QString("condition_") + what).toUtf8().constData());
    box->lineEdit()->setFocus();
    box->lineEdit()->selectAll();
    QTest::keyClicks(box->lineEdit(), typed);
    QTest::keyClick(box->lineEdit(), Qt::Key_Tab);
  }
  const DayPlan& day() { return window_->day().plan(); }
  void later(double minutes) { now_s_ += 60.0 * minutes; }
  void key(int key) {
    QTest::keyClick(&window_->findChild<PoolsidePlace*>()->running(), static_cast<Qt::Key>(key));
  }
  void tie(const QString& rig) {
    key(Qt::Key_T);
    auto* list = visible<QListWidget>("tieList");
    for (int i = 0; i < list->count(); ++i) {
      if (list->item(i)->text().startsWith(rig)) list->setCurrentRow(i);
    }
    QTest::keyClick(list, Qt::Key_Return);
  }

  double now_s_ = kMorning_s;
};

TEST_F(WaterTest, TheWaterIsNotedByKeysAndStandsOnEveryPage) {
  go(0);
  EXPECT_TRUE(find<QPushButton>("step9")->isVisible());
  EXPECT_FALSE(find<QPushButton>("step6")->isVisible()) << "no pass sheet on the water";
  press("step9");
  EXPECT_TRUE(text("conditionsBar").startsWith("Nothing is noted"));
  note("surface_temperature_C", "8");
  note("clarity_m", "0.8");
  note("light", "dusk");
  note("wind", "4.45");
  note("current_m_s", "unknown");
  EXPECT_EQ(text("conditionsBar"), QString::fromUtf8("8 °C  ·  disc 0.8 m  ·  wind 4.45 m/s  ·  dusk"));
  EXPECT_TRUE(text("waterCautions").contains("takes the breath"));
  ASSERT_EQ(day().conditions.size(), 5U);
  EXPECT_TRUE(day().conditions[4].unknown());
  note("light", "green");
  EXPECT_TRUE(text("conditionTrouble").contains("never \"green\"")) << text("conditionTrouble").toStdString();
  note("clarity_m", "99");
  EXPECT_EQ(day().conditions.size(), 5U) << "what cannot be is not kept";
  note("depth_m", "0.5");
  EXPECT_TRUE(text("contradictions").contains("seen down to 0.8 m")) << text("contradictions").toStdString();
  later(30);
  note("clarity_m", "1.4");
  EXPECT_EQ(day().conditions.size(), 7U) << "a change is a new line";
  press("takeBackNote");
  EXPECT_EQ(window_->water().water().number(Condition::Clarity), 0.8);
  for (const int place : {1, 2, 3, 4, 5}) {
    go(place);
    EXPECT_TRUE(find<QLabel>("conditionsBar")->isVisible()) << place;
  }
  window_->day().choose(1);
  EXPECT_FALSE(find<QLabel>("conditionsBar")->isVisible()) << "a test day has its own water";
}

TEST_F(WaterTest, WhatToTieOnFollowsFromOpinionsThatCanBeSwitchedAndWritten) {
  go(0);
  press("step9");
  note("clarity_m", "0.8");
  press("step10");
  // Rattle and wobble were never read: a quarter of what clear water asks for is known.
  EXPECT_TRUE(text("tieOnHeadline").startsWith("Unknown here")) << text("tieOnHeadline").toStdString();
  EXPECT_TRUE(text("tieOnWords").contains("Film them to tell more"));
  press("step11");
  auto* rules = find<QTableWidget>("rules");
  ASSERT_EQ(rules->rowCount(), 20);
  rules->item(2, 2)->setText("kick_angle + x2 (loud)");
  press("step10");
  EXPECT_EQ(text("tieOnHeadline"), "Tie on: Vinto");
  auto* rigs = find<QTableWidget>("tieOnRigs");
  EXPECT_EQ(text("tieOnChosen"), "What speaks for Vinto: 10.0 of 10 points");
  EXPECT_TRUE(rigs->item(2, 2)->text().contains("not ranked")) << "Hasp was never read";
  EXPECT_TRUE(
      text("tieOnReasons").contains("Kick width, the more the better (felt before seen): 10.0 points"))
      << text("tieOnReasons").toStdString();
  auto* sound = find<QComboBox>("schoolSound");
  sound->setCurrentIndex(2);
  emit sound->activated(2);
  EXPECT_TRUE(text("tieOnHeadline").startsWith("No rule is awake")) << "quiet silences it";
  press("undo");
  EXPECT_EQ(text("tieOnHeadline"), "Tie on: Vinto");
  find<QListWidget>("tieRules")->item(2)->setCheckState(Qt::Unchecked);
  EXPECT_FALSE(day().rules[2].on);
  EXPECT_TRUE(text("tieOnHeadline").startsWith("No rule is awake"));
  press("step11");
  rules->item(0, 1)->setText("water < cold");
  EXPECT_EQ(rules->item(0, 1)->text(), "water < 8 or change <= -2") << "what is not understood goes back";
  press("usualRules");
  EXPECT_TRUE(day().rules.empty());
}

TEST_F(WaterTest, AnHourIsRunByKeysAlone) {
  go(1);
  auto& page = window_->findChild<PoolsidePlace*>()->running();
  EXPECT_EQ(text("rodState1"), "press T");
  tie("Vinto");
  EXPECT_EQ(text("rodRig1"), "Vinto");
  key(Qt::Key_Space);
  key(Qt::Key_Right);
  tie("Mirk");
  key(Qt::Key_Space);
  later(20);
  key(Qt::Key_1);  // a fish on rod 2
  key(Qt::Key_P);
  key(Qt::Key_M);
  key(Qt::Key_R);
  key(Qt::Key_Up);
  key(Qt::Key_Up);
  const RunEvent fish = day().events.back();
  EXPECT_EQ(fish.kind, RunEventKind::Caught);
  EXPECT_EQ(fish.rig, RigId(12));
  EXPECT_EQ(fish.on, TakenOn::Pause);
  EXPECT_EQ(fish.hooked, HookedWhere::Mouth);
  EXPECT_EQ(fish.released, true);
  EXPECT_EQ(fish.length_mm, 450.0);
  EXPECT_TRUE(text("tierAdvice").contains("a bite: stay")) << text("tierAdvice").toStdString();
  later(10);
  key(Qt::Key_5);  // the lure is lost
  EXPECT_EQ(text("rodRig2"), "no lure");
  key(Qt::Key_Left);
  later(30);
  key(Qt::Key_2);
  const RunningDay run = window_->water().run();
  EXPECT_NEAR(run.rodHours(), 1.0 + 0.5, 1e-9);
  EXPECT_EQ(run.count(RunEventKind::Missed), 1U);
  EXPECT_TRUE(text("runSums").contains("1.5 rod-hours, 1 fish, 1 miss, 0 follows"))
      << text("runSums").toStdString();
  EXPECT_TRUE(text("runSums").contains("Wasted: 30 rod-minutes out of the water"));
  later(31);
  page.tick();
  EXPECT_TRUE(
      text("tierAdvice").startsWith("Step down, with Page Down: no touch for 30 rod-minutes and more"))
      << text("tierAdvice").toStdString();
  key(Qt::Key_PageDown);
  EXPECT_EQ(window_->water().run().tier, 2);
  press("undo");
  EXPECT_EQ(window_->water().run().tier, 1);
}

TEST_F(WaterTest, AfterASleepTheGapIsAskedAndAFishOfARodThatIsDownTheRig) {
  go(1);
  auto& page = window_->findChild<PoolsidePlace*>()->running();
  tie("Vinto");
  key(Qt::Key_Space);
  page.tick();
  later(90);
  page.tick();
  EXPECT_TRUE(text("runTold").contains("nothing was noted. Were the rods fishing?"))
      << text("runTold").toStdString();
  key(Qt::Key_N);
  EXPECT_FALSE(text("runTold").contains("Were the rods fishing"));
  EXPECT_NEAR(window_->water().run().rodHours(), 0.0, 1e-9);
  later(1);
  page.tick();
  key(Qt::Key_Space);
  key(Qt::Key_1);
  auto* list = visible<QListWidget>("tieList");
  ASSERT_NE(list, nullptr) << "on which rig was it?";
  QTest::keyClick(list, Qt::Key_Return);
  EXPECT_EQ(day().events.back().kind, RunEventKind::Caught);
  EXPECT_TRUE(day().events.back().rig);
}

TEST_F(WaterTest, StretchesThatBothRodsFishAreBlocks) {
  go(1);
  tie("Vinto");
  key(Qt::Key_Space);
  key(Qt::Key_Right);
  tie("Mirk");
  key(Qt::Key_Space);
  key(Qt::Key_B);
  later(30);
  key(Qt::Key_1);
  auto& page = window_->findChild<PoolsidePlace*>()->running();
  page.tick();
  EXPECT_TRUE(text("tierAdvice").contains("This stretch has had its 30 minutes. As drawn, next: "))
      << text("tierAdvice").toStdString();
  key(Qt::Key_B);
  EXPECT_FALSE(text("tierAdvice").contains("As drawn"));
  later(30);
  const auto blocks = blocksOf({window_->water().run()}, 11, 12);
  ASSERT_EQ(blocks.size(), 2U);
  EXPECT_NEAR(blocks[0].hoursFirst, 0.5, 1e-9);
  EXPECT_EQ(blocks[0].second, 1U);
  EXPECT_EQ(blocks[1].second, 0U);
}

TEST_F(WaterTest, SpeedsMakeTiersOfWhatWasHeardAndACardForThePocket) {
  go(0);
  press("step12");
  EXPECT_TRUE(text("tiersHeadline").startsWith("No rigs for so many rods share a speed"));
  window_->day().edit("Heard", [](DayPlan& plan) {
    plan.waterDay.rods = 1;
    plan.rack.rigs[0].heard = {1000.0, 1400.0, {}, {}, "a friend"};
    plan.rack.rigs[1].heard = {500.0, 700.0, {}, {}, "a friend"};
  });
  EXPECT_TRUE(text("tiersHeadline").startsWith("2 tiers")) << text("tiersHeadline").toStdString();
  EXPECT_TRUE(text("tiers").contains("4.3 km/h · 2.7 mph · 2.33 kn · 1200 mm/s"))
      << text("tiers").toStdString();
  typeInto(find<UnitBox>("currentPull"), "1200");
  typeInto(find<UnitBox>("currentSpeed"), "300");
  EXPECT_TRUE(text("currentWords").contains("1237 mm/s")) << text("currentWords").toStdString();
  typeInto(find<UnitBox>("currentSpeed"), "1.8 mph");
  EXPECT_NEAR(find<UnitBox>("currentSpeed")->metric(), 805.0, 0.5);
  const WaterSeason& season = window_->water().season();
  const QString file = QString::fromStdString((folder_ / "card.pdf").string());
  ASSERT_TRUE(printPocketCard(pocketCard(season.rack, season.passes, season.bands, 1, {}), "Canal", file));
  EXPECT_GT(QFileInfo(file).size(), 1000);
  EXPECT_FALSE(printPocketCard({}, "Canal", "/nowhere/card.pdf"));
}

TEST_F(WaterTest, ACatchIsMovedToAnotherDayWithItsClockTimeAndBack) {
  window_->water().editRules("Switch", [](std::vector<TieRule>& rules) { rules[0].on = false; });
  window_->water().note({.what = Condition::Clarity, .number = 2.0});
  window_->day().beginDay(DayKind::Water, "2026-06-01");
  const DayId other = day().id;
  ASSERT_NE(other, DayId(50)) << "a log with rules of its own begins a day too";
  EXPECT_TRUE(day().conditions.empty()) << "what was noted yesterday is not so today";
  EXPECT_EQ(day().rules.size(), 20U);
  window_->day().choose(50);
  go(1);
  tie("Vinto");
  key(Qt::Key_Space);
  later(20);
  key(Qt::Key_1);
  const RunEvent fish = day().events.back();
  go(5);
  auto* list = find<QListWidget>("dayPasses");
  EXPECT_FALSE(find<QPushButton>("takeEvent")->isEnabled()) << "it is of the day in the strip";
  window_->day().choose(other);
  window_->findChild<DayPage*>()->show(50);
  ASSERT_EQ(list->count(), 2) << "the tying and the fish";
  list->setCurrentRow(1);
  press("takeEvent");
  ASSERT_EQ(day().events.size(), 1U);
  EXPECT_EQ(day().events[0], fish);
  EXPECT_EQ(list->count(), 1) << "it is gone from the other day";
  press("undo");
  EXPECT_TRUE(day().events.empty());
  window_->day().choose(50);
  EXPECT_EQ(day().events.back(), fish);
  EXPECT_EQ(day().events.size(), 3U);
}

TEST_F(WaterTest, CatchesAndBoxAreDecidedInTheVerdict) {
  go(4);
  EXPECT_TRUE(text("catchesHeadline").startsWith("Nothing was fished yet"));
  window_->day().edit("A day", [](DayPlan& plan) {
    const auto at = [&plan](double hour, RunEventKind kind, int rod, RigId rig) {
      plan.events.push_back({.id = static_cast<std::int64_t>(100 + plan.events.size()),
                             .at_s = kMorning_s + 3600.0 * hour,
                             .kind = kind,
                             .rod = rod,
                             .rig = rig});
    };
    at(0, RunEventKind::Tie, 1, 11);
    at(0, RunEventKind::Fish, 1, {});
    at(0, RunEventKind::Tie, 2, 12);
    at(0, RunEventKind::Fish, 2, {});
    for (const double hour : {0.5, 1.0, 1.5}) at(hour, RunEventKind::Caught, 1, 11);
    at(1.6, RunEventKind::Caught, 2, 12);
    at(2, RunEventKind::Rest, 1, {});
    at(2, RunEventKind::Rest, 2, {});
  });
  EXPECT_TRUE(text("catchesHeadline").startsWith("Most fish an hour, given the spread: Vinto"));
  auto* rates = find<QTableWidget>("catchRates");
  ASSERT_EQ(rates->rowCount(), 2);
  EXPECT_EQ(rates->item(0, 3)->text(), "1.50 (0.31 to 4.38)");
  EXPECT_EQ(rates->item(0, 8)->text(), "6.00 (1.24 to 17.53) EUR");
  EXPECT_EQ(rates->item(0, 5)->toolTip(), "An hour: 0.00 (0.00 to 1.84)")
      << "misses have a rate of their own";
  EXPECT_TRUE(text("catchPair").startsWith("Vinto and Mirk: too close to call."))
      << text("catchPair").toStdString();
  EXPECT_TRUE(text("catchPair").contains("They were not fished side by side"));
  EXPECT_TRUE(find<QListWidget>("tankAndWater")->item(0)->text().contains("No rig was both"));
  press("verdictBox");
  auto* spares = find<QTableWidget>("boxSpares");
  ASSERT_EQ(spares->rowCount(), 2);
  EXPECT_EQ(spares->item(0, 0)->text(), "Vinto");
  EXPECT_EQ(text("boxHeadline"), "Of no lure enough is known to fill a box.");
  EXPECT_TRUE(text("boxWords").contains("Not covered"));
  auto* purposes = find<QListWidget>("boxPurposes");
  for (int i = 0; i < purposes->count(); ++i) purposes->item(i)->setCheckState(Qt::Unchecked);
  EXPECT_EQ(text("boxHeadline"), "Tick what the box is for.");
}

}  // namespace
}  // namespace fin::app
