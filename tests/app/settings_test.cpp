// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ui/settings.h"

#include <qcustomplot.h>
#include <cmath>

#include "app/ui/theme.h"
#include "app/ui/unit_box.h"
#include "support/logged.h"
#include "window_fixture.h"

namespace fin::app {
namespace {

/// Puts back what a test chose.
class Chosen : public WindowTest {
 protected:
  void SetUp() override { openWindow(); }
  ~Chosen() override {
    Settings::all().setLook(Look::AsTheSystem);
    Settings::all().setTextSize_percent(100);
    Settings::all().setThresholds({});
    Settings::all().setPullUnit(PullUnit::AsTheUnits);
  }
  void choose(const QString& box, int index) {
    auto* choice = find<QComboBox>(box);
    choice->setCurrentIndex(index);
  }
};

TEST_F(Chosen, LookActsAtOnceEverywhere) {
  press("settings");
  choose("look", 1);
  window_->go(Place::LineUp);
  auto* plot = window_->lineUp().findChild<QCustomPlot*>();
  ASSERT_NE(plot, nullptr);
  const QColor paper = window_->palette().color(QPalette::Window);
  EXPECT_EQ(paper, lightTheme().paper);
  press("settings");
  choose("look", 2);
  EXPECT_EQ(window_->palette().color(QPalette::Window), darkTheme().paper);
  EXPECT_EQ(plot->xAxis->labelColor(), darkTheme().ink);
  window_->go(Place::LineUp);
  EXPECT_EQ(window_->grab().toImage().pixelColor(window_->width() / 2, window_->height() - 3),
            darkTheme().paper);
}

TEST_F(Chosen, TextIsAsLargeAsAskedFor) {
  window_->go(Place::Poolside);
  const auto high = [&](const char* label) { return find<QLabel>(label)->fontMetrics().height(); };
  const int before = high("nowRig");
  const int small = window_->fontMetrics().height();
  press("settings");
  choose("textSize", 2);
  // Letters come in whole pixels, and their height is rounded once more.
  EXPECT_NEAR(high("nowRig"), 1.3 * before, 2.0);
  EXPECT_NEAR(window_->fontMetrics().height(), 1.3 * small, 1.5);
}

TEST_F(Chosen, UnitsAreOnTheStripAndInTheSheetAlike) {
  press("settings");
  choose("unitSystem", 1);
  EXPECT_EQ(find<QPushButton>("units")->text(), "inches");
  press("units");
  EXPECT_EQ(Settings::all().units(), UnitSystem::Metric);
}

TEST_F(Chosen, PullsAreShownInTheUnitOnesReelIsKnownBy) {
  press("settings");
  choose("pullUnit", 2);
  EXPECT_EQ(spokenPull(804.672, UnitSystem::Metric), "1.80 mph");
  EXPECT_EQ(spokenSpeed(804.672, UnitSystem::Metric), "805 mm/s") << "a fall goes with the units";
  EXPECT_EQ(spoken({ReadingId::TravelSpeed, 804.672, "mm/s", 8.0, 1.0}, UnitSystem::Imperial).unit, "mph");
  EXPECT_EQ(spoken({ReadingId::FallRate, 254.0, "mm/s", 8.0, 1.0}, UnitSystem::Imperial).unit, "in/s");
  window_->go(Place::Plan);
  press("step4");
  auto* pull = find<QDoubleSpinBox>("pullSpeed");
  EXPECT_EQ(pull->suffix(), " mph");
  typeInto(pull, "2 knots");
  EXPECT_NEAR(window_->day().plan().filming.pullSpeed_mm_s, 1028.9, 0.5);
  press("settings");
  choose("pullUnit", 0);
  EXPECT_EQ(pull->suffix(), " mm/s");
}

TEST_F(Chosen, ThresholdsHoldForClipsFromNowOnAndForThisLogAtAKey) {
  window_.reset();
  test::write(folder_ / "a.mp4", "stands for a clip");
  {
    auto log = *Log::open(folder_ / "day.finlog");
    PassRequest request;
    request.clip = folder_ / "a.mp4";
    test::addPass(*log, "one", request);
    test::addPass(*log, "two", request);
  }
  openWindow();
  press("settings");
  EXPECT_FALSE(find<QPushButton>("thresholdsAsDefined")->isEnabled());
  typeInto(find<QDoubleSpinBox>("holdsWithin"), "0.6 in/s");
  EXPECT_NEAR(Settings::all().thresholds().holdsWithin_mm_s, 15.24, 0.06);
  const auto held = [this] {
    std::vector<double> out;
    for (const LoggedPass& pass : window_->passController().passes())
      out.push_back(pass.request.thresholds.holdsWithin_mm_s);
    return out;
  };
  EXPECT_EQ(held(), (std::vector{10.0, 10.0})) << "what was read stays as it was read";
  press("thresholdsForAll");
  EXPECT_NEAR(held().back(), 15.24, 0.06);
  press("thresholdsAsDefined");
  EXPECT_EQ(Settings::all().thresholds(), Thresholds{});
  window_->edits().undo();
  EXPECT_EQ(held(), (std::vector{10.0, 10.0}));
}

TEST(Settings, AreKeptInTheirFile) {
  const test::TemporaryFolder folder;
  const QString file = QString::fromStdString((folder / "deeper" / "settings.ini").string());
  {
    Settings settings;
    settings.keepIn(file);
    settings.setLook(Look::Dark);
    settings.setTextSize_percent(115);
    settings.setUnits(UnitSystem::Imperial);
    settings.setClipFolder("/somewhere/clips");
    settings.setThresholds({0.5, 40.0, 15.0});
    EXPECT_TRUE(settings.trouble().isEmpty());
  }
  Settings again;
  EXPECT_EQ(again.look(), Look::AsTheSystem) << "before a file is named";
  int told = 0;
  QObject::connect(&again, &Settings::unitsChanged, [&] { ++told; });
  again.keepIn(file);
  EXPECT_EQ(again.look(), Look::Dark);
  EXPECT_EQ(again.textSize_percent(), 115);
  EXPECT_EQ(again.units(), UnitSystem::Imperial);
  EXPECT_EQ(again.clipFolder(), "/somewhere/clips");
  EXPECT_EQ(again.thresholds(), (Thresholds{0.5, 40.0, 15.0}));
  EXPECT_EQ(told, 1);
}

TEST(Settings, SayThatTheyCannotBeKept) {
  const test::TemporaryFolder folder;
  // A file where a folder would have to be: no home, whoever asks.
  QFile inTheWay(QString::fromStdString((folder / "home").string()));
  ASSERT_TRUE(inTheWay.open(QIODevice::WriteOnly));
  Settings settings;
  settings.keepIn(QString::fromStdString((folder / "home" / "settings.ini").string()));
  settings.setLook(Look::Dark);
  EXPECT_EQ(settings.look(), Look::Dark) << "it holds for now";
  EXPECT_TRUE(settings.trouble().contains("cannot be written")) << settings.trouble().toStdString();
}

/// Relative luminance and contrast as W3C, Web Content Accessibility Guidelines 2.1, defines them.
double luminance(const QColor& colour) {
  const auto linear = [](double c) { return c <= 0.03928 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4); };
  return 0.2126 * linear(colour.redF()) + 0.7152 * linear(colour.greenF()) + 0.0722 * linear(colour.blueF());
}
double contrast(const QColor& a, const QColor& b) {
  const double la = luminance(a) + 0.05;
  const double lb = luminance(b) + 0.05;
  return std::max(la, lb) / std::min(la, lb);
}

TEST(Theme, KeepsAllTextReadable) {
  EXPECT_NEAR(contrast(Qt::white, Qt::black), 21.0, 1e-6);
  for (const Theme* t : {&lightTheme(), &darkTheme()}) {
    for (const QColor& ground : {t->paper, t->card}) {
      for (const QColor& text : {t->ink, t->faint, t->gone, t->accent, t->trouble})
        EXPECT_GE(contrast(text, ground), 4.5) << text.name().toStdString() << ground.name().toStdString();
    }
    EXPECT_GE(contrast(t->ink, t->strip), 4.5);
    EXPECT_GE(contrast(t->gone, t->strip), 4.5);
    EXPECT_GE(contrast(t->accent, t->strip), 4.5) << "a place's name under the pointer";
    EXPECT_GE(contrast(t->ink, t->accentSoft), 4.5);
    EXPECT_GE(contrast(t->ink, t->troubleSoft), 4.5);
    EXPECT_GE(contrast(t->onAccent, t->accent), 4.5);
    EXPECT_GE(contrast(t->gone, t->line), 3.0) << "what cannot be pressed now";
  }
}

TEST(Theme, LeavesTheIconsOfAFileDialogTheirRoom) {
  QFileDialog dialog;
  dialog.setOption(QFileDialog::DontUseNativeDialog);
  dialog.show();
  const auto buttons = dialog.findChildren<QToolButton*>();
  ASSERT_GE(buttons.size(), 5);
  for (QToolButton* b : buttons) {
    if (!b->isVisible()) continue;
    EXPECT_FALSE(b->icon().isNull()) << b->objectName().toStdString();
    // What is drawn inside the frame: a padding for words leaves seven pixels of an icon.
    const QImage drawn = b->grab().toImage().copy(b->rect().adjusted(4, 4, -4, -4));
    const QRgb ground = drawn.pixel(0, 0);
    int from = drawn.width(), to = -1;
    for (int x = 0; x < drawn.width(); ++x) {
      for (int y = 0; y < drawn.height(); ++y) {
        if (drawn.pixel(x, y) == ground) continue;
        from = std::min(from, x);
        to = std::max(to, x);
      }
    }
    EXPECT_GE(to - from, 9) << b->objectName().toStdString();
  }
}

TEST(UnitBox, TakesAnyUnitAndKeepsItsValueWhereNothingCanBeMeant) {
  UnitBox box("Weight", "g", {0.0, 100.0, 2});
  box.show(7.0);
  box.QWidget::show();
  double told = 0.0;
  QObject::connect(&box, &UnitBox::edited, [&](double metric) { told = metric; });
  const auto type = [&](const char* text) {
    box.selectAll();
    QTest::keyClicks(&box, text);
    QTest::keyClick(&box, Qt::Key_Return);
  };
  type("3/8 oz");
  EXPECT_NEAR(told, 10.63, 0.005);
  EXPECT_NEAR(box.metric(), 10.63, 0.005);
  EXPECT_EQ(box.text(), "10.63 g");
  type("4 bananas");
  EXPECT_NEAR(box.metric(), 10.63, 0.005);
  EXPECT_TRUE(box.trouble().contains("is not a weight")) << box.trouble().toStdString();
  type("900");
  EXPECT_EQ(box.text(), "10.63 g") << "no part of what was typed";
  EXPECT_NEAR(box.metric(), 10.63, 0.005);
  EXPECT_TRUE(box.trouble().contains("out of range")) << box.trouble().toStdString();
  box.setUnits(UnitSystem::Imperial);
  EXPECT_EQ(box.text(), "0.3750 oz");
  type("0,5");
  EXPECT_NEAR(box.metric(), 14.17, 0.01);
  EXPECT_TRUE(box.trouble().isEmpty());

  UnitBox water("Temperature", "°C", {-2.0, 40.0, 1});
  water.show(18.0);
  water.setUnits(UnitSystem::Imperial);
  EXPECT_EQ(water.text(), "64.4 °F");
  EXPECT_NEAR(water.metric(), 18.0, 1e-9);
}

class KeySheet : public WindowTest {
 protected:
  void SetUp() override { openWindow(); }
  QTreeWidget* shown() { return window_->findChild<QTreeWidget*>("keyList"); }
  void open() {
    QTest::keyClick(window_.get(), Qt::Key_F2);
    ASSERT_NE(shown(), nullptr);
    ASSERT_TRUE(shown()->isVisible());
  }
  bool shut() {
    return waitFor([this] { return shown() == nullptr; });
  }
};

TEST_F(KeySheet, ShowsFirstWhatCanBeDoneHere) {
  window_->go(Place::Poolside);
  open();
  EXPECT_EQ(shown()->topLevelItem(0)->text(0), "Poolside");
  EXPECT_EQ(shown()->topLevelItem(1)->text(0), "Everywhere");
  QTest::keyClick(window_.get(), Qt::Key_F2);
  ASSERT_TRUE(shut());
  window_->go(Place::Bench);
  open();
  EXPECT_EQ(shown()->topLevelItem(0)->text(0), "Bench (open a clip first)") << "says why nothing of it acts";
}

TEST_F(KeySheet, ShutsWithEscWithAPressBesideItAndWithThePlace) {
  open();
  QTest::keyClick(QApplication::focusWidget(), Qt::Key_Escape);
  EXPECT_TRUE(shut());
  open();
  QTest::mouseClick(find<QWidget>("sheet"), Qt::LeftButton, {}, QPoint(5, window_->height() - 5));
  EXPECT_TRUE(shut());
  open();
  QTest::keyClick(window_.get(), Qt::Key_4, Qt::ControlModifier);
  EXPECT_TRUE(shut());
  EXPECT_TRUE(window_->lineUp().isVisible());
}

TEST_F(KeySheet, DoesWhatIsTypedFor) {
  open();
  QTest::keyClicks(QApplication::focusWidget(), "verdict");
  QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return);
  EXPECT_TRUE(window_->verdict().isVisible());
  EXPECT_TRUE(shut());
  open();
  QTest::keyClicks(QApplication::focusWidget(), "beat");
  QTest::keyClick(QApplication::focusWidget(), Qt::Key_Return);
  EXPECT_TRUE(window_->poolside().isVisible()) << "goes where it is done";
}

}  // namespace
}  // namespace fin::app
