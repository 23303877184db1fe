// SPDX-License-Identifier: GPL-3.0-or-later
// What holds on every page of every place: whoever listens to the window hears what each thing is, whoever
// works by keyboard reaches it, and all of it fits a small screen.
#include <QAbstractButton>
#include <QAbstractItemView>
#include <QAbstractSlider>
#include <QAbstractSpinBox>
#include <QComboBox>
#include <QLineEdit>
#include <QRegularExpression>
#include <map>

#include "app/places/guide_window.h"
#include "app/places/lineup/line_up_place.h"
#include "app/places/plan/plan_place.h"
#include "app/places/verdict/verdict_place.h"
#include "read_day_fixture.h"
#include "terms.h"
#include "whole_texts.h"

namespace fin::app {
namespace {

/// A page, and how to come to it.
struct Stop {
  std::string name;
  std::function<void(MainWindow&)> go;

  friend std::ostream& operator<<(std::ostream& out, const Stop& stop) { return out << stop.name; }
};

constexpr std::int64_t kOnTheWater = 50;

std::vector<Stop> allPages() {
  std::vector<Stop> out;
  const auto place = [](Place p) { return [p](MainWindow& w) { w.go(p); }; };
  for (const auto& [name, page] : {std::pair("Question", PlanPlace::Page::Question),
                                   {"Rack", PlanPlace::Page::Rack},
                                   {"Water", PlanPlace::Page::Water},
                                   {"Cameras", PlanPlace::Page::Cameras},
                                   {"Equal", PlanPlace::Page::Equal},
                                   {"Sheet", PlanPlace::Page::Sheet},
                                   {"Foretell", PlanPlace::Page::Foretell}})
    out.push_back({std::string("Plan") + name, [page](MainWindow& w) {
                     w.go(Place::Plan);
                     w.plan().go(page);
                   }});
  for (const auto& [name, page] : {std::pair("Day", PlanPlace::Page::WaterDay),
                                   {"Conditions", PlanPlace::Page::Conditions},
                                   {"TieOn", PlanPlace::Page::TieOn},
                                   {"Opinions", PlanPlace::Page::Opinions},
                                   {"Speeds", PlanPlace::Page::Speeds}})
    out.push_back({std::string("OnTheWater") + name, [page](MainWindow& w) {
                     w.day().choose(kOnTheWater);
                     w.go(Place::Plan);
                     w.plan().go(page);
                   }});
  for (const auto& [name, where] :
       {std::pair("Running", Place::Poolside), {"Catches", Place::Verdict}, {"Log", Place::Log}})
    out.push_back({std::string("OnTheWater") + name, [where](MainWindow& w) {
                     w.day().choose(kOnTheWater);
                     w.go(where);
                   }});
  out.push_back({"Poolside", place(Place::Poolside)});
  out.push_back({"Bench", place(Place::Bench)});
  using Line = LineUpPlace::Page;
  for (const auto& [name, page] : {std::pair("InStep", Line::InStep),
                                   {"Overlay", Line::Overlay},
                                   {"Spread", Line::Spread},
                                   {"Ladder", Line::Ladder},
                                   {"Depth", Line::Depth},
                                   {"Weight", Line::Weight},
                                   {"Eye", Line::Eye},
                                   {"Ear", Line::Ear}})
    out.push_back({std::string("LineUp") + name, [page](MainWindow& w) {
                     w.go(Place::LineUp);
                     w.lineUp().go(page);
                   }});
  using Verdict = VerdictPlace::Page;
  for (const auto& [name, page] : {std::pair("Places", Verdict::Places),
                                   {"Points", Verdict::Points},
                                   {"Purpose", Verdict::Purpose},
                                   {"Price", Verdict::Price},
                                   {"Judged", Verdict::Judged},
                                   {"Vote", Verdict::Vote},
                                   {"Together", Verdict::Together},
                                   {"Catches", Verdict::Catches},
                                   {"Box", Verdict::Box},
                                   {"Report", Verdict::Report}})
    out.push_back({std::string("Verdict") + name, [page](MainWindow& w) {
                     w.go(Place::Verdict);
                     w.verdict().go(page);
                   }});
  out.push_back({"Log", place(Place::Log)});
  for (const char* page : {"modelReadings", "modelClaims", "modelPieces", "modelPrices", "modelJudgedPage",
                           "modelCatchesPage", "thisLog"}) {
    out.push_back({std::string("Log") + page, [page](MainWindow& w) {
                     w.go(Place::Log);
                     auto* words = w.findChild<QLineEdit*>("findWords");
                     words->setText("Vinto");
                     emit words->returnPressed();
                     w.findChild<QPushButton*>(page)->click();
                   }});
  }
  out.push_back({"Days", [](MainWindow& w) { w.findChild<QPushButton*>("days")->click(); }});
  out.push_back({"LookThrough", place(Place::LookThrough)});
  return out;
}

class EveryPage : public ReadDayTest, public testing::WithParamInterface<Stop> {
 protected:
  void SetUp() override {
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log);
    plan_.name = "A day at the trough";
    plan_.date = "2026-05-02";
    plan_.rack.models = {{.id = 1, .name = "Vinto 11", .length_mm = 110.0, .weight_g = 9.5, .price = 4.5},
                         {.id = 2, .name = "Skrell 95", .length_mm = 95.0, .price = 12.0}};
    plan_.rack.rigs = {{.id = 11, .model = 1, .name = "7 g head"},
                       {.id = 12, .model = 2, .name = "size 4 hooks"}};
    for (const auto& [rig, angle] : {std::pair(11, 24.0), {11, 25.0}, {12, 31.0}, {12, 30.0}})
      keep(**log, rig, "pull " + std::to_string(plan_.sheet.size() + 1), Protocol::Retrieve,
           {{ReadingId::TravelSpeed, 250.0, "mm/s", 2.0, 100.0},
            {ReadingId::WobbleAngle, angle, "deg", 0.5, 12.0}},
           true);
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan_));
    addDayOnTheWater(**log);
    const LoggedPass alone = *(*log)->pass(keep(**log, 12, "pull 5", Protocol::Retrieve, {}, false));
    LoggedPass waits = alone;
    waits.finding =
        Finding{{{{MarkName::Nose, 3, {50.0, 60.0}}, 0.75}, {{MarkName::Tail, 3, {20.0, 60.0}}, 0.4}}, {}};
    ASSERT_TRUE((*log)->changePasses({{alone, waits}}));
    log->reset();
    openWindow();
    window_->resize(1280, 800);
    GetParam().go(*window_);
    QTest::qWait(50);
  }
  /// Two rods, some fish, and most of what can be noted.
  void addDayOnTheWater(Log& log) {
    DayPlan none;
    none.id = kOnTheWater;
    none.rack = plan_.rack;
    DayPlan wet = none;
    wet.kind = DayKind::Water;
    wet.date = "2020-05-02";  // the test day stays the newest
    wet.name = "At the canal";
    wet.conditions = {{1.588e9, Condition::SurfaceTemperature, 8.0, ""},
                      {1.588e9, Condition::Clarity, 0.8, ""},
                      {1.588e9, Condition::Wind, 6.0, ""},
                      {1.588e9, Condition::Light, {}, "dusk"},
                      {1.588e9, Condition::Tide, {}, ""}};
    std::int64_t id = 500;
    const auto at = [&](double hour, RunEventKind kind, int rod, RigId rig) {
      wet.events.push_back(
          {.id = id++, .at_s = 1.588e9 + 3600.0 * hour, .kind = kind, .rod = rod, .rig = rig, .block = 1});
    };
    for (const int rod : {1, 2}) {
      at(0, RunEventKind::Tie, rod, 10 + rod);
      at(0, RunEventKind::Fish, rod, {});
    }
    at(0.5, RunEventKind::Caught, 1, 11);
    at(1.5, RunEventKind::Caught, 1, 11);
    for (const int rod : {1, 2}) at(2, RunEventKind::Rest, rod, {});
    ASSERT_TRUE(log.savePlan(none, wet));
  }
  void expectNames();
  void expectRoom();
  void expectWhole(const QString& at);
  void expectReasons();
  void expectPlainWords();
  void expectTabs();
  template <class T>
  std::vector<T*> shown() {
    std::vector<T*> out;
    for (T* widget : window_->findChildren<T*>()) {
      if (widget->isVisible()) out.push_back(widget);
    }
    return out;
  }
};

