// SPDX-License-Identifier: GPL-3.0-or-later
// The Log: what was kept is found again, by model, day and water.
#include <qcustomplot.h>
#include <QLineEdit>
#include <QListView>
#include <QListWidget>
#include <QTableWidget>

#include "app/places/log/log_place.h"
#include "core/records/taken_out.h"
#include "read_day_fixture.h"
#include "support/reading_words.h"

namespace fin::app {
namespace {

class LogPlaceTest : public ReadDayTest {
 protected:
  /// Two days a month apart; the control the same, Vinto slower by a fiftieth.
  void SetUp() override {
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    plan_.rack.models = {{.id = 1, .name = "Vinto", .length_mm = 95.0}, {.id = 2, .name = "Oblag"}};
    plan_.rack.rigs = {{.id = 11, .model = 1, .name = "7 g head"}, {.id = 12, .model = 2}};
    plan_.waters = {{.id = 13, .name = "Trough"}};
    day(**log, 1, "2026-05-02", {210.1, 209.2, 211.4}, {128.1, 127.4, 128.9});
    day(**log, 50, "2026-06-01", {204.9, 206.3, 205.2}, {127.0, 127.9, 126.6});
    log->reset();
    openWindow();
    QTest::keyClick(window_.get(), Qt::Key_6, Qt::ControlModifier);
  }
  void day(Log& log, DayId id, const char* date, std::initializer_list<double> vinto,
           std::initializer_list<double> oblag) {
    DayPlan fresh = plan_;
    fresh.id = id;
    fresh.sheet.clear();
    DayPlan none;
    none.id = id;
    if (id != DayId(1)) {
      none.rack = plan_.rack;
      none.waters = plan_.waters;
    }
    fresh.date = date;
    fresh.waterBody = 13;
    plan_ = fresh;
    const auto keepAll = [&](RigId rig, std::initializer_list<double> rates, bool control) {
      for (const double rate : rates) {
        const PassId pass = keep(log, rig, std::string(date) + " fall " + std::to_string(rate),
                                 Protocol::Fall, {{ReadingId::FallRate, rate, "mm/s", 1.0, 60.0}}, true);
        plan_.sheet.back().control = control;
        plan_.sheet.back().id = id.value() + plan_.sheet.back().id.value();
        const LoggedPass before = *log.pass(pass);
        LoggedPass after = before;
        after.day = id;
        after.planned = plan_.sheet.back().id;
        EXPECT_TRUE(log.changePasses({{before, after}}));
      }
    };
    keepAll(11, vinto, false);
    keepAll(12, oblag, true);
    fresh.sheet = plan_.sheet;
    ASSERT_TRUE(log.savePlan(none, fresh));
  }
  QListView* results() { return find<QListView>("foundList"); }
  QString result(int row) { return results()->model()->index(row, 0).data().toString(); }
  void search(const QString& words) {
    auto* field = find<QLineEdit>("findWords");
    field->setText(words);
    QTest::keyClick(field, Qt::Key_Return);
  }
  void type(QTableWidget* table, int row, int column, const QString& text) {
    table->item(row, column)->setText(text);
  }
};

TEST_F(LogPlaceTest, FindsByWordsAndKindAndShowsThePage) {
  EXPECT_EQ(text("loggedDay"), "1 Jun") << "the day that is worked on";
  search("vin");
  ASSERT_EQ(results()->model()->rowCount(), 2);
  EXPECT_EQ(result(0), "Model:  Vinto");
  EXPECT_EQ(result(1), "Rig:  Vinto, 7 g head");
  EXPECT_TRUE(find<QLabel>("modelName")->isVisible());
  EXPECT_EQ(text("modelName"), "Vinto");
  EXPECT_EQ(text("modelFacts"), QString::fromUtf8("95 mm  ·  tied as: 7 g head"));
  press("findRigs");
  EXPECT_EQ(results()->model()->rowCount(), 1);
  press("findDays");
  search("may");
  EXPECT_EQ(text("loggedDay"), "2 May");
  EXPECT_EQ(find<QListWidget>("dayPasses")->count(), 6);
  EXPECT_TRUE(text("dayFacts").contains("6 of 6 made"));
  press("workOnDay");
  EXPECT_EQ(window_->day().plan().id, DayId(1));
}

TEST_F(LogPlaceTest, SaysHowAReadingWentAndThatItIsTheLure) {
  search("vinto");
  ASSERT_EQ(find<QListWidget>("historyReadings")->count(), 1);
  const QString words = text("historySentence");
  EXPECT_TRUE(words.startsWith("205")) << words.toStdString();
  EXPECT_TRUE(
      words.contains("Changed since 2 May 2026 by −2.9 to −0.17 %: the lure, as the control was the same."))
      << words.toStdString();
  EXPECT_EQ(find<QCustomPlot>("historyPlot")->graphCount(), 2);
  search("oblag");
  EXPECT_FALSE(text("historySentence").contains("the lure")) << text("historySentence").toStdString();
}

TEST_F(LogPlaceTest, HoldsClaimsAgainstWhatWasRead) {
  search("vinto");
  press("modelClaims");
  press("add_claims");
  auto* table = find<QTableWidget>("claims");
  ASSERT_EQ(table->rowCount(), 1);
  type(table, 0, 0, "falls slowly");
  type(table, 0, 1, "Fall rate");
  type(table, 0, 3, "220");
  EXPECT_EQ(table->item(0, 4)->text(), "kept (1 Jun 2026)") << "by the newest day";
  type(table, 0, 3, "205");
  EXPECT_TRUE(table->item(0, 4)->text().startsWith("undecided"));
  type(table, 0, 3, "100");
  EXPECT_EQ(table->item(0, 4)->text(), "broken (1 Jun 2026)");
  type(table, 0, 1, "Wobble rate");
  EXPECT_EQ(table->item(0, 4)->text(), "untested");
  type(table, 0, 1, "Charm");
  EXPECT_EQ(table->item(0, 1)->text(), "Wobble rate") << "what cannot be meant goes back";
  type(table, 0, 2, "many");
  EXPECT_EQ(table->item(0, 2)->text(), "");
  EXPECT_EQ(window_->day().plan().rack.claims.front().words, "falls slowly");
  press("undo");
  press("remove_claims");
  EXPECT_EQ(table->rowCount(), 0);
}

TEST_F(LogPlaceTest, KeepsPiecesAndPrices) {
  search("vinto");
  press("modelPieces");
  press("add_pieces");
  press("add_pieces");
  auto* pieces = find<QTableWidget>("pieces");
  EXPECT_EQ(pieces->item(1, 0)->text(), "2");
  type(pieces, 1, 1, "Lost");
  type(pieces, 1, 2, "1,90");
  type(pieces, 0, 1, "eaten");
  EXPECT_EQ(pieces->item(0, 1)->text(), "used");
  const auto& kept = window_->day().plan().rack.pieces;
  EXPECT_EQ(kept[1].state, PieceState::Lost);
  EXPECT_EQ(kept[1].paid, 1.9);
  press("modelPrices");
  press("add_prices");
  auto* prices = find<QTableWidget>("prices");
  type(prices, 0, 0, "Vemmelin");
  type(prices, 0, 2, "2.10");
  type(prices, 0, 1, "last week");
  EXPECT_NE(prices->item(0, 1)->text(), "last week");
  EXPECT_EQ(window_->day().plan().rack.prices[0].shop, "Vemmelin");
  EXPECT_EQ(window_->day().plan().rack.prices[0].amount, 2.1);
}

TEST_F(LogPlaceTest, ShowsAWaterWithItsDaysAndTheSeasonByKeys) {
  press("findWaters");
  search("trough");
  EXPECT_EQ(find<QListWidget>("waterDays")->count(), 2);
  auto* name = find<QLineEdit>("bodyName");
  typeInto(name, "Net loft trough");
  EXPECT_EQ(window_->day().plan().waters[0].name, "Net loft trough");
  auto* season = find<QWidget>("seasonLine");
  season->setFocus();
  QTest::keyClick(season, Qt::Key_Left);
  EXPECT_EQ(text("loggedDay"), "2 May");
  QTest::keyClick(season, Qt::Key_Right);
  EXPECT_EQ(text("loggedDay"), "1 Jun");
}

TEST_F(LogPlaceTest, BringsInAnotherLogAndAsksWhatWasChangedInTwoWays) {
  const auto note = [](const std::filesystem::path& file, const char* text) {
    const auto log = std::move(*Log::open(file));
    const DayPlan before = *log->plan(50);
    DayPlan after = before;
    after.rack.models[0].note = text;
    EXPECT_TRUE(log->savePlan(before, after));
  };
  const auto other = folder_ / "helper.finlog";
  std::filesystem::copy_file(folder_ / "day.finlog", other);
  note(other, "the helper's");
  window_->day().edit("Note", [](DayPlan& plan) { plan.rack.models[0].note = "mine"; });
  press("thisLog");
  auto& page = *window_->findChild<ThisLogPage*>();
  page.merge(QString::fromStdString(other.string()));
  EXPECT_TRUE(waitFor([&page] { return !page.busy(); }));
  EXPECT_TRUE(text("thisLogTold").contains("Changed in both: 0 as the other log has them, 1 as this one."))
      << text("thisLogTold").toStdString();
  auto* versions = find<QListWidget>("keptVersions");
  ASSERT_EQ(versions->count(), 1);
  EXPECT_TRUE(versions->item(0)->text().contains("note: here mine, kept aside the helper's"))
      << versions->item(0)->text().toStdString();
  press("takeVersion");
  EXPECT_EQ(window_->day().plan().rack.models[0].note, "the helper's");
  EXPECT_EQ(versions->count(), 0);
  page.exportTo(QString::fromStdString((folder_ / "export").string()));
  EXPECT_TRUE(waitFor([&page] { return !page.busy(); }));
  EXPECT_TRUE(std::filesystem::exists(folder_ / "export" / "manifest.json"));
  page.exportTo(QString::fromStdString(folder_.path().string()));
  EXPECT_TRUE(waitFor([&page] { return !page.busy(); }));
  EXPECT_TRUE(text("thisLogTold").contains("holds something else")) << text("thisLogTold").toStdString();
}

TEST_F(LogPlaceTest, BringsBackWhatWasTakenOutAndSaysByWhom) {
  press("thisLog");
  EXPECT_FALSE(find<QListWidget>("takenOut")->isVisible()) << "nothing was taken out";
  typeInto(find<QLineEdit>("logEditor"), "the helper");
  window_->day().edit("Remove", [](DayPlan& plan) {
    plan.rack.rigs.erase(plan.rack.rigs.begin());
    std::erase_if(plan.sheet, [](const PlannedPass& p) { return p.rig == RigId(11); });
  });
  press("findAll");
  press("thisLog");
  search("trough");
  press("thisLog");
  auto* list = visible<QListWidget>("takenOut");
  ASSERT_GT(list->count(), 0);
  int rig = -1;
  for (int i = 0; i < list->count(); ++i) {
    if (list->item(i)->text().startsWith("Rig ")) rig = i;
  }
  ASSERT_GE(rig, 0);
  list->setCurrentRow(rig);
  press("bringBack");
  EXPECT_NE(window_->day().plan().rack.rig(11), nullptr);
  EXPECT_EQ(*editorOf(folder_ / "day.finlog"), "the helper");
}

TEST_F(LogPlaceTest, KeepsPhotosOfDaysAndWatersAndRefusesAHugeOne) {
  const QString good = QString::fromStdString((folder_ / "day.png").string());
  QImage(40, 30, QImage::Format_RGB32).save(good);
  const auto huge = folder_ / "huge.jpg";
  test::write(huge, "x");
  std::filesystem::resize_file(huge, 100'000'000);
  search("jun");
  auto* row = window_->findChild<DayPage*>()->findChild<PhotoRow*>();
  row->add({good, QString::fromStdString(huge.string()), "nowhere.png"});
  EXPECT_EQ(window_->day().plan().photos, std::vector<std::string>{good.toStdString()});
  EXPECT_EQ(find<QListWidget>("dayPhotos")->count(), 1);
  const QString told = row->findChild<QLabel*>("photoTrouble")->text();
  EXPECT_TRUE(told.contains("huge.jpg is 100 MB large")) << told.toStdString();
  EXPECT_TRUE(told.contains("nowhere.png is not there")) << told.toStdString();
  press("undo");
  EXPECT_TRUE(window_->day().plan().photos.empty());
  search("trough");
  window_->findChild<WaterBodyPage*>()->findChild<PhotoRow*>()->add({good});
  EXPECT_EQ(window_->day().plan().waters[0].photos.size(), 1U);
}

TEST_F(LogPlaceTest, OpensAnExportAndMakesAThinCopy) {
  auto& page = *window_->findChild<ThisLogPage*>();
  const auto done = [&page] { return !page.busy(); };
  const auto in = [this](const char* name) { return QString::fromStdString((folder_ / name).string()); };
  QString opened;
  QObject::connect(&page, &ThisLogPage::openWanted, &page, [&opened](const QString& file) { opened = file; });
  page.exportTo(in("export"));
  ASSERT_TRUE(waitFor(done));
  page.importFrom(in("export"), in("again.finlog"));
  ASSERT_TRUE(waitFor(done));
  EXPECT_EQ(opened, in("again.finlog"));
  EXPECT_EQ((*Log::open(folder_ / "again.finlog"))->days()->size(), 2U);
  page.copyThin(in("thin.finlog"));
  ASSERT_TRUE(waitFor(done));
  EXPECT_EQ((*Log::open(folder_ / "thin.finlog"))->passes()->size(), 12U);
  page.copyThin(in("thin.finlog"));
  ASSERT_TRUE(waitFor(done));
  EXPECT_TRUE(text("thisLogTold").contains("there already")) << text("thisLogTold").toStdString();
}

}  // namespace
}  // namespace fin::app
