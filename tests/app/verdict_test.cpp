// SPDX-License-Identifier: GPL-3.0-or-later
// The Verdict driven as a person drives it, on a day whose readings are known.
#include <qcustomplot.h>
#include <QComboBox>
#include <QFile>
#include <QImage>
#include <QListWidget>
#include <QTableWidget>
#include <QTextBrowser>
#include <QTreeWidget>
#include <nlohmann/json.hpp>

#include <set>

#include "app/ui/unit_box.h"
#include "read_day_fixture.h"
#include "support/reading_words.h"

namespace fin::app {
namespace {

enum RigOf : std::int64_t { kWide = 11, kEven, kDear, kOurs };

class VerdictTest : public ReadDayTest {
 protected:
  void SetUp() override {
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    plan_.name = "A day";
    plan_.questions = {"wobble"};
    plan_.rack.models = {{.id = 1, .name = "Wide", .length_mm = 60.0, .price = 10.0, .currency = "EUR"},
                         {.id = 2, .name = "Even", .length_mm = 90.0, .price = 8.0, .currency = "EUR"},
                         {.id = 3, .name = "Dear", .length_mm = 110.0, .price = 40.0, .currency = "EUR"},
                         {.id = 4, .name = "Ours", .graded = false, .whyNotGraded = "we made it"}};
    plan_.rack.rigs = {{.id = kWide, .model = 1},
                       {.id = kEven, .model = 2},
                       {.id = kDear, .model = 3},
                       {.id = kOurs, .model = 4}};
    // Wide is widest, Even the steadiest, Dear second in both; Ours would win everything.
    for (const double by : {-0.2, 0.0, 0.2}) {
      pull(**log, kWide, 40.0 + by, 9.0 + by);
      pull(**log, kEven, 20.0 + by, 3.0 + by);
      pull(**log, kDear, 32.0 + by, 5.0 + by);
      pull(**log, kOurs, 60.0 + by, 1.0 + by);
    }
    keep(**log, kEven, "even falls", Protocol::Fall, {{ReadingId::FallRate, 90.0, "mm/s", 2.0, 60.0}}, true);
    keep(**log, kDear, "dear falls", Protocol::Fall, {{ReadingId::FallRate, 160.0, "mm/s", 2.0, 60.0}}, true);
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan_));
    log->reset();
    openWindow();
    QTest::keyClick(window_.get(), Qt::Key_5, Qt::ControlModifier);
  }
  void pull(Log& log, RigId rig, double angle, double variation) {
    keep(log, rig, "pull " + std::to_string(plan_.sheet.size() + 1), Protocol::Retrieve,
         {{ReadingId::TravelSpeed, 200.0, "mm/s", 2.0, 100.0},
          {ReadingId::WobbleAngle, angle, "deg", 0.3, 12.0},
          {ReadingId::CycleVariation, variation, "%", 0.3, 12.0}},
         true);
  }
  template <class T>
  T* seen(const char* name) {
    EXPECT_TRUE(waitFor([this] { return !window_->verdict().report().busy(); }));
    return visible<T>(name);
  }
  QString said(const char* label) { return seen<QLabel>(label)->text(); }
  QStringList order() {
    QStringList out;
    auto* table = seen<QTableWidget>("ranking");
    for (int row = 0; row < table->rowCount(); ++row)
      out += table->item(row, 0)->text() + " " + table->item(row, 1)->text().section('\n', 0, 0);
    return out;
  }
  void pick(QComboBox* box, const QString& text) {
    box->setCurrentIndex(box->findText(text));
    ASSERT_EQ(box->currentText(), text);
    emit box->activated(box->currentIndex());
  }
};

