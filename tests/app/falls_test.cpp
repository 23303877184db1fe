// SPDX-License-Identifier: GPL-3.0-or-later
// Falls as they are compared: ways of falling in words, the body's weight from several heads, the water it
// hangs in.
#include <qcustomplot.h>
#include <QCheckBox>
#include <QComboBox>
#include <QListWidget>
#include <QTableWidget>
#include <cmath>

#include "app/ui/unit_box.h"
#include "core/water/weight_change.h"
#include "read_day_fixture.h"
#include "support/reading_words.h"

namespace fin::app {
namespace {

constexpr RigId kHead3 = 11;
constexpr RigId kHead6 = 12;
constexpr RigId kHead12 = 13;
constexpr RigId kHover = 14;
constexpr double kBody_g = 1.0;

class FallsTest : public ReadDayTest {
 protected:
  void SetUp() override {
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    plan_.rack.models = {{.id = 1, .name = "Soft", .weight_g = 8.0},
                         {.id = 2,
                          .name = "Hover",
                          .family = Family::Jerkbait,
                          .weight_g = 10.0,
                          .buoyancy = Buoyancy::Hangs}};
    plan_.rack.rigs = {{.id = kHead3, .model = 1, .name = "3 g head", .head_g = 3.0},
                       {.id = kHead6, .model = 1, .name = "6 g head", .head_g = 6.0},
                       {.id = kHead12, .model = 1, .name = "12 g head", .head_g = 12.0},
                       {.id = kHover, .model = 2}};
    for (int i = 0; i < 6; ++i) {
      fall(**log, kHead3, rateOn(3.0), "plumb", 1.0);
      fall(**log, kHover, 30.0, "glide", {});
    }
    fall(**log, kHead6, rateOn(6.0), "plumb", 5.0);
    fall(**log, kHead12, rateOn(12.0), "plumb", 30.0);
    for (const auto& [interval, rise] : {std::pair(0.5, 30.0), {1.0, 12.0}, {1.5, -2.0}})
      keep(**log, kHover, "twitched " + std::to_string(interval), Protocol::Twitch,
           {{ReadingId::TwitchInterval, interval, "s", 0.01, 6.0},
            {ReadingId::RisePerTwitch, rise, "mm", 1.0, 6.0}},
           false);
    for (const auto& [interval, rise] : {std::pair(0.5, 2.0), {1.0, -1.0}})
      keep(**log, kHead3, "twitched soft " + std::to_string(interval), Protocol::Twitch,
           {{ReadingId::TwitchInterval, interval, "s", 0.01, 6.0},
            {ReadingId::RisePerTwitch, rise, "mm", 1.0, 6.0}},
           false);
    keep(**log, kHover, "fall in a haze", Protocol::Fall, {{ReadingId::FallTravel, 20.0, "mm", 1.0, 60.0}},
         true);
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan_));
    log->reset();
    openWindow();
    QTest::keyClick(window_.get(), Qt::Key_4, Qt::ControlModifier);
  }

  /// Of a body of 1 g in the water on a head of lead, by v² ∝ weight.
  double rateOn(double head_g) const {
    const auto water = density(plan_.water.state());
    return 100.0 *
           std::sqrt(kBody_g + weightInWater(Grams(head_g), KilogramsPerCubicMetre(11300.0), *water).value());
  }
  void fall(Log& log, RigId rig, double rate, const char* mode, std::optional<double> kick_deg) {
    std::vector<Reading> readings{{ReadingId::FallRate, rate, "mm/s", 0.01 * rate, 60.0},
                                  {ReadingId::FallMode, std::string(mode), "text", {}, 60.0}};
    if (kick_deg) readings.push_back({ReadingId::FallKickAngle, *kick_deg, "deg", 0.5, 20.0});
    keep(log, rig, "fall " + std::to_string(plan_.sheet.size() + 1), Protocol::Fall, readings, true);
  }
  QString weightWords(const char* rig) {
    press("pageWeight");
    auto* choice = find<QComboBox>("weightRig");
    choice->setCurrentIndex(choice->findText(rig));
    return text("weightWords");
  }
};

TEST_F(FallsTest, WaysOfFallingAreComparedByHowManyPassesOfHowMany) {
  auto* choice = find<QListWidget>("readingChoice");
  const auto found = choice->findItems("How it falls", Qt::MatchExactly);
  ASSERT_EQ(found.size(), 1);
  choice->setCurrentItem(found.front());
  // 2 in C(12, 6) tables, for six pairs.
  EXPECT_TRUE(text("spreadWords").contains("Told apart:</b> Soft, 3 g head and Hover"))
      << text("spreadWords").toStdString();
  EXPECT_TRUE(text("spreadWords").contains("Too few passes:</b>"));
  auto* passes = find<QListWidget>("comparedPasses");
  EXPECT_EQ(passes->item(0)->text(), "Soft, 3 g head: plumb in 6 of 6 passes (67 to 100 %)");
  const int classes = find<QCustomPlot>("spreadPlot")->itemCount();
  EXPECT_GT(classes, 0);
  // Back to a number: nothing of it stays.
  choice->setCurrentItem(choice->findItems("Fall rate", Qt::MatchExactly).value(0));
  EXPECT_LT(find<QCustomPlot>("spreadPlot")->itemCount(), classes);
}

