// SPDX-License-Identifier: GPL-3.0-or-later
// The whole slice by mouse and keys through the real window: open, scale, marks, follow, read, save, reopen.
#include <gtest/gtest.h>
#include <qcustomplot.h>

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QPushButton>

#include "app/ui/unit_box.h"
#include "app/window_fixture.h"
#include "support/reading_words.h"

namespace fin::app {
namespace {

class BenchSlice : public WindowTest {
 protected:
  void SetUp() override {
    ASSERT_TRUE(filmRehearsal(tank_.scene(), clip(), Hertz(30.0)));
    openWindow();
  }

  [[nodiscard]] std::filesystem::path clip() const { return folder_ / "pull.mp4"; }
  void openClip() {
    passController().openClip(QString::fromStdString(clip().string()));
    ASSERT_TRUE(QTest::qWaitFor([this] { return footage().hasPicture(); }, kPatience_ms));
  }

  PassController& passController() { return window_->passController(); }
  FootageView& footage() { return window_->bench().footage(); }
  void key(int k, Qt::KeyboardModifiers m = Qt::NoModifier) {
    QTest::keyClick(&footage(), static_cast<Qt::Key>(k), m);
  }
  void clickAt(PixelPoint at) {
    QTest::mouseClick(&footage(), Qt::LeftButton, Qt::NoModifier, footage().toView(at).toPoint());
  }
  bool read() {
    return QTest::qWaitFor([this] { return passController().result() != nullptr; }, kPatience_ms);
  }
  double reading(ReadingId name) {
    const Reading* r = passController().readings().find(name);
    return r == nullptr ? std::nan("") : std::get<double>(r->value);
  }
  const PassRequest& request() { return passController().current()->request; }

  void sayEverything() {
    typeInto(find<QDoubleSpinBox>("rate"), "120");
    const auto [from, to] = tank_.rulerEnds();
    typeInto(find<QDoubleSpinBox>("length"), "300");
    press("ruler");
    clickAt(from);
    clickAt(to);
    press("nose");
    clickAt(tank_.markAt(MarkName::Nose, passController().frame()));
    press("tail");
    clickAt(tank_.markAt(MarkName::Tail, passController().frame()));
  }