TEST_F(VerdictTest, AddsPlacesAndSaysHowFirmTheyAre) {
  // Wobble: Wide 1, Dear 2, Even 3. Hunting: Even 1, Dear 2, Wide 3. All add to 4.
  EXPECT_EQ(order(), (QStringList{"2 Wide", "2 Even", "2 Dear", QString(QChar(0x2013)) + " Ours"}));
  EXPECT_EQ(said("firstPlace"), "Too close to call. Wide and Even and Dear share the first place");
  EXPECT_TRUE(said("firmness").startsWith("First in")) << said("firmness").toStdString();
  EXPECT_TRUE(said("verdictWords").contains("Ours is shown, not graded: we made it"));
  // The steadiness counts double: Even 3 + 2, Dear 2 + 4, Wide 1 + 6.
  seen<QListWidget>("wishes")->setCurrentRow(1);
  pick(seen<QComboBox>("weight"), "double");
  EXPECT_EQ(order().front(), "1 Even");
  EXPECT_EQ(said("firstPlace"), "Even comes first");
  press("undo");
  EXPECT_EQ(order().front(), "2 Wide");
  press("redo");
  // It is in the log.
  openWindow();
  QTest::keyClick(window_.get(), Qt::Key_5, Qt::ControlModifier);
  EXPECT_EQ(order().front(), "1 Even");
}

TEST_F(VerdictTest, InventsNoOrderWhereNothingCounts) {
  for (int row = 0; row < 2; ++row) {
    seen<QListWidget>("wishes")->setCurrentRow(row);
    pick(seen<QComboBox>("weight"), "not at all");
  }
  EXPECT_EQ(said("firstPlace"), "No order yet: every property has weight 0");
  EXPECT_EQ(order().size(), 4) << "what was read stays in view";
  EXPECT_TRUE(order().front().startsWith(QChar(0x2013)));
}

TEST_F(VerdictTest, TurnsTheWayThatIsWanted) {
  // Less wobble is wanted: Even is first in both.
  seen<QListWidget>("wishes")->setCurrentRow(0);
  pick(seen<QComboBox>("wanted"), "less");
  EXPECT_EQ(said("firstPlace"), "Even comes first");
  EXPECT_TRUE(said("firmness").startsWith("The order is firm")) << said("firmness").toStdString();
  auto* table = seen<QTableWidget>("ranking");
  EXPECT_EQ(table->item(0, table->columnCount() - 4)->text(), "1") << "its place is sure";
  // Near 31: Dear is next to it.
  pick(seen<QComboBox>("wanted"), "near a target");
  typeInto(seen<UnitBox>("target"), "31");
  EXPECT_TRUE(seen<QTableWidget>("ranking")->item(0, 2)->text().startsWith("1.")) << "of Dear, or of Even";
  EXPECT_EQ(said("firstPlace"), "Dear comes first");
}

TEST_F(VerdictTest, GivesPointsByTheTestersCurve) {
  press("verdictPoints");
  // As the day gives: Wide 10 and 0, Even 0 and 10, Dear 6 and 6.67.
  EXPECT_EQ(order().front(), "1 Dear");
  EXPECT_EQ(seen<QTableWidget>("ranking")->item(0, 4)->text(), "6.33");
  seen<QListWidget>("wishes")->setCurrentRow(0);
  typeInto(seen<UnitBox>("pointsNone"), "30");
  EXPECT_TRUE(seen<QCheckBox>("ownCurve")->isChecked());
  // 0 points at 30, 5 at 30 as it stood halfway, 10 at 40: Dear has 5 + 5 · 0.2.
  typeInto(seen<UnitBox>("pointsHalf"), "35");
  EXPECT_TRUE(seen<QTableWidget>("ranking")->findItems("2 points", Qt::MatchContains).size() == 1)
      << "2 of 10 on the way to 35";
}

TEST_F(VerdictTest, WeighsPlacesAgainstThePrice) {
  press("verdictPrice");
  // Places are equal, so the price decides: Even 8, Wide 10, Dear 40.
  EXPECT_EQ(order().first(3), (QStringList{"1 Even", "2 Wide", "3 Dear"}));
  EXPECT_TRUE(find<QCustomPlot>("pricePlot")->xAxis->label().contains("EUR"));
  EXPECT_EQ(said("firstPlace"), "Too close to call. Even is ahead");
}