TEST_F(FallsTest, TheBodyIsWeighedByItsFallsOnSeveralHeads) {
  const QString words = weightWords("Soft, 3 g head");
  EXPECT_TRUE(text("bodyFromHeads").contains("falls on 3 heads: the body weighs 1.0"))
      << text("bodyFromHeads").toStdString();
  press("useBodyFromHeads");
  EXPECT_NEAR(find<UnitBox>("bodyBefore")->metric(), kBody_g, 0.01);
  EXPECT_NEAR(find<UnitBox>("bodyAfter")->metric(), kBody_g, 0.01);
  // With its body known the light head foretells the heavy one.
  EXPECT_TRUE(text("weightWords").contains("Held against Soft, 12 g head"));
  EXPECT_FALSE(text("weightWords").contains("a miss of")) << text("weightWords").toStdString();
  // 5° on 6 g, 30° on 12 g: a fifth of the largest is passed just above the 6 g head's rate.
  EXPECT_TRUE(words.contains("The tail kicks</b> on the way down from 25")) << words.toStdString();
}

TEST_F(FallsTest, AHoveringLureHasItsWindowOfWaters) {
  weightWords("Hover");
  EXPECT_FALSE(find<QLabel>("bodyFromHeads")->isVisible()) << "it has no head";
  typeInto(find<UnitBox>("bodyBefore"), "0.1");
  typeInto(find<UnitBox>("bodyAfter"), "0");
  EXPECT_TRUE(text("weightWords").contains("Hangs</b> within 10 mm/s from"))
      << text("weightWords").toStdString();
  typeInto(find<UnitBox>("bodyAfter"), "3");
  EXPECT_TRUE(text("weightWords").contains("it hangs in none of these waters"));
}

TEST_F(FallsTest, TwitchesAtSeveralIntervalsTellWhenItKeepsItsDepth) {
  press("pageLadder");
  EXPECT_EQ(find<QComboBox>("ladderRig")->currentText(), "Hover, twitched");
  EXPECT_TRUE(text("ladderBand").startsWith("Keeps its depth when twitched every 1.25"))
      << text("ladderBand").toStdString();
  EXPECT_TRUE(text("ladderWords").contains("Climbs no more</b> when twitched every 1.43"))
      << text("ladderWords").toStdString();
}

TEST_F(FallsTest, ALureThatNeverClimbsIsNotSaidToLeaveItsDepth) {
  press("pageLadder");
  auto* rig = find<QComboBox>("ladderRig");
  rig->setCurrentIndex(rig->findText("Soft, 3 g head, twitched"));
  EXPECT_EQ(text("ladderBand"), "When it keeps its depth is not told yet");
  EXPECT_TRUE(text("ladderWords").contains("film quicker twitches")) << text("ladderWords").toStdString();
}

TEST_F(FallsTest, AClassIsScoredByItsShareOfPasses) {
  QTest::keyClick(window_.get(), Qt::Key_5, Qt::ControlModifier);
  auto* add = visible<QComboBox>("addWish");
  const int at = add->findText("How it falls");
  ASSERT_GE(at, 0);
  add->setCurrentIndex(at);
  emit add->activated(at);
  auto* wanted = visible<QComboBox>("wantedClass");
  EXPECT_EQ(wanted->currentText(), "plumb") << "what most passes were read as";
  wanted->setCurrentText("glide");
  emit wanted->textActivated("glide");
  auto* wishes = visible<QListWidget>("wishes");
  EXPECT_EQ(wishes->item(wishes->count() - 1)->text(), "How it falls: glide: more");
  auto* table = visible<QTableWidget>("ranking");
  EXPECT_TRUE(waitFor([table] { return table->rowCount() > 0; }));
  QStringList cells;
  for (int row = 0; row < table->rowCount(); ++row) {
    for (int column = 0; column < table->columnCount(); ++column) {
      if (table->horizontalHeaderItem(column)->text().startsWith("How it falls"))
        cells += table->item(row, column)->text();
    }
  }
  EXPECT_EQ(cells.size(), 4);
  EXPECT_FALSE(cells.filter("100 ± 17 % of passes").empty()) << cells.join(" | ").toStdString();
  visible<QCheckBox>("demanded")->click();
  EXPECT_EQ(wishes->item(wishes->count() - 1)->text(), "How it falls: glide: more, demanded");
  const auto said = [&] {
    for (const QLabel* label : window_->verdict().findChildren<QLabel*>()) {
      if (label->isVisible() &&
          label->text().contains("passes showed \"glide\", and more than half is demanded"))
        return true;
    }
    return false;
  };
  EXPECT_TRUE(waitFor(said)) << "who falls plumb is left out, with the reason";
}

}  // namespace
}  // namespace fin::app
