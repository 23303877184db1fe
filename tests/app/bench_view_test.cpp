// SPDX-License-Identifier: GPL-3.0-or-later
// Looking at a clip on the bench: zoom, pan, steps, slow running, the trace, the list of passes.
#include <QComboBox>

#include "app/places/bench/trace_view.h"
#include "app/window_fixture.h"

namespace fin::app {
namespace {

class BenchView : public WindowTest {
 protected:
  void SetUp() override {
    ASSERT_TRUE(filmRehearsal(test::smallPull(), folder_ / "pull.mp4", Hertz(30.0)));
    openWindow();
    open("pull.mp4");
  }

  void open(const char* name) {
    const std::size_t before = passController().passes().size();
    passController().openClip(QString::fromStdString((folder_ / name).string()));
    ASSERT_TRUE(waitFor([&] {
      return passController().passes().size() == before + 1 && passController().clip() && shows(0);
    }));
  }
  PassController& passController() { return window_->passController(); }
  FootageView& footage() { return window_->bench().footage(); }
  bool shows(std::size_t frame) { return footage().hasPicture() && footage().shownFrame() == frame; }
  void key(int k) { QTest::keyClick(&footage(), static_cast<Qt::Key>(k)); }
};

TEST_F(BenchView, ZoomsAboutThePointerAndFitsAgain) {
  const QPointF about(200.0, 120.0);
  const PixelPoint under = footage().toPicture(about);
  footage().zoomBy(4.0, about);
  EXPECT_NEAR(footage().toPicture(about).x_px, under.x_px, 1e-6);
  EXPECT_NEAR(footage().toPicture(about).y_px, under.y_px, 1e-6);
  const QPointF back = footage().toView(footage().toPicture({33.0, 44.0}));
  EXPECT_NEAR(back.x(), 33.0, 1e-9);
  key(Qt::Key_W);
  // The whole picture is seen again: its middle in the middle of the view.
  const PixelPoint middle = footage().toPicture(QRectF(footage().rect()).center());
  EXPECT_NEAR(middle.x_px, 0.5 * (480 - 1), 1.0);
  EXPECT_NEAR(middle.y_px, 0.5 * (270 - 1), 1.0);
}

TEST_F(BenchView, MovesThePictureByDraggingWithNothingInHand) {
  const PixelPoint before = footage().toPicture({100.0, 100.0});
  QTest::mousePress(&footage(), Qt::LeftButton, Qt::NoModifier, {100, 100});
  QTest::mouseMove(&footage(), {140, 130});
  QTest::mouseRelease(&footage(), Qt::LeftButton, Qt::NoModifier, {140, 130});
  const PixelPoint after = footage().toPicture({140.0, 130.0});
  EXPECT_NEAR(after.x_px, before.x_px, 1e-6);
  EXPECT_NEAR(after.y_px, before.y_px, 1e-6);
}

TEST_F(BenchView, StepsByOneAndTenAndStopsAtTheEnds) {
  key(Qt::Key_F);
  EXPECT_EQ(passController().frame(), 1U);
  key(Qt::Key_G);
  EXPECT_EQ(passController().frame(), 11U);
  key(Qt::Key_D);
  key(Qt::Key_S);
  key(Qt::Key_S);
  EXPECT_EQ(passController().frame(), 0U);
  passController().showFrame(100000);
  EXPECT_EQ(passController().frame(), passController().clip()->index().frameCount() - 1);
  ASSERT_TRUE(waitFor([this] { return shows(passController().frame()); }));
}

TEST_F(BenchView, PlaysSlowlyAndPauses) {
  key(Qt::Key_Space);
  EXPECT_EQ(find<QPushButton>("run")->text(), "Pause");
  ASSERT_TRUE(waitFor([this] { return passController().frame() >= 3; }));
  key(Qt::Key_Space);
  const std::size_t halted = passController().frame();
  QTest::qWait(300);
  EXPECT_EQ(passController().frame(), halted);
}

TEST_F(BenchView, GoesToTheInstantThatIsPressedInTheTrace) {
  auto* trace = window_->findChild<TraceView*>();
  ASSERT_NE(trace, nullptr);
  QWidget* plot = trace->findChildren<QWidget*>().back();
  for (QWidget* child : trace->findChildren<QWidget*>()) {
    if (child->accessibleName().contains("Trace")) plot = child;
  }
  QTest::mouseClick(plot, Qt::LeftButton, Qt::NoModifier, {plot->width() / 2, plot->height() / 3});
  const double middle = 0.5 * static_cast<double>(passController().clip()->index().frameCount());
  EXPECT_NEAR(static_cast<double>(passController().frame()), middle, 0.08 * middle);
}

TEST_F(BenchView, ChangesPassesAndTakesOneOutUndoably) {
  ASSERT_TRUE(filmRehearsal(test::smallFall(), folder_ / "fall.mp4", Hertz(30.0)));
  open("fall.mp4");
  auto* chooser = find<QComboBox>("passChooser");
  ASSERT_EQ(chooser->count(), 2);
  chooser->setCurrentIndex(0);
  emit chooser->activated(0);
  EXPECT_EQ(passController().current()->title, "pull");
  press("takeOut");
  EXPECT_EQ(chooser->count(), 1);
  EXPECT_EQ(passController().current()->title, "fall");
  QTest::keyClick(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(chooser->count(), 2);
  EXPECT_EQ(passController().current()->title, "pull");
}

TEST_F(BenchView, SaysWhatTheClipCanTellBeforeAnythingIsFollowed) {
  QString all;
  for (const QLabel* label : window_->findChildren<QLabel*>()) all += label->text() + "\n";
  EXPECT_TRUE(all.contains("What this clip can tell"));
  EXPECT_TRUE(all.contains("What it cannot"));
  EXPECT_TRUE(all.contains("the nose mark is not placed"));
}

TEST_F(BenchView, PutsDownWhatIsInHandByEscape) {
  key(Qt::Key_1);
  ASSERT_NE(footage().tool(), nullptr);
  EXPECT_TRUE(find<QPushButton>("nose")->isChecked());
  key(Qt::Key_Escape);
  EXPECT_EQ(footage().tool(), nullptr);
  EXPECT_FALSE(find<QPushButton>("nose")->isChecked());
  EXPECT_TRUE(passController().current()->request.marks.empty());
}

}  // namespace
}  // namespace fin::app