void EveryPage::expectNames() {
  std::set<const QWidget*> labelled;
  for (const QLabel* l : shown<QLabel>()) {
    if (l->buddy() != nullptr) labelled.insert(l->buddy());
  }
  const auto heard = [&](const QWidget& w, const QString& text) {
    return !text.isEmpty() || !w.accessibleName().isEmpty() || labelled.contains(&w);
  };
  const auto where = [](const QWidget& w) {
    return (w.objectName() + " in " + w.parentWidget()->metaObject()->className()).toStdString();
  };
  for (const QAbstractButton* b : shown<QAbstractButton>()) {
    const bool ofQt =
        b->objectName().startsWith("qt_") || qobject_cast<QAbstractItemView*>(b->parentWidget());
    EXPECT_TRUE(ofQt || heard(*b, b->text())) << where(*b);
  }
  for (const QComboBox* b : shown<QComboBox>()) EXPECT_TRUE(heard(*b, {})) << where(*b);
  for (const QAbstractSpinBox* b : shown<QAbstractSpinBox>()) EXPECT_TRUE(heard(*b, {})) << where(*b);
  for (const QAbstractSlider* s : shown<QAbstractSlider>()) {
    if (qobject_cast<const QScrollBar*>(s) == nullptr) {
      EXPECT_TRUE(heard(*s, {})) << where(*s);
    }
  }
  for (const QLineEdit* e : shown<QLineEdit>()) {
    if (e->objectName() == "qt_spinbox_lineedit" || qobject_cast<QComboBox*>(e->parentWidget())) continue;
    EXPECT_TRUE(heard(*e, e->placeholderText())) << where(*e);
  }
  for (const QAbstractItemView* v : shown<QAbstractItemView>()) {
    if (!v->inherits("QHeaderView")) {
      EXPECT_TRUE(heard(*v, {})) << where(*v);
    }
  }
}

