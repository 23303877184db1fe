// SPDX-License-Identifier: GPL-3.0-or-later
// A day planned from its question by mouse and keys.
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLineEdit>
#include <QListWidget>
#include <QSpinBox>
#include <QTableWidget>

#include "app/places/plan/rack_page.h"
#include "app/print/sheets.h"
#include "app/read_day_fixture.h"
#include "app/window_fixture.h"

namespace fin::app {
namespace {

class PlanDay : public WindowTest {
 protected:
  void SetUp() override {
    openWindow();
    press("place0");
  }

  const DayPlan& plan() { return window_->day().plan(); }
  void ask(int row) {
    auto* list = find<QListWidget>("questions");
    list->setFocus();
    list->setCurrentRow(row);
    QTest::keyClick(list, Qt::Key_Space);
  }
  void importRack(const std::string& text) {
    press("step2");
    test::write(folder_ / "rack.csv", text);
    window_->plan().rack().previewImport(QString::fromStdString((folder_ / "rack.csv").string()));
  }
  void type(const char* box, const char* text) { typeInto(find<QDoubleSpinBox>(box), text); }
};

/// Eight models over the four families, one on two heads, one with an interest declared.
const std::string kWholeRack =
    "model;family;length;weight;price;rig;head_g;hook_g;not_graded_because\n"
    "Vinto 11;soft plastic;110;9,5;1,9;7 g head;7,0;;\nVinto 11;soft plastic;110;9,5;1,9;4 g head;4,0;;\n"
    "Mirk 10;soft plastic;104;8,8;2,4;7 g head;7,0;;\nSkrell 95;jerkbait;95;14;17,5;size 4 hooks;;0,9;\n"
    "Pellow 110;jerkbait;110;18;;size 2 hooks;;1,4;one of us designed it\nOblig 18;spoon;64;18;7,2;single "
    "hook;;1,1;\n"
    "Oblag 18;spoon;64;18;4,1;single hook;;1,1;\nTavver 12;bladed bait;58;12;9,8;rubber skirt;;;\n"
    "Hasp 14;bladed bait;60;14;8,4;silicone skirt;;;\n";
const std::string kRack =
    "model;family;rig;head_g\nVinto 11;soft plastic;7 g head;7,0\nVinto 11;soft plastic;4 g head;4,0\n"
    "Oblig 18;spoon;single hook;\n";

TEST_F(PlanDay, GoesFromTheQuestionToAPrintedSheetAndStaysInTheLog) {
  ask(0);
  ask(3);
  EXPECT_EQ(plan().questions, (std::vector<std::string>{"wobble", "fall"}));
  typeInto(find<QLineEdit>("dayName"), "A made-up day");
  importRack(kWholeRack);
  EXPECT_TRUE(find<QLabel>("importPreview")->text().contains("9 lines"));
  press("takeImport");
  EXPECT_EQ(plan().rack.models.size(), 8U);
  EXPECT_EQ(plan().rack.rigs.size(), 9U);

  press("step3");
  type("waterLength", "2000");
  type("waterWidth", "1000");
  type("waterDepth", "500");
  type("temperature", "5");
  // 1 m³ of fresh water at 5 °C.
  EXPECT_TRUE(find<QLabel>("filledWeight")->text().contains("1000 kg"))
      << find<QLabel>("filledWeight")->text().toStdString();
  type("saltWanted", "6");
  // 999.96675 · 6 / 994 = 6.04 kg.
  EXPECT_TRUE(find<QLabel>("saltToDo")->text().contains("6.0 kg"))
      << find<QLabel>("saltToDo")->text().toStdString();

  press("step4");
  type("captureRate", "25");
  EXPECT_NE(find<QFrame>("finding_samples"), nullptr);
  press("step5");
  auto* held = find<QTableWidget>("heldEqual");
  held->item(1, 1)->setText("braid, 8 kg");
  EXPECT_EQ(plan().heldEqual[1].value, "braid, 8 kg");

  press("step6");
  typeInto(find<QLineEdit>("speeds"), "0.72 km/h, 300");
  typeInto(find<QSpinBox>("repeats"), "2");
  press("makeSheet");
  // 2 blocks · 9 rigs · (2 speeds + 1 fall).
  EXPECT_EQ(find<QTableWidget>("sheet")->rowCount(), 54);
  const QString pdf = QString::fromStdString((folder_ / "sheet.pdf").string());
  ASSERT_TRUE(printPassSheet(window_->day(), pdf));
  ASSERT_TRUE(printCautions(QString::fromStdString((folder_ / "cautions.pdf").string())));
  EXPECT_GT(std::filesystem::file_size(folder_ / "sheet.pdf"), 5000U);
  EXPECT_FALSE(printPassSheet(window_->day(), "/no such folder/sheet.pdf"));

  const DayPlan before = plan();
  openWindow();
  EXPECT_EQ(plan(), before);
  EXPECT_EQ(plan().name, "A made-up day");
}

TEST_F(PlanDay, UndoesEveryEdit) {
  ask(2);
  EXPECT_EQ(plan().questions.size(), 1U);
  QTest::keyClick(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(plan(), DayPlan{});
}

TEST_F(PlanDay, ChangesOrderAndNotesByHand) {
  ask(3);
  importRack(kRack);
  press("takeImport");
  press("step6");
  press("makeSheet");
  auto* sheet = find<QTableWidget>("sheet");
  const PlannedPassId first = plan().sheet[0].id;
  sheet->selectRow(0);
  press("later");
  EXPECT_EQ(plan().sheet[1].id, first);
  EXPECT_EQ(sheet->currentRow(), 1);
  sheet->item(1, 5)->setText("mind the leaf");
  EXPECT_EQ(plan().sheet[1].note, "mind the leaf");
  press("removePass");
  EXPECT_NE(plan().sheet[1].id, first);
}

TEST_F(PlanDay, EditsModelsAndRigsInPlace) {
  press("step2");
  press("addModel");
  typeInto(find<QLineEdit>("rack_model"), "Skrell 95");
  const auto underMore = [this](const char* field) {
    return find<QWidget>(field)->isHidden() || !find<QWidget>(field)->isVisibleTo(window_.get());
  };
  EXPECT_FALSE(underMore("rack_insert_g")) << "asked of a soft plastic";
  find<QComboBox>("rack_family")->setFocus();
  QTest::keyClicks(find<QComboBox>("rack_family"), "jerk");
  QTest::keyClick(find<QComboBox>("rack_family"), Qt::Key_Return);
  EXPECT_TRUE(waitFor([&] { return underMore("rack_insert_g") && !underMore("rack_buoyancy"); }));
  typeInto(find<QLineEdit>("rack_hook_g"), "0,9");
  press("addRig");
  typeInto(find<QLineEdit>("rack_hook_g"), "1.4");
  ASSERT_EQ(plan().rack.models.size(), 1U);
  ASSERT_EQ(plan().rack.rigs.size(), 2U);
  EXPECT_EQ(plan().rack.models[0].family, Family::Jerkbait);
  EXPECT_EQ(plan().rack.rigs[0].hook_g, 0.9);
  EXPECT_EQ(plan().rack.rigs[1].hook_g, 1.4);
  press("moreOfModel");
  typeInto(find<QLineEdit>("rack_not_graded_because"), "one of us designed it");
  EXPECT_FALSE(plan().rack.models[0].graded);
}

TEST_F(PlanDay, TakesAPhotoByDropAndShowsItInTheList) {
  press("step2");
  press("addModel");
  const QString file = QString::fromStdString((folder_ / "skrell.png").string());
  QImage picture(400, 200, QImage::Format_RGB32);
  picture.fill(Qt::darkGreen);
  ASSERT_TRUE(picture.save(file));
  auto* photo = find<QLabel>("rackPhoto")->parentWidget();
  const auto drop = [photo](const QString& path) {
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(path)});
    QDragEnterEvent enter({5, 5}, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(photo, &enter);
    QDropEvent event({5, 5}, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(photo, &event);
  };
  drop(file);
  EXPECT_EQ(plan().rack.models[0].photo, file.toStdString());
  EXPECT_EQ(find<QLabel>("rackPhoto")->pixmap(Qt::ReturnByValue).width(), 290);
  const QVariant small = find<QTableView>("rack")->model()->index(0, 0).data(Qt::DecorationRole);
  EXPECT_EQ(small.value<QPixmap>().size(), QSize(36, 18));
  test::write(folder_ / "words.png", "no picture");
  drop(QString::fromStdString((folder_ / "words.png").string()));
  EXPECT_TRUE(find<QLabel>("rackMessage")->text().contains("not a picture"));
  EXPECT_EQ(plan().rack.models[0].photo, file.toStdString()) << "kept";
  press("removePhoto");
  EXPECT_EQ(plan().rack.models[0].photo, "");
}

TEST_F(PlanDay, AsksForTheDepthAndTheLengthOnce) {
  press("step2");
  press("addModel");
  typeInto(find<QLineEdit>("rack_length_mm"), "45");
  press("step3");
  type("waterDepth", "420");
  press("step4");
  EXPECT_EQ(find<QDoubleSpinBox>("filmingDepth")->value(), 420.0);
  auto* length = find<QDoubleSpinBox>("bodyLength");
  EXPECT_EQ(length->value(), 45.0);
  EXPECT_FALSE(length->isEnabled());
  EXPECT_TRUE(length->toolTip().contains("rack"));
  type("filmingDepth", "500");
  EXPECT_EQ(plan().water.depth_mm, 500.0);
}

TEST_F(PlanDay, TellsWhatCannotBeMeantInPlaceAndLosesNothing) {
  press("step2");
  press("addModel");
  typeInto(find<QLineEdit>("rack_weight_g"), "heavy");
  EXPECT_TRUE(find<QLabel>("rackMessage")->isVisibleTo(window_.get()));
  EXPECT_TRUE(find<QLabel>("rackMessage")->text().contains("weight_g"));
  press("step3");
  type("temperature", "60");
  EXPECT_TRUE(find<QLabel>("filledWeight")->text().contains("40 °C"));
  EXPECT_EQ(plan().water.temperature_C, 60.0);
  type("temperature", "12");
  type("waterDepth", "-500");
  EXPECT_TRUE(find<QLabel>("filledWeight")->text().contains("more than zero"));
  press("step4");
  type("filmingDepth", "-100");
  EXPECT_TRUE(find<QLabel>("filmingTrouble")->text().contains("depth"));
  press("step6");
  press("makeSheet");
  EXPECT_TRUE(find<QLabel>("sheetMessage")->isVisibleTo(window_.get()));
  EXPECT_EQ(plan().rack.models.size(), 1U);
}

TEST_F(PlanDay, NamesBadLinesOfATableBeforeTakingIt) {
  importRack("model,family\nA,spoon\nB,kettle\n");
  EXPECT_TRUE(find<QLabel>("importPreview")->text().contains("Line 3"));
  press("leaveImport");
  EXPECT_TRUE(plan().rack.models.empty());
}

TEST_F(PlanDay, ShowsInchesWithoutChangingWhatIsKept) {
  press("step3");
  type("waterDepth", "508");
  press("units");
  EXPECT_TRUE(find<QDoubleSpinBox>("waterDepth")->text().contains("20.00 in"))
      << find<QDoubleSpinBox>("waterDepth")->text().toStdString();
  type("waterDepth", "10");
  EXPECT_DOUBLE_EQ(plan().water.depth_mm, 254.0);
}

TEST_F(PlanDay, TakesAndShowsTheRackInAnyUnit) {
  press("step2");
  press("addModel");
  ASSERT_EQ(window_->focusWidget(), find<QLineEdit>("rack_model")) << "what was added is named at once";
  QTest::keyClicks(window_->focusWidget(), "Skrell 95");
  QTest::keyClick(window_->focusWidget(), Qt::Key_Return);
  EXPECT_EQ(plan().rack.models[0].name, "Skrell 95");
  typeInto(find<QLineEdit>("rack_length_mm"), "3 3/4 in");
  typeInto(find<QLineEdit>("rack_weight_g"), "3/8 oz");
  EXPECT_NEAR(*plan().rack.models[0].length_mm, 95.25, 1e-3);
  EXPECT_NEAR(*plan().rack.models[0].weight_g, 10.6311, 1e-3);
  press("units");
  EXPECT_EQ(find<QLineEdit>("rack_length_mm")->text(), "3.75");
  EXPECT_EQ(find<QLineEdit>("rack_weight_g")->text(), "0.375");
  typeInto(find<QLineEdit>("rack_weight_g"), "0.5");
  EXPECT_NEAR(*plan().rack.models[0].weight_g, 14.1748, 1e-3);
  typeInto(find<QLineEdit>("rack_weight_g"), "12 g");
  EXPECT_NEAR(*plan().rack.models[0].weight_g, 12.0, 1e-6);
  importRack("model,weight_g\nOblag,1/4 oz\n");
  press("takeImport");
  EXPECT_NEAR(*plan().rack.models.back().weight_g, 7.0874, 1e-3);
}

TEST_F(PlanDay, FindsTheHeadForAnEqualFall) {
  press("step5");
  type("headMeasured", "200");
  type("headWanted", "200");
  type("headWeight", "7");
  EXPECT_TRUE(find<QLabel>("headAnswer")->text().contains("7.0 g"));
}

class ForetellTest : public ReadDayTest {
 protected:
  void SetUp() override {
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    plan_.rack.models = {{.id = 1, .name = "Vinto"}, {.id = 2, .name = "Mirk"}};
    plan_.rack.rigs = {{.id = 11, .model = 1}, {.id = 12, .model = 2}};
    for (const double rate : {210.0, 211.0, 209.0}) {
      for (const auto& [rig, share] : {std::pair(RigId(11), 1.0), {12, 0.7}})
        keep(**log, rig, "fall " + std::to_string(rate) + std::to_string(rig.value()), Protocol::Fall,
             {{ReadingId::FallRate, rate * share, "mm/s", 1.0, 60.0}}, true);
    }
    // Made after all that is said here.
    for (PlannedPass& pass : plan_.sheet) pass.finished_s = 4e9;
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan_));
    log->reset();
    openWindow();
    QTest::keyClick(window_.get(), Qt::Key_1, Qt::ControlModifier);
    press("step7");
  }
  void choose(const char* box, const QString& text) { find<QComboBox>(box)->setCurrentText(text); }
};

TEST_F(ForetellTest, SaysAndScoresWhatIsExpected) {
  EXPECT_TRUE(text("forecastScore").startsWith("Say what you expect"));
  choose("foretellRig", "Mirk");
  choose("foretellReading", "Fall rate");
  find<QDoubleSpinBox>("foretellLine")->setValue(200.0);
  choose("foretellSure", "80 % sure");
  press("sayLine");
  auto* said = find<QListWidget>("foretold");
  ASSERT_EQ(said->count(), 1);
  EXPECT_TRUE(said->item(0)->text().startsWith("Mirk: Fall rate over 200 mm/s, 80 % sure"))
      << said->item(0)->text().toStdString();
  EXPECT_TRUE(said->item(0)->text().contains("did not come true: 147"))
      << said->item(0)->text().toStdString();
  EXPECT_TRUE(text("forecastScore").contains("no better than by tossing a coin: 0.64"))
      << text("forecastScore").toStdString();
  EXPECT_TRUE(text("eyeAbove").contains("Fall rate: foretold over the line 80 %, came so 0 %"))
      << text("eyeAbove").toStdString();
  EXPECT_TRUE(text("eyeAbove").contains("1 m looks like 0.75 m"));
  auto* order = find<QListWidget>("orderRigs");
  order->setCurrentRow(1);
  press("orderHigher");
  choose("orderReading", "Fall rate");
  press("sayOrder");
  EXPECT_TRUE(said->item(1)->text().contains("Mirk > Vinto")) << said->item(1)->text().toStdString();
  EXPECT_TRUE(said->item(1)->text().contains("1 of 1 pair told apart came the other way round (100 %)"));
  said->setCurrentRow(0);
  press("takeBackForetold");
  EXPECT_EQ(said->count(), 1);
  press("undo");
  EXPECT_EQ(said->count(), 2);
}

TEST_F(ForetellTest, DoesNotScoreWhatWasSaidAfterwards) {
  window_->day().edit("Made", [](DayPlan& plan) {
    for (PlannedPass& pass : plan.sheet) pass.finished_s = 1.7e9;
  });
  choose("foretellReading", "Fall rate");
  press("sayLine");
  EXPECT_TRUE(
      find<QListWidget>("foretold")->item(0)->text().contains("said after it was filmed: not scored"));
}

}  // namespace
}  // namespace fin::app
