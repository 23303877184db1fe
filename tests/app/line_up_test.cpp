// SPDX-License-Identifier: GPL-3.0-or-later
// The Line-up driven as a person drives it, on a day whose readings are known.
#include <qcustomplot.h>
#include <QApplication>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QListWidget>
#include <QTableWidget>

#include "app/ui/unit_box.h"
#include "read_day_fixture.h"
#include "support/reading_words.h"

namespace fin::app {
namespace {

constexpr RigId kLipped = 11;
constexpr RigId kBladed = 12;
constexpr RigId kHead7 = 13;
constexpr RigId kHead4 = 14;

class LineUpTest : public ReadDayTest {
 protected:
  void SetUp() override {
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    DayPlan plan;
    plan.rack.models = {{.id = 1, .name = "Lipped"}, {.id = 2, .name = "Bladed"}, {.id = 3, .name = "Soft"}};
    plan.rack.rigs = {{.id = kLipped, .model = 1, .line = "braid"},
                      {.id = kBladed, .model = 2, .line = "wire"},
                      {.id = kHead7, .model = 3, .name = "7 g head", .head_g = 7.0},
                      {.id = kHead4, .model = 3, .name = "4 g head", .head_g = 4.0}};
    plan_ = plan;
    // Two that can be told apart, once fouled, and twice seen by two cameras.
    pull(**log, kLipped, 250.0, 5.00, 0.05);
    pull(**log, kLipped, 252.0, 5.06, 0.05);
    pull(**log, kLipped, 251.0, 4.96, 0.05);
    pull(**log, kBladed, 249.0, 7.02, 0.05);
    pull(**log, kBladed, 250.0, 6.90, 0.05);
    pull(**log, kBladed, 251.0, 6.97, 0.05);
    pull(**log, kBladed, 250.0, 1.00, 0.05);
    plan_.sheet.back().state = PassState::Fouled;
    sameFromTheSide(**log, 6.50, 0.4);
    // A ladder of the first one: dead below 100 mm/s, lost at 400.
    for (const auto& [speed, action] : {std::pair(80.0, 1.0), {160.0, 12.0}, {320.0, 30.0}})
      rung(**log, speed, action, 6.0);
    rung(**log, 400.0, 28.0, 60.0);
    fall(**log, kHead7, 200.0, "plumb");
    fall(**log, kHead4, 120.0, "glide");
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan_));
    log->reset();
    openWindow();
    QTest::keyClick(window_.get(), Qt::Key_4, Qt::ControlModifier);
  }

  void pull(Log& log, RigId rig, double speed, double Hz, double u95) {
    keep(log, rig, "pull " + std::to_string(plan_.sheet.size() + 1), Protocol::Retrieve,
         {{ReadingId::TravelSpeed, speed, "mm/s", 2.0, 100.0},
          {ReadingId::WobbleFrequency, Hz, "Hz", u95, 12.0},
          {ReadingId::WobbleAngle, 24.0, "°", 0.5, 12.0}},
         true);
  }
  /// The pass before the fouled one, by a second camera that knows less.
  void sameFromTheSide(Log& log, double Hz, double u95) {
    const PassId id = keep(log, kBladed, "from the side", Protocol::Retrieve,
                           {{ReadingId::WobbleFrequency, Hz, "Hz", u95, 12.0}}, false);
    const LoggedPass before = *log.pass(id);
    LoggedPass after = before;
    after.planned = plan_.sheet[5].id;
    after.camera = "fixed";
    EXPECT_TRUE(log.changePasses({{before, after}}));
  }
  void rung(Log& log, double speed, double action, double variation) {
    keep(log, kLipped, "rung " + std::to_string(static_cast<int>(speed)), Protocol::Retrieve,
         {{ReadingId::TravelSpeed, speed, "mm/s", 2.0, 100.0},
          {ReadingId::WobbleAngle, action, "°", 0.5, 12.0},
          {ReadingId::CycleVariation, variation, "%", 1.0, 12.0},
          {speed < 400.0 ? ReadingId::RunningDepth : ReadingId::RiseRate, 100.0 + 0.625 * speed, "mm", 5.0,
           60.0}},
         false);
  }
  void fall(Log& log, RigId rig, double rate, const char* mode) {
    keep(log, rig, "fall on " + plan_.rack.rig(rig)->name, Protocol::Fall,
         {{ReadingId::FallRate, rate, "mm/s", 3.0, 60.0},
          {ReadingId::SettleDistance, 39.0, "mm", 1.0, 60.0},
          {ReadingId::FallMode, std::string(mode), "text", {}, 60.0}},
         true);
  }
  void choose(const QString& reading) {
    auto* choice = find<QListWidget>("readingChoice");
    const auto items = choice->findItems(reading, Qt::MatchExactly);
    ASSERT_EQ(items.size(), 1) << reading.toStdString();
    choice->setCurrentItem(items.front());
  }
};