/// Whoever finds something that cannot be used now is told why.
void EveryPage::expectReasons() {
  for (const QPushButton* b : shown<QPushButton>()) {
    if (b->isEnabled() || !b->parentWidget()->isEnabled()) continue;
    EXPECT_FALSE(b->toolTip().isEmpty()) << b->text().toStdString() << " is greyed and does not say why";
    EXPECT_FALSE(b->accessibleDescription().isEmpty())
        << b->text().toStdString() << " does not say why aloud";
  }
  for (const QComboBox* b : shown<QComboBox>()) {
    if (b->isEnabled() || !b->parentWidget()->isEnabled()) continue;
    EXPECT_FALSE(b->toolTip().isEmpty()) << b->objectName().toStdString() << " does not say why";
  }
}

void EveryPage::expectWhole(const QString& at) {
  // What is shown for the first time is laid out in a later turn of the loop.
  if (QTest::qWaitFor([this] { return test::cutIn(*window_).empty(); }, 300)) return;
  for (const std::string& text : test::cutIn(*window_)) ADD_FAILURE() << at.toStdString() << ": " << text;
}

void EveryPage::expectRoom() {
  // A screen of 1280 × 800, less the frame and a panel of the desktop.
  EXPECT_LE(window_->minimumSizeHint().width(), 1280) << "the window would not fit";
  EXPECT_LE(window_->minimumSizeHint().height(), 760);
  for (const UnitSystem units : {UnitSystem::Metric, UnitSystem::Imperial}) {
    Settings::all().setUnits(units);
    for (const QSize size : {QSize(1280, 800), QSize(1920, 1080), QSize(1024, 700)}) {
      window_->resize(size);
      expectWhole(QString("%1 × %2, %3")
                      .arg(size.width())
                      .arg(size.height())
                      .arg(units == UnitSystem::Metric ? "metric" : "US"));
    }
  }
  Settings::all().setUnits(UnitSystem::Metric);
  window_->resize(1280, 800);
  Settings::all().setTextSize_percent(130);
  expectWhole("the largest text");
  EXPECT_LE(window_->minimumSizeHint().width(), 1280) << "with the largest text";
  Settings::all().setTextSize_percent(100);
}

void EveryPage::expectPlainWords() {
  static const QRegularExpression program("_|\\bnan\\b|\\binf\\b|%[0-9]|nullptr|::");
  static const std::vector<QStringList> otherwise = test::tableOf("Said otherwise");
  ASSERT_GT(otherwise.size(), 20U);
  const auto plain = [](const QString& text) {
    EXPECT_FALSE(text.contains(program) && !text.contains(".mp4") && !text.contains('/'))
        << text.toStdString();
    for (const QStringList& row : otherwise) {
      const QRegularExpression word("\\b" + QRegularExpression::escape(row[0]) + "\\b");
      EXPECT_FALSE(text.contains(word)) << text.toStdString() << ": say " << row[1].toStdString();
    }
  };
  for (const QWidget* w : shown<QWidget>()) plain(w->toolTip());
  for (const QLabel* l : shown<QLabel>()) plain(l->text());
  for (const QAbstractButton* b : shown<QAbstractButton>()) plain(b->text());
  for (const QComboBox* b : shown<QComboBox>()) {
    for (int i = 0; i < b->count(); ++i) plain(b->itemText(i));
  }
}

