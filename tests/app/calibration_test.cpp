// SPDX-License-Identifier: GPL-3.0-or-later
// Size and time on the bench, by mouse and keys.
#include "app/window_fixture.h"

#include "app/canvas/tools/found_lines_tool.h"
#include "core/rehearsal/board_film.h"
#include "support/numbered_film.h"

namespace fin::app {
namespace {

class Calibration : public WindowTest {
 protected:
  void SetUp() override {
    RehearsalScene scene = test::smallPull();
    scene.length = Seconds(0.6);
    ASSERT_TRUE(filmRehearsal(scene, folder_ / "pull.mp4", Hertz(30.0)));
    openWindow();
    window_->passController().openClip(QString::fromStdString((folder_ / "pull.mp4").string()));
    ASSERT_TRUE(waitFor([this] { return footage().hasPicture(); }));
    press("moreCalibration");
  }
  void unfold(const char* card) {
    auto* head = find<QPushButton>(card);
    if (!static_cast<Fold*>(head->parentWidget())->isOpen()) QTest::mouseClick(head, Qt::LeftButton);
  }

  FootageView& footage() { return window_->bench().footage(); }
  const PassRequest& request() { return window_->passController().current()->request; }
  void clickAt(PixelPoint at) {
    QTest::mouseClick(&footage(), Qt::LeftButton, Qt::NoModifier, footage().toView(at).toPoint());
  }
  void draw(const char* line, PixelPoint from, PixelPoint to) {
    unfold("foldLines");
    press(line);
    clickAt(from);
    clickAt(to);
  }
};

TEST_F(Calibration, FindsTheFilmingRateFromTwoFramesAndTheTimeBetween) {
  unfold("foldRate");
  window_->passController().showFrame(6);
  press("rateFrom");
  window_->passController().showFrame(54);
  press("rateTo");
  typeInto(find<QDoubleSpinBox>("trueTime"), "0.4");
  press("takeRate");
  // 48 frames in 0.4 s.
  ASSERT_TRUE(request().captureRate);
  EXPECT_NEAR(request().captureRate->value(), 120.0, 1e-6);
  // The same from beats of the pacer: 48 frames to 2 beats at 150 a minute are 0.8 s.
  typeInto(find<QDoubleSpinBox>("beats"), "2");
  typeInto(find<QDoubleSpinBox>("beatsPerMinute"), "150");
  press("takeBeats");
  EXPECT_NEAR(request().captureRate->value(), 60.0, 1e-6);
}

TEST_F(Calibration, TakesHowLongTheCameraReadsAPicture) {
  unfold("foldRate");
  typeInto(find<QDoubleSpinBox>("rollingShutter"), "12");
  ASSERT_TRUE(request().rollingShutter);
  EXPECT_NEAR(request().rollingShutter->value(), 0.012, 1e-9);
  typeInto(find<QDoubleSpinBox>("rollingShutter"), "0");
  EXPECT_FALSE(request().rollingShutter) << "all rows at once is what is taken when nothing is said";
}

TEST_F(Calibration, TakesTheLureAsTheRulerAtAKey) {
  press("calibrationDone");
  footage().setFocus();
  QTest::keyClick(&footage(), Qt::Key_L);
  auto* length = find<QDoubleSpinBox>("ownLength");
  EXPECT_TRUE(length->isVisible()) << "its length is still to be typed";
  typeInto(length, "3.5 in");
  ASSERT_TRUE(request().ownLength);
  EXPECT_NEAR(request().ownLength->length.value(), 88.9, 0.06);
  EXPECT_EQ(request().ownLength->u95.value(), 0.5);
  typeInto(find<QDoubleSpinBox>("viewAngle"), "22");
  ASSERT_TRUE(request().viewAngle);
  EXPECT_EQ(*request().viewAngle, (StatedAngle{22.0, 3.0}));
  footage().setFocus();
  QTest::keyClick(&footage(), Qt::Key_L);
  EXPECT_FALSE(request().ownLength) << "no longer";
  window_->edits().undo();
  EXPECT_TRUE(request().ownLength);
}

TEST_F(Calibration, RefusesARateFromOneFrame) {
  unfold("foldRate");
  press("rateFrom");
  press("rateTo");
  typeInto(find<QDoubleSpinBox>("trueTime"), "0.4");
  press("takeRate");
  EXPECT_FALSE(request().captureRate);
}

TEST_F(Calibration, TakesSizeAndTiltFromFourCornersInPlaceOfALength) {
  unfold("foldSquare");
  typeInto(find<QDoubleSpinBox>("squareWidth"), "300");
  typeInto(find<QDoubleSpinBox>("squareHeight"), "150");
  press("squareCorners");
  for (const PixelPoint corner : {PixelPoint{60, 40}, {360, 50}, {360, 190}, {60, 190}}) clickAt(corner);
  ASSERT_TRUE(request().square);
  EXPECT_EQ(request().square->width, Millimetres(300.0));
  EXPECT_NEAR(request().square->corners[2].x_px, 360.0, 0.6);
  // Three in a line are refused where it happened, and what stood stays.
  press("squareCorners");
  for (const PixelPoint corner : {PixelPoint{60, 40}, {160, 40}, {260, 40}, {60, 190}}) clickAt(corner);
  EXPECT_TRUE(find<QLabel>("messageText")->text().contains("in a line"));
  EXPECT_NEAR(request().square->corners[2].x_px, 360.0, 0.6);
  QTest::keyClick(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_FALSE(request().square);
}

TEST_F(Calibration, ProposesStraightEdgesOfWhichAPersonTakesOne) {
  unfold("foldLines");
  press("findLine3");
  auto* tool = qobject_cast<FoundLinesTool*>(footage().tool());
  ASSERT_NE(tool, nullptr);
  EXPECT_FALSE(request().bottom);  // nothing is taken unasked
  QTest::keyClick(&footage(), Qt::Key_Down);
  QTest::keyClick(&footage(), Qt::Key_Return);
  ASSERT_TRUE(request().bottom);
  EXPECT_EQ(footage().tool(), nullptr);
  // The rehearsal's tiles lie level.
  EXPECT_NEAR(request().bottom->from.y_px, request().bottom->to.y_px, 1.0);
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
  unfold("foldPlane");
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

/// Several passes of one day on the bench.
class Cameras : public WindowTest {
 protected:
  /// A pass by the fixed camera, followed and read, with the rehearsal's truth.
  PassId addPull(const std::string& name, unsigned seed) {
    RehearsalScene scene = test::smallPull(seed);
    scene.camera.view = View::Top;
    scene.length = Seconds(1.2);
    const auto file = folder_ / (name + ".mp4");
    EXPECT_TRUE(filmRehearsal(scene, file, Hertz(30.0)));
    PassController& controller = window_->passController();
    const auto before = controller.passes().size();
    controller.takeIn(QString::fromStdString(file.string()), {.title = QString::fromStdString(name),
                                                              .protocol = Protocol::Retrieve,
                                                              .view = View::Top,
                                                              .rigName = "Vinto",
                                                              .planned = {},
                                                              .camera = "fixed"});
    EXPECT_TRUE(waitFor(
        [&] { return controller.passes().size() > before && controller.clip() && !controller.busy(); }));
    const PassRequest truth = requestFor(RehearsalTank(scene), file);
    controller.edit("all", [&](PassRequest& r) {
      r.marks = truth.marks;
      r.scale = truth.scale;
      r.pull = truth.pull;
      r.captureRate = truth.captureRate;
      r.firstFrame = truth.firstFrame;
      r.lastFrame = truth.lastFrame;
    });
    EXPECT_TRUE(waitFor([&] { return controller.result() != nullptr && !controller.busy(); }));
    return controller.current()->id;
  }
  double speedOf(PassId id) {
    const auto measured = window_->passController().log().readingsOf(id);
    const Reading* speed = *measured ? (*measured)->readings.find(ReadingId::TravelSpeed) : nullptr;
    return speed != nullptr ? std::get<double>(speed->value) : 0.0;
  }
};

TEST_F(Cameras, KeepSizeAndTimeForTheDayAndChangeAllPassesOnThemAtOnce) {
  openWindow();
  const PassId first = addPull("one", 1);
  press("moreCalibration");
  QTest::mouseClick(find<QPushButton>("foldCamera"), Qt::LeftButton);
  press("keepCalibration");
  ASSERT_NE(window_->kept().kept(), nullptr);
  const PassId second = addPull("two", 2);
  // The same ruler was in view, so both stand on what is kept.
  window_->passController().edit(
      "as kept", [&](PassRequest& r) { applyCalibration(r, window_->kept().kept()->calibration); });
  ASSERT_TRUE(waitFor([&] { return !window_->passController().busy(); }));
  ASSERT_EQ(window_->kept().standingOnKept().size(), 2U);
  const double before = speedOf(first);
  ASSERT_GT(before, 0.0);
  // The ruler was half as long: every speed halves, also that of the pass that is not on the bench.
  window_->passController().edit("Half", [](PassRequest& r) { r.scale->length = r.scale->length * 0.5; });
  press("keepCalibration");
  ASSERT_TRUE(waitFor([&] { return !window_->kept().reading() && !window_->passController().busy(); }));
  EXPECT_NEAR(speedOf(first), 0.5 * before, 0.01 * before);
  EXPECT_LT(speedOf(second), 0.6 * before);
  EXPECT_TRUE(find<QLabel>("calibrationChanges")->text().contains("one"));
  QTest::keyClick(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  ASSERT_TRUE(waitFor([&] { return !window_->kept().reading() && !window_->passController().busy(); }));
  EXPECT_NEAR(speedOf(first), before, 1e-6 * before);
}

TEST_F(Cameras, OfferWhatIsKeptToTheNextClip) {
  openWindow();
  addPull("one", 1);
  window_->kept().keep();
  test::film(folder_ / "next.mp4", {.frames = 20});
  window_->passController().takeIn(QString::fromStdString((folder_ / "next.mp4").string()),
                                   {.title = "next", .camera = "fixed"});
  ASSERT_TRUE(waitFor([&] {
    return window_->passController().passes().size() == 2 && window_->bench().footage().hasPicture();
  }));
  ASSERT_TRUE(find<QPushButton>("useOffered")->isVisible());
  press("useOffered");
  EXPECT_EQ(calibrationOf(window_->passController().current()->request), window_->kept().kept()->calibration);
  EXPECT_FALSE(find<QPushButton>("useOffered")->isVisible());
}

TEST_F(Cameras, AreLinedUpByTheirSoundAndShowTheSameMoment) {
  test::film(folder_ / "silent.mkv", {.frames = 250});
  // A knock at 2.0 s of one and 1.4 s of the other, over a hiss.
  for (const auto& [name, knock] : {std::pair("fixed", "2.0"), {"top", "1.4"}}) {
    ASSERT_TRUE(test::ffmpeg("-i " + (folder_ / "silent.mkv").string() +
                             " -f lavfi -i 'aevalsrc=exprs=0.01*random(0)+0.6*sin(2*PI*900*t)*exp(-25*(t-" +
                             knock + "))*gt(t\\," + knock + "):s=48000:d=5' -c:v copy -c:a pcm_s16le " +
                             (folder_ / (std::string(name) + ".mkv")).string()));
  }
  openWindow();
  for (const char* camera : {"fixed", "top"}) {
    window_->passController().takeIn(
        QString::fromStdString((folder_ / (std::string(camera) + ".mkv")).string()),
        {.title = camera, .planned = 7, .camera = camera});
  }
  PassController& controller = window_->passController();
  ASSERT_TRUE(
      waitFor([&] { return controller.passes().size() == 2 && controller.clip() && !controller.busy(); }));
  ASSERT_EQ(controller.current()->camera, "top");
  ASSERT_TRUE(waitFor([&] { return find<SoundLane>("soundLane")->heard(); }));
  EXPECT_TRUE(find<SoundLane>("soundLane")->isVisible());
  controller.showFrame(70);  // 1.4 s
  press("moreCalibration");
  QTest::mouseClick(find<QPushButton>("foldSharing"), Qt::LeftButton);
  press("alignBySound");
  ASSERT_TRUE(waitFor([&] { return controller.passes()[0].sharedInstant.has_value(); }));
  const auto there = window_->sharing().sameInstantIn(controller.passes()[0]);
  ASSERT_TRUE(there);
  EXPECT_NEAR(there->value(), 2.0, 0.004);
  press("showPartner");
  ASSERT_TRUE(waitFor(
      [&] { return controller.current()->camera == "fixed" && controller.clip() && !controller.busy(); }));
  EXPECT_NEAR(static_cast<double>(controller.frame()), 100.0, 1.0);
}

TEST_F(Cameras, GetTheirLensFromAFilmOfTheBoard) {
  BoardScene scene;
  scene.width_px = 480;
  scene.height_px = 270;
  scene.lens = {350.0, 350.0, 240.0, 134.0, {-0.2, 0.05, 0.0, 0.0, 0.0}};
  scene.frames = 32;
  BoardFilm film(scene);
  const auto writer =
      ClipWriter::create(folder_ / "board.mp4", {.width_px = 480, .height_px = 270, .quality = 12});
  ASSERT_TRUE(writer);
  for (std::size_t n = 0; n < scene.frames; ++n)
    ASSERT_TRUE((*writer)->add(film.frame(n)->rgb(), film.timeOf(n)));
  ASSERT_TRUE((*writer)->finish());
  openWindow();
  window_->passController().takeIn(QString::fromStdString((folder_ / "board.mp4").string()),
                                   {.title = "board", .camera = "top"});
  ASSERT_TRUE(waitFor([&] { return window_->bench().footage().hasPicture(); }));
  press("moreCalibration");
  QTest::mouseClick(find<QPushButton>("foldLens"), Qt::LeftButton);
  press("solveLens");
  ASSERT_TRUE(waitFor([&] { return find<QPushButton>("keepLens")->isVisible(); }))
      << find<QLabel>("messageText")->text().toStdString();
  press("keepLens");
  const auto kept = window_->passController().log().lenses();
  ASSERT_EQ(kept->size(), 1U);
  EXPECT_EQ(kept->front().camera, "top");
  EXPECT_NEAR(kept->front().lens.fx, 350.0, 7.0);
  auto* choice = find<QComboBox>("lensChoice");
  choice->setCurrentIndex(1);
  emit choice->activated(1);
  EXPECT_EQ(window_->passController().current()->request.lens, kept->front().lens);
}

TEST_F(Cameras, AreAskedForTheirRateWhenARigReadsAWholeFactorSlower) {
  openWindow();
  addPull("one", 1);
  addPull("two", 2);
  // The second is said to be filmed at a quarter of the rate.
  window_->passController().edit("Rate", [](PassRequest& r) { r.captureRate = *r.captureRate * 0.25; });
  ASSERT_TRUE(waitFor([&] {
    return !window_->passController().busy() && find<QLabel>("messageText")->text().contains("times slower");
  }));
  EXPECT_TRUE(find<QLabel>("messageText")->text().contains("4 times slower"));
}

TEST_F(Cameras, ThatWriteTheirRateHaveItTakenOver) {
  test::film(folder_ / "plain.mp4", {.frames = 30});
  ASSERT_TRUE(test::ffmpeg("-i " + (folder_ / "plain.mp4").string() +
                           " -c copy -movflags use_metadata_tags -metadata com.android.capture.fps=200 " +
                           (folder_ / "slow.mp4").string()));
  openWindow();
  window_->passController().openClip(QString::fromStdString((folder_ / "slow.mp4").string()));
  ASSERT_TRUE(waitFor([this] { return window_->bench().footage().hasPicture(); }));
  EXPECT_EQ(window_->passController().current()->request.captureRate, Hertz(200.0));
  window_->passController().edit("No rate", [](PassRequest& r) { r.captureRate.reset(); });
  press("moreCalibration");
  QTest::mouseClick(find<QPushButton>("foldRate"), Qt::LeftButton);
  press("takeWrittenRate");
  EXPECT_EQ(window_->passController().current()->request.captureRate, Hertz(200.0));
}

}  // namespace
}  // namespace fin::app