TEST_F(LineUpTest, SaysWhatCanBeToldApartAndWhatWasNotEqual) {
  choose("Wobble rate");
  EXPECT_TRUE(text("spreadHeadline").startsWith("Highest: Bladed (3"))
      << text("spreadHeadline").toStdString();
  EXPECT_TRUE(text("spreadHeadline").contains(" % over Lipped). Lowest: Lipped."));
  const QString words = text("spreadWords");
  EXPECT_TRUE(words.contains("Line differs: braid / wire")) << words.toStdString();
  EXPECT_TRUE(words.contains("1 fouled pass of the day")) << words.toStdString();
  // Of the pass that two cameras saw the surer value counts, and the fouled one does not.
  auto* passes = find<QListWidget>("comparedPasses");
  EXPECT_EQ(passes->count(), 6);
  EXPECT_TRUE(passes->findItems("from the side", Qt::MatchContains).empty());
}

TEST_F(LineUpTest, LeadsFromAPassToTheBench) {
  choose("Wobble rate");
  auto* passes = find<QListWidget>("comparedPasses");
  passes->setCurrentRow(4);
  passes->setFocus();
  const QString title = passes->currentItem()->text().section("   ", 1);
  QTest::keyClick(passes, Qt::Key_Return);
  EXPECT_TRUE(window_->bench().isVisible());
  EXPECT_EQ(window_->passController().current()->title, title.toStdString());
}

TEST_F(LineUpTest, ComparesOnlyPullsOfLikeSpeedWhenAsked) {
  choose("Pull speed");
  EXPECT_EQ(find<QComboBox>("comparedSpeed")->currentText(), "about 250 mm/s")
      << "most rigs' pace to begin with";
  const QString origin = find<QListWidget>("comparedPasses")->item(0)->toolTip();
  EXPECT_TRUE(origin.startsWith("From ") && origin.contains(QString("method %1").arg(kMethodVersion)))
      << origin.toStdString();
  find<QComboBox>("comparedSpeed")->setCurrentIndex(0);
  EXPECT_TRUE(text("spreadWords").contains("Pulled at different speeds: about 80 mm/s to 400 mm/s"));
  auto* speed = find<QComboBox>("comparedSpeed");
  speed->setCurrentIndex(speed->findText("about 250 mm/s"));
  EXPECT_FALSE(text("spreadWords").contains("different speeds"));
  EXPECT_EQ(find<QListWidget>("comparedPasses")->count(), 6);
}

TEST_F(LineUpTest, ReadsTheLadderOfSpeeds) {
  press("pageLadder");
  EXPECT_EQ(find<QComboBox>("ladderRig")->currentText(), "Lipped");
  const QString band = text("ladderBand");
  EXPECT_TRUE(band.startsWith("Works from 1")) << band.toStdString();
  EXPECT_TRUE(band.contains("goes wrong at 400")) << band.toStdString();
  EXPECT_TRUE(text("ladderWords").contains("loses its rhythm")) << text("ladderWords").toStdString();
}

TEST_F(LineUpTest, DrawsDepthAgainstSpeedBetweenThePullsOnly) {
  press("pageDepth");
  EXPECT_EQ(text("depthHeading"), "How deep it runs");
  find<QComboBox>("depthBy")->setCurrentIndex(1);
  EXPECT_EQ(text("depthHeading"), "How much line was out was not said.");
  find<QComboBox>("depthBy")->setCurrentIndex(0);
  auto* plot = find<QCustomPlot>("depthPlot");
  ASSERT_EQ(plot->graphCount(), 2) << "rings and a curve";
  EXPECT_EQ(plot->graph(0)->dataCount(), 3);
  const auto curve = plot->graph(1)->data();
  EXPECT_NEAR(curve->constBegin()->key, 80.0, 1e-9);
  EXPECT_NEAR((curve->constEnd() - 1)->key, 320.0, 1e-9);
  EXPECT_NEAR((curve->constEnd() - 1)->value, 300.0, 1e-9);
  press("units");
  EXPECT_TRUE(plot->yAxis->label().contains("in"));
}