TEST_F(VerdictTest, SaysWhatEachIsFor) {
  press("verdictPurpose");
  auto* table = seen<QTableWidget>("purposes");
  const auto rowOf = [&](const QString& purpose) {
    EXPECT_TRUE(waitFor([this] { return !window_->verdict().report().busy(); }));
    return table->findItems(purpose, Qt::MatchExactly).front()->row();
  };
  EXPECT_EQ(table->item(rowOf("Deep hop"), 1)->text(), "Dear");
  EXPECT_TRUE(table->item(rowOf("Deep hop"), 3)->text().contains("fall rate 160 ± 2")) << "the reason";
  EXPECT_EQ(table->item(rowOf("Hover on the pause"), 1)->text(), "nothing yet");
  EXPECT_TRUE(table->item(rowOf("Hover on the pause"), 3)
                  ->text()
                  .startsWith("Film this to know: drift in the pause"));
  for (int row = 0; row < table->rowCount(); ++row) {
    const QString reason = table->item(row, 3)->text();
    const QRect needed =
        table->fontMetrics().boundingRect(0, 0, table->columnWidth(3), 1000, Qt::TextWordWrap, reason);
    EXPECT_GE(table->rowHeight(row), needed.height()) << reason.toStdString() << " is cut off";
  }
  // One of the tester's own.
  press("addPurpose");
  typeInto(seen<QLineEdit>("purposeName"), "Under the ice");
  auto* add = seen<QComboBox>("addWish");
  pick(add, "Hunting");
  EXPECT_EQ(table->item(rowOf("Under the ice"), 1)->text(), "Even");
  press("removePurpose");
  EXPECT_TRUE(table->findItems("Under the ice", Qt::MatchExactly).empty());
  press("undo");
  EXPECT_EQ(table->item(rowOf("Under the ice"), 1)->text(), "Even");
}

TEST_F(VerdictTest, CountsWhatIsJudgedBesideWhatIsMeasured) {
  press("verdictJudged");
  auto* property = seen<QComboBox>("judgedProperty");
  EXPECT_GE(property->count(), 13);
  pick(property, "Finish");
  auto* table = seen<QTableWidget>("judgedScores");
  const auto give = [&](const QString& rig, const char* points) {
    for (int row = 0; row < table->rowCount(); ++row) {
      if (table->item(row, 0)->text() == rig) table->item(row, 2)->setText(points);
    }
  };
  for (const auto& [rig, points] : {std::pair("Wide", "3"),
                                    {"Wide", "3.4"},
                                    {"Even", "5"},
                                    {"Even", "5.2"},
                                    {"Dear", "9"},
                                    {"Dear", "9,2"}})
    give(rig, points);
  const auto& scores = window_->verdict().controller().plan().judgements.scores;
  EXPECT_EQ(scores.size(), 6U);
  give("Dear", "11");
  EXPECT_EQ(scores.size(), 6U) << "there are but ten points";
  EXPECT_TRUE(said("whichOfTwo").contains("11 was not kept"));
  press("verdictPlaces");
  pick(seen<QComboBox>("addWish"), "Finish (judged)");
  EXPECT_EQ(order().front(), "1 Dear") << said("firstPlace").toStdString();
  auto* ranking = seen<QTableWidget>("ranking");
  EXPECT_EQ(ranking->horizontalHeaderItem(ranking->columnCount() - 6)->text().section('\n', 0, 0),
            "Finish (judged)");
  press("undo");
  EXPECT_NE(order().front(), "1 Dear");
}

TEST_F(VerdictTest, AsksWhichOfTwoWithNamesCovered) {
  press("verdictJudged");
  const auto duels = [this] { return window_->verdict().controller().plan().judgements.duels; };
  EXPECT_EQ(seen<QPushButton>("chooseFirst")->text(), QString::fromUtf8("←  Left one")) << "no name is seen";
  QWidget* page = seen<QPushButton>("chooseFirst")->parentWidget()->parentWidget();
  std::set<std::set<std::string>> met;
  for (int k = 0; k < 6; ++k) {
    QTest::keyClick(page, k == 2 ? Qt::Key_Down : Qt::Key_Left);
    met.insert({duels().back().first, duels().back().second});
  }
  EXPECT_EQ(met.size(), 6U) << "four rigs: every two meet once before any two meet again";
  EXPECT_EQ(duels()[2].forFirst, 0.5);
  EXPECT_EQ(duels()[0].forFirst, 1.0);
  press("showNames");
  EXPECT_TRUE(seen<QPushButton>("chooseSecond")->text().startsWith("Right: "));
  press("undo");
  EXPECT_EQ(duels().size(), 5U);
}