/// The tab key comes to every button that takes it, once round.
void EveryPage::expectTabs() {
  std::set<const QWidget*> reached;
  QWidget* at = window_->focusWidget() != nullptr ? window_->focusWidget() : window_->nextInFocusChain();
  while (at != nullptr && reached.insert(at).second) {
    QTest::keyClick(at, Qt::Key_Tab);
    at = window_->focusWidget();
  }
  for (const QPushButton* b : shown<QPushButton>()) {
    if (b->isEnabled() && (b->focusPolicy() & Qt::TabFocus) != 0) {
      EXPECT_TRUE(reached.contains(b)) << b->text().toStdString() << " is not reached";
    }
  }
}

TEST_P(EveryPage, IsHeardReachedAndReadOnASmallScreen) {
  expectNames();
  expectRoom();
  expectPlainWords();
  expectReasons();
  expectTabs();
}

/// Of the pages that have a title, at the heading of that title; of the others, at their place's chapter.
TEST_P(EveryPage, OpensItsPageOfTheGuide) {
  const std::map<Place, QString> chapters{{Place::Plan, "plan"},
                                          {Place::Poolside, "poolside"},
                                          {Place::Bench, "bench"},
                                          {Place::LineUp, "line-up"},
                                          {Place::Verdict, "verdict"},
                                          {Place::Log, "log"},
                                          {Place::LookThrough, "look-through"}};
  QTest::keyClick(window_.get(), Qt::Key_F1);
  auto* guide = window_->findChild<GuideWindow*>("guide");
  ASSERT_NE(guide, nullptr);
  ASSERT_TRUE(guide->isVisible());
  QString page;
  for (const auto* tab : window_->findChildren<QPushButton*>()) {
    const bool title = tab->objectName().startsWith("step") || tab->objectName().startsWith("page") ||
                       tab->objectName().startsWith("verdict");
    if (title && tab->isVisible() && tab->isCheckable() && tab->isChecked())
      page = tab->text().remove(QRegularExpression("^\\d+  "));
  }
  if (page.isEmpty()) {
    const bool running = GetParam().name == "OnTheWaterRunning";
    const Place place = running ? Place::Poolside : window_->place();
    EXPECT_EQ(guide->chapter(), running ? "on-the-water" : chapters.at(place));
    EXPECT_EQ(guide->heading(), running ? "The running page" : "");
  } else {
    EXPECT_EQ(guide->heading(), page);
    EXPECT_TRUE(guide->text().toPlainText().contains(page));
  }
  QTest::keyClick(guide, Qt::Key_Escape);
  EXPECT_FALSE(guide->isVisible());
}

/// Under QT_SCALE_FACTOR, which holds for a whole run.
class EveryPageAtAScale : public EveryPage {};

TEST_P(EveryPageAtAScale, IsWhole) {
  EXPECT_EQ(window_->devicePixelRatio(), qEnvironmentVariable("QT_SCALE_FACTOR", "1").toDouble());
  for (const UnitSystem units : {UnitSystem::Imperial, UnitSystem::Metric}) {
    Settings::all().setUnits(units);
    expectWhole(units == UnitSystem::Metric ? "metric" : "US");
  }
}

/// In a language that needs half as much room again.
class EveryPageInLongerWords : public EveryPage {
 protected:
  void SetUp() override {
    QCoreApplication::installTranslator(&longer_);
    EveryPage::SetUp();
  }
  ~EveryPageInLongerWords() override { QCoreApplication::removeTranslator(&longer_); }
  test::HalfAsLongAgain longer_;
};

TEST_P(EveryPageInLongerWords, IsWhole) {
  expectWhole("longer words");
}

INSTANTIATE_TEST_SUITE_P(App, EveryPageInLongerWords, testing::ValuesIn(allPages()),
                         [](const auto& param) { return param.param.name; });
INSTANTIATE_TEST_SUITE_P(App, EveryPageAtAScale, testing::ValuesIn(allPages()),
                         [](const auto& param) { return param.param.name; });
INSTANTIATE_TEST_SUITE_P(App, EveryPage, testing::ValuesIn(allPages()),
                         [](const auto& param) { return param.param.name; });

}  // namespace
}  // namespace fin::app