TEST_F(LineUpTest, PredictsTheFallWithAnotherWeightAndShowsItsMiss) {
  press("pageWeight");
  auto* rig = find<QComboBox>("weightRig");
  rig->setCurrentIndex(rig->findText("Soft, 7 g head"));
  EXPECT_TRUE(text("weightAnswer").startsWith("Would fall at 200"));
  // 200 √(4/7) = 151.2, lead on lead.
  typeInto(find<UnitBox>("headAfter"), "4");
  EXPECT_TRUE(text("weightAnswer").startsWith("Would fall at 151")) << text("weightAnswer").toStdString();
  // A metre: 1000 / 151.2, and ln 2 of the 0.222 s that 39 mm at 1.164 v τ stand for.
  EXPECT_EQ(find<QTableWidget>("countdown")->item(1, 2)->text(), "6.8");
  press("units");
  EXPECT_TRUE(text("weightAnswer").contains("in/s"))
      << "what was typed stays: " << text("weightAnswer").toStdString();
  press("units");
  EXPECT_TRUE(text("weightAnswer").startsWith("Would fall at 151"));
  const QString words = text("weightWords");
  EXPECT_TRUE(words.contains("a miss of 26 %")) << words.toStdString();
  EXPECT_TRUE(words.contains("falls in another way there (glide)")) << words.toStdString();
  // A body that floats more than the head sinks: refused where it happened.
  typeInto(find<UnitBox>("bodyBefore"), "-9");
  EXPECT_TRUE(text("weightAnswer").contains("would not have sunk")) << text("weightAnswer").toStdString();
}

/// A control rig that falls a little faster every hour, and another that was made late.
class DriftTest : public ReadDayTest {
 protected:
  void SetUp() override {
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    plan_.rack.models = {{.id = 1, .name = "Control"}, {.id = 2, .name = "Late"}};
    plan_.rack.rigs = {{.id = 11, .model = 1}, {.id = 12, .model = 2}};
    for (const auto& [hour, rate] : {std::pair(0.0, 200.0), {1.0, 210.2}, {2.0, 219.9}, {3.0, 230.0}})
      made(**log, 11, hour, rate, true);
    for (const auto& [hour, rate] : {std::pair(2.9, 230.0), {3.0, 230.5}, {3.1, 232.0}})
      made(**log, 12, hour, rate, false);
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan_));
    log->reset();
    openWindow();
    QTest::keyClick(window_.get(), Qt::Key_4, Qt::ControlModifier);
  }
  void made(Log& log, RigId rig, double hour, double rate, bool control) {
    keep(log, rig, "fall " + std::to_string(plan_.sheet.size()), Protocol::Fall,
         {{ReadingId::FallRate, rate, "mm/s", 1.0, 60.0}}, true);
    plan_.sheet.back().control = control;
    plan_.sheet.back().finished_s = 1.79e9 + 3600.0 * hour;
  }
};

TEST_F(DriftTest, IsSaidAndThatTwoRigsAreComparedWithIt) {
  const QString drift = text("driftWords");
  EXPECT_TRUE(drift.contains("drifted by 10")) << drift.toStdString();
  EXPECT_TRUE(drift.contains("an hour"));
  EXPECT_TRUE(drift.contains("What was made late differs")) << "of two rigs nothing is taken out";
  EXPECT_TRUE(find<QListWidget>("comparedPasses")
                  ->findItems("fall 5", Qt::MatchEndsWith)
                  .front()
                  ->text()
                  .startsWith("230.5"))
      << "single passes as they were";
}

/// Eight rigs in three blocks of the sheet, one of them between two others.
class EightRigsTest : public ReadDayTest {
 protected:
  void SetUp() override {
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    const double rates[] = {120.0, 131.0, 150.0, 152.0, 171.0, 190.0, 214.0, 240.0};
    for (int r = 0; r < 8; ++r) {
      plan_.rack.models.push_back({.id = r + 1, .name = std::string("Tavver ") + std::to_string(11 + r)});
      plan_.rack.rigs.push_back({.id = r + 11, .model = r + 1});
    }
    for (int block = 1; block <= 3; ++block) {
      for (int r = 0; r < 8; ++r) {
        const double scatter = 1.0 + 0.012 * ((7 * r + 3 * block * (r + 1)) % 5 - 2) + 0.01 * block;
        keep(**log, r + 11, "fall " + std::to_string(plan_.sheet.size()), Protocol::Fall,
             {{ReadingId::FallRate, rates[r] * scatter, "mm/s", 1.0, 60.0}}, true);
      }
    }
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan_));
    log->reset();
    openWindow();
    QTest::keyClick(window_.get(), Qt::Key_4, Qt::ControlModifier);
  }
};

