// SPDX-License-Identifier: GPL-3.0-or-later
// Size and time on the bench, by mouse and keys.
#include "app/window_fixture.h"

namespace fin::app {
namespace {

class Calibration : public WindowTest {
 protected:
  void SetUp() override {
    RehearsalScene scene = test::smallPull();
    scene.length = Seconds(0.6);
    ASSERT_TRUE(filmRehearsal(scene, folder_ / "pull.mp4", Hertz(30.0)));
    openWindow();
    window_->desk().openClip(QString::fromStdString((folder_ / "pull.mp4").string()));
    ASSERT_TRUE(waitFor([this] { return footage().hasPicture(); }));
    press("moreCalibration");
  }

  FootageView& footage() { return window_->bench().footage(); }
  const PassRequest& request() { return window_->desk().current()->request; }
  void clickAt(PixelPoint at) {
    QTest::mouseClick(&footage(), Qt::LeftButton, Qt::NoModifier, footage().toView(at).toPoint());
  }
  void draw(const char* line, PixelPoint from, PixelPoint to) {
    press(line);
    clickAt(from);
    clickAt(to);
  }
};

TEST_F(Calibration, FindsTheFilmingRateFromTwoFramesAndTheTimeBetween) {
  window_->desk().showFrame(6);
  press("rateFrom");
  window_->desk().showFrame(54);
  press("rateTo");
  typeInto(find<QDoubleSpinBox>("trueTime"), "0.4");
  press("takeRate");
  // 48 frames in 0.4 s.
  ASSERT_TRUE(request().captureRate);
  EXPECT_NEAR(request().captureRate->value(), 120.0, 1e-6);
  EXPECT_TRUE(find<QLabel>("rateNow")->text().contains("120.00"));
}

TEST_F(Calibration, DrawsPlumbWaterlineAndBottomAndTakesThemAway) {
  draw("line1", {240.0, 20.0}, {243.0, 240.0});
  draw("line2", {20.0, 30.0}, {440.0, 32.0});
  draw("line3", {20.0, 240.0}, {440.0, 241.0});
  ASSERT_TRUE(request().plumb && request().waterline && request().bottom);
  // A click goes to whole pixels of the view.
  EXPECT_NEAR(request().waterline->from.y_px, 30.0, 0.6);
  QTest::keyClick(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_FALSE(request().bottom);
}

TEST_F(Calibration, RefusesAWaterlineBelowTheBottomAndKeepsWhatStood) {
  draw("line3", {20.0, 100.0}, {440.0, 100.0});
  draw("line2", {20.0, 200.0}, {440.0, 200.0});
  EXPECT_FALSE(request().waterline);
  EXPECT_TRUE(request().bottom);
  EXPECT_TRUE(find<QLabel>("messageText")->text().contains("below the bottom"));
}

TEST_F(Calibration, AllowsForARulerBehindTheSameWindowButFurtherOff) {
  typeInto(find<QDoubleSpinBox>("planeAir"), "300");
  typeInto(find<QDoubleSpinBox>("planeLure"), "800");
  typeInto(find<QDoubleSpinBox>("planeRuler"), "1000");
  press("takePlane");
  ASSERT_TRUE(request().scalePlane);
  EXPECT_NEAR(request().scalePlane->cameraToLure / request().scalePlane->cameraToScale,
              (300.0 + 800.0 / 1.333) / (300.0 + 1000.0 / 1.333), 1e-9);
  press("samePlane");
  EXPECT_FALSE(request().scalePlane);
}

}  // namespace
}  // namespace fin::app