  RehearsalTank tank_{test::smallPull()};
};

TEST_F(BenchSlice, MeasuresAClipAndHasEverythingAfterReopening) {
  openClip();
  // Frame 8 shows the whole lure.
  for (int i = 0; i < 8; ++i) key(Qt::Key_F);
  ASSERT_TRUE(QTest::qWaitFor([this] { return footage().shownFrame() == 8; }, kPatience_ms));
  sayEverything();
  ASSERT_TRUE(read());
  // A click at whole view pixels puts marks within half a picture pixel, and the ruler within a third of a
  // percent.
  EXPECT_NEAR(reading(ReadingId::TravelSpeed), 240.0, 4.0);
  EXPECT_NEAR(reading(ReadingId::WobbleFrequency), 5.0, 0.08);
  EXPECT_NEAR(reading(ReadingId::WobbleAngle), 30.0, 1.5);
  EXPECT_TRUE(find<QLabel>("traceSentence")->text().contains("whole wobbles counted"))
      << find<QLabel>("traceSentence")->text().toStdString();
  auto* card = find<QFrame>("reading_wobble_frequency");
  ASSERT_NE(card, nullptr);
  EXPECT_TRUE(card->findChild<QLabel*>("value")->text().startsWith("5.0") ||
              card->findChild<QLabel*>("value")->text().startsWith("4.9"));

  const PassRequest said = request();
  const ReadingSet before = passController().readings();
  openWindow();
  ASSERT_TRUE(read());
  EXPECT_EQ(request(), said);
  EXPECT_FALSE(passController().following());
  EXPECT_EQ(reading(ReadingId::TravelSpeed), std::get<double>(before.find(ReadingId::TravelSpeed)->value));
}

TEST_F(BenchSlice, LeadsToAFirstNumberInTwelvePresses) {
  int presses = 0;
  const auto words = [this] { return find<QLabel>("leadWords")->text(); };
  const auto at = [&](const char* wanted) {
    EXPECT_TRUE(find<QFrame>("lead")->isVisible());
    EXPECT_TRUE(words().contains(wanted)) << words().toStdString();
  };
  const auto pressOn = [&](const QString& button) {
    press(button);
    ++presses;
  };
  const auto pressAt = [&](PixelPoint place) {
    ASSERT_TRUE(waitFor([this] { return footage().tool() != nullptr; })) << "it is in hand";
    clickAt(place);
    ++presses;
  };
  pressOn("showMeHow");
  at("Open a clip");
  openClip();  // in the program a press, and two in the file dialog
  presses += 3;
  at("What does the lure do");
  pressOn("leadNext");
  at("Type how long it is");
  // Left in the middle, and called back to where one was.
  press("leaveLead");
  EXPECT_FALSE(find<QFrame>("lead")->isVisible());
  press("showMeHow");
  press("leadNext");
  typeInto(find<QDoubleSpinBox>("length"), "300");
  pressOn("leadNext");
  at("one end of it");
  const auto [from, to] = tank_.rulerEnds();
  pressAt(from);
  pressAt(to);
  at("the lure's nose");
  for (int i = 0; i < 8; ++i) key(Qt::Key_F);
  ASSERT_TRUE(waitFor([this] { return footage().shownFrame() == 8; }));
  pressAt(tank_.markAt(MarkName::Nose, 8));
  at("at the tail");
  pressAt(tank_.markAt(MarkName::Tail, 8));
  ASSERT_TRUE(read());
  at("your numbers");
  EXPECT_LE(presses, 12);
  press("leadNext");
  EXPECT_FALSE(find<QFrame>("lead")->isVisible());
}

TEST_F(BenchSlice, ShowsHowAReadingWasMeasured) {
  openClip();
  for (int i = 0; i < 8; ++i) key(Qt::Key_F);
  sayEverything();
  ASSERT_TRUE(read());
  QTest::mouseClick(find<QFrame>("reading_travel_speed")->findChild<QPushButton*>("how"), Qt::LeftButton);
  ASSERT_TRUE(QTest::qWaitFor([this] {
    for (const QLabel* label : find<QFrame>("reading_travel_speed")->findChildren<QLabel*>()) {
      const QString text = label->text();
      if (text.contains("slope is the speed") && text.contains("It comes from: the known length"))
        return text.contains("frames 0 to ") && text.contains(" followed, ") &&
               text.contains(QString("method %1").arg(kMethodVersion)) &&
               text.contains(QLocale::c().toString(QDate::currentDate(), "d MMM yyyy"));
    }
    return false;
  }));
}

TEST_F(BenchSlice, PlacesHalfPixelsByKeyboardAndBySlowDragging) {
  openClip();
  key(Qt::Key_1);
  ASSERT_NE(footage().tool(), nullptr);
  QTest::mouseMove(&footage(), footage().toView({100.0, 80.0}).toPoint());
  const PixelPoint start = *footage().tool()->aim();
  key(Qt::Key_Right);
  key(Qt::Key_Up, Qt::ShiftModifier);
  key(Qt::Key_Return);
  ASSERT_EQ(request().marks.size(), 1U);
  EXPECT_NEAR(request().marks[0].at.x_px, start.x_px + 0.5, 1e-9);
  EXPECT_NEAR(request().marks[0].at.y_px, start.y_px - 5.0, 1e-9);

  key(Qt::Key_2);
  const QPoint down = footage().toView({150.0, 90.0}).toPoint();
  QTest::mousePress(&footage(), Qt::LeftButton, Qt::NoModifier, down);
  const PixelPoint pressed = footage().toPicture(down);
  QTest::mouseMove(&footage(), down + QPoint(16, 0));
  QTest::mouseRelease(&footage(), Qt::LeftButton, Qt::NoModifier, down + QPoint(16, 0));
  const double moved_px = footage().toPicture(QPointF(down) + QPointF(16, 0)).x_px - pressed.x_px;
  EXPECT_NEAR(request().marks[1].at.x_px - pressed.x_px, moved_px / 8.0, 1e-6);
}

TEST_F(BenchSlice, UndoesAndRedoesWhatWasSaid) {
  openClip();
  key(Qt::Key_1);
  clickAt({100.0, 80.0});
  ASSERT_EQ(request().marks.size(), 1U);
  QTest::keyClick(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(request().marks.empty());
  QTest::keyClick(window_.get(), Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(request().marks.size(), 1U);
  press("undo");
  press("undo");
  EXPECT_EQ(passController().current(), nullptr);  // opening the clip itself
  press("redo");
  EXPECT_NE(passController().current(), nullptr);
}

TEST_F(BenchSlice, TellsBadInputWhereItHappenedAndLosesNothing) {
  test::write(folder_ / "notes.mp4", "no film at all");
  passController().openClip(QString::fromStdString((folder_ / "notes.mp4").string()));
  ASSERT_TRUE(waitFor([this] { return find<QFrame>("message")->isVisibleTo(window_.get()); }));
  EXPECT_TRUE(find<QLabel>("messageText")->text().contains("notes.mp4"));
  EXPECT_TRUE(passController().passes().empty());

  openClip();
  press("ruler");
  clickAt({50.0, 50.0});
  clickAt({50.0, 50.0});
  EXPECT_FALSE(request().scale);
  EXPECT_TRUE(find<QLabel>("messageText")->text().contains("one spot"));
  key(Qt::Key_1);
  clickAt({30.0, 30.0});
  key(Qt::Key_2);
  clickAt({30.0, 30.0});
  ASSERT_TRUE(QTest::qWaitFor(
      [this] { return find<QLabel>("messageText")->text().contains("on one spot in frame"); }, kPatience_ms));
  EXPECT_EQ(request().marks.size(), 2U);
}

TEST_F(BenchSlice, KeepsTheReadingsOfAClipThatIsGone) {
  openClip();
  for (int i = 0; i < 8; ++i) key(Qt::Key_F);
  sayEverything();
  ASSERT_TRUE(read());
  const double speed = reading(ReadingId::TravelSpeed);
  std::filesystem::rename(clip(), folder_ / "elsewhere.mp4");
  openWindow();
  ASSERT_TRUE(
      QTest::qWaitFor([this] { return find<QFrame>("message")->isVisibleTo(window_.get()); }, kPatience_ms));
  EXPECT_EQ(reading(ReadingId::TravelSpeed), speed);
  passController().findClip(QString::fromStdString((folder_ / "elsewhere.mp4").string()));
  ASSERT_TRUE(read());
  EXPECT_EQ(reading(ReadingId::TravelSpeed), speed);
}

TEST_F(BenchSlice, SwitchesUnitsEverywhereAtOnce) {
  openClip();
  for (int i = 0; i < 8; ++i) key(Qt::Key_F);
  sayEverything();
  ASSERT_TRUE(read());
  press("units");
  const QString inches = find<QFrame>("reading_travel_speed")->accessibleName();
  EXPECT_TRUE(inches.contains("in/s")) << inches.toStdString();
  EXPECT_TRUE(inches.contains("9.4")) << inches.toStdString();
}

TEST(MainWindow, ChangesPlacesByKeyboard) {
  const test::TemporaryFolder folder;
  auto log = Log::open(folder / "day.finlog");
  MainWindow window(std::move(*log));
  window.show();
  window.activateWindow();
  ASSERT_TRUE(QTest::qWaitForWindowActive(&window));
  for (int i = 0; i < 6; ++i) {
    QTest::keyClick(&window, static_cast<Qt::Key>(Qt::Key_1 + i), Qt::ControlModifier);
    EXPECT_TRUE(window.findChild<QPushButton*>(QString("place%1").arg(i))->isChecked()) << i;
  }
}

TEST_F(BenchSlice, LeavesOutAStretchThatIsDrawnOverOnTheTrace) {
  openClip();
  sayEverything();
  ASSERT_TRUE(read());
  const double before = passController().readings().find(ReadingId::WobbleFrequency)->n;
  auto* plot = window_->bench().findChild<TraceView*>()->findChild<QCustomPlot*>();
  auto* time = plot->axisRect(0)->axis(QCPAxis::atBottom);
  const auto at = [&](double s) { return QPoint(static_cast<int>(time->coordToPixel(s)), 25); };
  QTest::mousePress(plot, Qt::LeftButton, Qt::ShiftModifier, at(1.1));
  QTest::mouseMove(plot, at(1.3));
  QTest::mouseRelease(plot, Qt::LeftButton, Qt::ShiftModifier, at(1.6));
  ASSERT_EQ(request().fouled.size(), 1U);
  EXPECT_NEAR(static_cast<double>(request().fouled[0].frames.first), 1.1 * 120.0, 3.0);
  ASSERT_TRUE(waitFor([&] { return !passController().busy() && passController().result() != nullptr; }));
  EXPECT_LT(passController().readings().find(ReadingId::WobbleFrequency)->n, before) << "fewer wobbles count";
  press("undo");
  ASSERT_TRUE(waitFor([&] { return !passController().busy() && passController().result() != nullptr; }));
  EXPECT_EQ(passController().readings().find(ReadingId::WobbleFrequency)->n, before);
}

TEST_F(BenchSlice, AsksForHalfTheBodysHeightWhereAFlankSpotIsPlaced) {
  openClip();
  EXPECT_TRUE(find<UnitBox>("halfThickness")->isHidden() || !find<UnitBox>("halfThickness")->isVisible());
  passController().edit("Say it", [](PassRequest& r) {
    r.view = View::Side;
    r.marks.push_back({MarkName::Flank, 0, {100.0, 100.0}});
  });
  ASSERT_TRUE(find<UnitBox>("halfThickness")->isVisible());
  typeInto(find<UnitBox>("halfThickness"), "9.5");
  EXPECT_EQ(request().bodyHalfHeight, Millimetres(9.5));
}

}  // namespace
}  // namespace fin::app