TEST_F(EightRigsTest, AreSeenAtAGlance) {
  EXPECT_TRUE(text("spreadHeadline").startsWith("Highest: Tavver 18 ("))
      << text("spreadHeadline").toStdString();
  EXPECT_TRUE(text("spreadHeadline").endsWith(" % over Tavver 17). Lowest: Tavver 11."));
  EXPECT_TRUE(text("spreadWords").contains("Not worth filming again:</b> Tavver 14 and Tavver 13. "))
      << text("spreadWords").toStdString();
  EXPECT_TRUE(text("spreadWords").contains("blocks of the day"));
  const auto* matrix = find<PairMatrix>("pairMatrix");
  EXPECT_TRUE(matrix->isVisible());
  const QString pairs = matrix->accessibleDescription();
  EXPECT_EQ(pairs.count(" over "), 27) << pairs.toStdString();
  EXPECT_TRUE(pairs.contains("Tavver 14 and Tavver 13: too close to call, "));
  EXPECT_EQ(find<QCustomPlot>("spreadPlot")->itemCount(), 1) << "one bar over those two";
}

TEST_F(EightRigsTest, AreAlikeWhereTheyDifferByLessThanIsWorthHaving) {
  auto* worth = find<QDoubleSpinBox>("worthHaving");
  EXPECT_EQ(worth->text(), "not said");
  worth->setValue(15.0);
  EXPECT_EQ(worth->text(), "15.0 %");
  EXPECT_TRUE(text("spreadWords").contains("less than is worth having: Tavver 14 and Tavver 13."))
      << text("spreadWords").toStdString();
  EXPECT_FALSE(text("spreadWords").contains("Not worth filming again"));
  EXPECT_TRUE(
      find<PairMatrix>("pairMatrix")->accessibleDescription().contains("Tavver 14 and Tavver 13: alike, "));
  const auto kept = [this] { return window_->verdict().controller().plan().worths; };
  EXPECT_EQ(kept(), (std::vector<Worth>{{ReadingId::FallRate, 0.15}}));
  QTest::keyClick(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(kept().empty());
  EXPECT_EQ(worth->text(), "not said");
}

/// Three passes of two rigs, each seen by two cameras that differ by a twentieth.
class TwoCamerasTest : public ReadDayTest {
 protected:
  void SetUp() override {
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    plan_.rack.models = {{.id = 1, .name = "Vinto"}, {.id = 2, .name = "Mirk"}};
    plan_.rack.rigs = {{.id = 11, .model = 1}, {.id = 12, .model = 2}};
    for (const double rate : {200.0, 204.0, 198.0}) {
      for (const RigId rig : {RigId(11), RigId(12)}) {
        fall(**log, rig, rate, "near", {});
        fall(**log, rig, rate * 1.05, "far & high", plan_.sheet.back().id);
        plan_.sheet.pop_back();
      }
    }
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan_));
    log->reset();
    openWindow();
    QTest::keyClick(window_.get(), Qt::Key_4, Qt::ControlModifier);
  }
  void fall(Log& log, RigId rig, double rate, const char* camera, std::optional<PlannedPassId> planned) {
    const PassId id = keep(log, rig, "fall " + std::to_string(rate) + camera, Protocol::Fall,
                           {{ReadingId::FallRate, rate, "mm/s", 5.0, 60.0}}, true);
    const LoggedPass before = *log.pass(id);
    LoggedPass after = before;
    after.camera = camera;
    if (planned) after.planned = *planned;
    EXPECT_TRUE(log.changePasses({{before, after}}));
  }
};

TEST_F(TwoCamerasTest, SayHowFarTheyAgree) {
  EXPECT_TRUE(text("spreadWords").contains("Two cameras:</b> far &amp; high over near by 5.0 % in 6 passes"))
      << text("spreadWords").toStdString();
  EXPECT_TRUE(text("spreadWords").contains("0 of 6 are as close as they claim to be"));
}

TEST(EmptyLineUp, SaysWhatBelongsHere) {
  test::TemporaryFolder folder;
  MainWindow window(*Log::open(folder / "day.finlog"));
  window.show();
  window.go(Place::LineUp);
  for (const LineUpPlace::Page page :
       {LineUpPlace::Page::Ladder, LineUpPlace::Page::Depth, LineUpPlace::Page::Weight})
    window.lineUp().go(page);
  EXPECT_TRUE(window.findChild<QLabel*>("ladderBand")->text().contains("No rig was pulled"));
  EXPECT_TRUE(window.findChild<QLabel*>("depthHeading")->text().contains("No running depth"));
  EXPECT_TRUE(window.findChild<QLabel*>("measuredFall")->text().contains("No fall was measured yet"));
}

}  // namespace
}  // namespace fin::app