TEST_F(VerdictTest, ShowsTheTwoByTheirPhotosWhereThereAreAny) {
  QImage photo(600, 300, QImage::Format_RGB32);
  photo.fill(Qt::red);
  const QString file = QString::fromStdString((folder_ / "lure.png").string());
  ASSERT_TRUE(photo.save(file));
  press("verdictJudged");
  EXPECT_TRUE(seen<QPushButton>("chooseFirst")->icon().isNull());
  window_->day().edit("photos", [&file](DayPlan& plan) {
    for (Model& model : plan.rack.models) model.photo = file.toStdString();
  });
  press("verdictPlaces");
  press("verdictJudged");
  EXPECT_EQ(seen<QPushButton>("chooseFirst")->iconSize(), QSize(260, 130)) << "as much as there is room for";
  EXPECT_FALSE(seen<QPushButton>("chooseSecond")->icon().isNull());
}

TEST_F(VerdictTest, PutsTheGamesKeysOnTheSheetOfKeys) {
  press("verdictJudged");
  QTest::keyClick(window_.get(), Qt::Key_F2);
  auto* sheet = window_->findChild<QTreeWidget*>("keyList");
  ASSERT_NE(sheet, nullptr);
  EXPECT_EQ(sheet->topLevelItem(0)->text(0), "Verdict, judged");
  EXPECT_EQ(sheet->topLevelItem(0)->childCount(), 3);
}

TEST_F(VerdictTest, TellsWhatCanBePulledTogether) {
  press("verdictTogether");
  EXPECT_EQ(said("togetherHeading"), "4 rigs can be pulled together at 190 mm/s to 210 mm/s");
  auto* order = seen<QListWidget>("dayOrder");
  EXPECT_TRUE(order->item(0)->text().contains("Dear, 110")) << "of equal speed the biggest";
  press("orderByPrey");
  EXPECT_TRUE(order->item(0)->text().contains("Even, 90")) << "nearest to 80 mm";
  typeInto(seen<UnitBox>("prey"), "60");
  EXPECT_TRUE(order->item(0)->text().contains("Wide, 60"));
}

TEST_F(VerdictTest, LeadsFromAPropertyToItsPasses) {
  auto* table = seen<QTableWidget>("ranking");
  table->setFocus();
  table->setCurrentCell(0, 3);
  QTest::keyClick(table, Qt::Key_Return);
  ASSERT_TRUE(window_->lineUp().isVisible());
  EXPECT_EQ(find<QListWidget>("readingChoice")->currentItem()->text(), "Hunting");
}

TEST_F(VerdictTest, WritesAReportThatStandsAlone) {
  press("verdictReport");
  ASSERT_TRUE(waitFor([&] { return !window_->verdict().report().busy(); }));
  find<QLineEdit>("interest")->setText("We <made> Ours & \"theirs\".");
  press("keepWords");
  const QString page = find<QTextBrowser>("report")->toPlainText();
  for (const char* part :
       {"How wide and how fast does it work", "share the first place", "Even", "shown, not graded",
        "32.0 ± 0.2 °", "We <made> Ours & \"theirs\".", "one tank is not a lake",
        "its clip is gone or cannot be read", "Where the numbers come from", "pull 1.mp4"})
    EXPECT_TRUE(page.contains(part)) << part << "\n" << page.toStdString();
  EXPECT_LT(page.indexOf("share the first place"), page.indexOf("Appendix")) << "the answer comes first";
  using Form = ReportPage::Form;
  const auto read = [&](const char* name, Form form, const char* ending) {
    const QString file = QString::fromStdString((folder_ / name).string());
    window_->verdict().report().write(form, file);
    QFile written(file + ending);
    EXPECT_TRUE(written.open(QIODevice::ReadOnly)) << name;
    return written.readAll();
  };
  const QByteArray pdf = read("report.odd", Form::Pdf, ".pdf");
  EXPECT_TRUE(pdf.startsWith("%PDF"));
  EXPECT_TRUE(pdf.contains("/Outlines"));
  EXPECT_EQ(read("readings.csv", Form::Table, "").count('\n'), 1 + 12 * 3 + 2);
  const auto json = nlohmann::json::parse(read("readings.json", Form::Json, "").toStdString());
  EXPECT_EQ(json["format"], "agile-fin-passes/1");
  EXPECT_EQ(json["passes"].size(), 14U);
  EXPECT_EQ(json["passes"][0]["readings"][1]["value"], 39.8);
  window_->verdict().report().write(Form::Pdf,
                                    QString::fromStdString((folder_ / "no" / "such.pdf").string()));
  EXPECT_TRUE(text("reportDone").contains("cannot be written"));
}

TEST_F(VerdictTest, WritesAWebPageAndCardsIntoFoldersThatAreWhole) {
  press("verdictReport");
  ASSERT_TRUE(waitFor([&] { return !window_->verdict().report().busy(); }));
  find<QLineEdit>("interest")->setText("<script>alert(1)</script>");
  press("keepWords");
  ReportPage& report = window_->verdict().report();
  const auto place = [&](const char* name) { return QString::fromStdString((folder_ / name).string()); };
  report.write(ReportPage::Form::WebPage, place("page"));
  ASSERT_TRUE(waitFor([&] { return !report.busy(); }));
  QFile file(place("page") + "/index.html");
  ASSERT_TRUE(file.open(QIODevice::ReadOnly)) << text("reportDone").toStdString();
  const QByteArray html = file.readAll();
  EXPECT_TRUE(html.contains("data:image/png;base64,"));
  EXPECT_FALSE(html.contains("://")) << "nothing is fetched";
  EXPECT_FALSE(html.contains("<script")) << "what was typed is text";
  EXPECT_TRUE(html.contains("&lt;script&gt;"));
  EXPECT_TRUE(html.contains("No picture: its clip is gone"));
  EXPECT_TRUE(text("reportDone").contains("Without a clip")) << text("reportDone").toStdString();
  report.write(ReportPage::Form::WebPage, place("page"));
  ASSERT_TRUE(waitFor([&] { return !report.busy(); }));
  EXPECT_TRUE(text("reportDone").contains("choose another name"));
  report.write(ReportPage::Form::Cards, place("cards"));
  const QStringList cards = QDir(place("cards")).entryList({"*.png"});
  EXPECT_EQ(static_cast<std::size_t>(cards.size()),
            window_->verdict().controller().lineUp().entries().size());
  EXPECT_EQ(QImage(place("cards") + "/" + cards.front()).size(), QSize(1080, 1350));
  EXPECT_TRUE(QDir(place("")).entryList({"cards.part*"}, QDir::Dirs).isEmpty());
}

TEST(EmptyVerdict, StaysUsefulAndInventsNothing) {
  test::TemporaryFolder folder;
  MainWindow window(*Log::open(folder / "day.finlog"));
  window.show();
  window.go(Place::Verdict);
  for (const auto page :
       {VerdictPlace::Page::Points, VerdictPlace::Page::Purpose, VerdictPlace::Page::Price,
        VerdictPlace::Page::Together, VerdictPlace::Page::Report, VerdictPlace::Page::Places})
    window.verdict().go(page);
  for (QLabel* first : window.findChildren<QLabel*>("firstPlace")) {
    EXPECT_EQ(first->text(), "No order yet: there is no property to score by yet");
  }
  EXPECT_TRUE(window.findChild<QLabel*>("togetherHeading")->text().contains("No rig was pulled"));
}

}  // namespace
}  // namespace fin::app
