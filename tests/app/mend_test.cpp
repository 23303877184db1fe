// SPDX-License-Identifier: GPL-3.0-or-later
// Putting right what following did: corrections by dragging, doubtful stretches, hidden parts, fouled
// stretches, the outline; all of it undoable.
#include <QLabel>
#include <QListWidget>

#include "app/canvas/tools/placing_tool.h"

#include "app/window_fixture.h"
#include "support/logged.h"
#include "support/numbered_film.h"

namespace fin::app {
namespace {

class Mending : public WindowTest {
 protected:
  void SetUp() override {
    const RehearsalScene scene = test::smallPull();
    tank_ = std::make_unique<RehearsalTank>(scene);
    ASSERT_TRUE(filmRehearsal(scene, folder_ / "pull.mp4"));
    openWindow();
    passController().openClip(QString::fromStdString((folder_ / "pull.mp4").string()));
    ASSERT_TRUE(waitFor([&] { return passController().clip() && footage().hasPicture(); }));
    const PassRequest known = requestFor(*tank_, {});
    passController().edit("Say it all", [&](PassRequest& r) {
      r.marks = known.marks;
      r.view = known.view;
      r.scale = known.scale;
      r.firstFrame = known.firstFrame;
      r.lastFrame = known.lastFrame;
    });
    ASSERT_TRUE(waitFor([&] { return passController().result() != nullptr; }));
  }
  PassController& passController() { return window_->passController(); }
  FootageView& footage() { return window_->bench().footage(); }
  void key(int k) { QTest::keyClick(&footage(), static_cast<Qt::Key>(k)); }
  void undo() { QTest::keyClick(window_.get(), Qt::Key_Z, Qt::ControlModifier); }
  bool goTo(std::size_t frame) {
    passController().showFrame(frame);
    return waitFor([&] { return footage().shownFrame() == frame && !passController().busy(); });
  }
  /// Once what was asked for has been followed and read.
  bool settled() {
    return waitFor([&] { return !passController().busy() && passController().result() != nullptr; });
  }
  [[nodiscard]] MarkSample sampleAt(MarkName name, std::size_t frame) {
    const Track& track = passController().result()->track;
    return track.find(name)->samples[frame - track.firstFrame];
  }
  void drag(QPoint from, const std::vector<QPoint>& through) {
    QTest::mousePress(&footage(), Qt::LeftButton, Qt::NoModifier, from);
    for (const QPoint p : through) {
      QMouseEvent move(QEvent::MouseMove, QPointF(p), footage().mapToGlobal(QPointF(p)), Qt::NoButton,
                       Qt::LeftButton, Qt::NoModifier);
      QApplication::sendEvent(&footage(), &move);
    }
    QTest::mouseRelease(&footage(), Qt::LeftButton, Qt::NoModifier, through.back());
  }

  std::unique_ptr<RehearsalTank> tank_;
};

TEST_F(Mending, DragsAMarkAndFollowsAnewAroundIt) {
  ASSERT_TRUE(goTo(90));
  const PixelPoint found = sampleAt(MarkName::Nose, 90).at;
  const QPoint at = footage().toView(found).toPoint();
  drag(at, {at + QPoint(4, 0), at + QPoint(16, 0)});
  ASSERT_TRUE(settled());
  const auto& marks = passController().current()->request.marks;
  ASSERT_EQ(marks.size(), 3U);
  EXPECT_EQ(marks.back().frame, 90U);
  EXPECT_GT(marks.back().at.x_px, found.x_px + 0.5) << "the hand moved right, an eighth of it counts";
  EXPECT_EQ(sampleAt(MarkName::Nose, 90).at, marks.back().at) << "obeyed exactly";
  undo();
  ASSERT_TRUE(settled());
  EXPECT_EQ(passController().current()->request.marks.size(), 2U);
  EXPECT_LT(length(sampleAt(MarkName::Nose, 90).at - found).value(), 0.2);
}

TEST_F(Mending, GoesToTheNextDoubtfulStretchByOneKey) {
  // A wrong correction makes the way to it doubtful.
  ASSERT_TRUE(goTo(90));
  const PixelPoint wrong = midpoint(tank_->markAt(MarkName::Nose, 90), tank_->markAt(MarkName::Tail, 90));
  passController().edit("Place it wrongly", [&](PassRequest& r) {
    r.marks.push_back({MarkName::Nose, 90, wrong});
  });
  ASSERT_TRUE(settled());
  const auto stretches = passController().doubtful();
  ASSERT_FALSE(stretches.empty());
  passController().showFrame(0);
  key(Qt::Key_E);
  EXPECT_EQ(passController().frame(), stretches.front().first);
  press("mend");
  EXPECT_EQ(find<QListWidget>("doubtful")->count(), std::ssize(stretches));
  // What was said wrongly is taken back in the list of what was said.
  auto* said = find<QListWidget>("said");
  said->setCurrentRow(2);
  EXPECT_TRUE(said->currentItem()->text().contains("90"));
  press("takeBack");
  ASSERT_TRUE(settled());
  EXPECT_EQ(passController().current()->request.marks.size(), 2U);
}

TEST_F(Mending, FoulsAStretchSoThatItDoesNotCount) {
  const auto framesBehind = [&] { return passController().result()->traces.frames(); };
  const std::size_t before = framesBehind();
  ASSERT_TRUE(goTo(60));
  key(Qt::Key_X);
  ASSERT_TRUE(goTo(79));
  key(Qt::Key_X);
  ASSERT_TRUE(settled());
  ASSERT_EQ(passController().current()->request.fouled.size(), 1U);
  EXPECT_EQ(framesBehind(), before - 20);
  EXPECT_TRUE(sampleAt(MarkName::Nose, 70).seen) << "what was followed is kept";
  key(Qt::Key_X);  // within it: it counts again
  ASSERT_TRUE(settled());
  EXPECT_EQ(framesBehind(), before);
  undo();
  undo();
  ASSERT_TRUE(settled());
  EXPECT_TRUE(passController().current()->request.fouled.empty());
}

TEST_F(Mending, HidesAPartByDrawingAroundIt) {
  key(Qt::Key_H);
  ASSERT_NE(footage().tool(), nullptr);
  const auto at = [&](double x, double y) { return footage().toView({x, y}).toPoint(); };
  drag(at(200, 40), {at(280, 40), at(280, 230), at(200, 230), at(200, 60)});
  ASSERT_TRUE(settled());
  EXPECT_EQ(footage().tool(), nullptr);
  ASSERT_EQ(passController().current()->request.hidden.size(), 1U);
  bool someMissing = false;
  for (const MarkSample& s : passController().result()->track.find(MarkName::Nose)->samples) {
    EXPECT_FALSE(s.seen && s.at.x_px > 204.0 && s.at.x_px < 276.0);
    someMissing |= !s.seen;
  }
  EXPECT_TRUE(someMissing);
  undo();
  ASSERT_TRUE(settled());
  EXPECT_TRUE(passController().current()->request.hidden.empty());
}

TEST_F(Mending, FollowsTheOutlineOfWhatIsDrawnByKeysAlone) {
  const std::size_t first = passController().current()->request.firstFrame;
  ASSERT_TRUE(goTo(first));
  key(Qt::Key_4);
  auto* tool = dynamic_cast<PlacingTool*>(footage().tool());
  ASSERT_NE(tool, nullptr);
  const PixelPoint nose = tank_->markAt(MarkName::Nose, first);
  const PixelPoint tail = tank_->markAt(MarkName::Tail, first);
  for (const PixelPoint corner : {nose + PixelPoint{6, -12}, nose + PixelPoint{6, 12},
                                  tail + PixelPoint{-6, 12}, tail + PixelPoint{-6, -12}}) {
    tool->aimAt(corner);
    key(Qt::Key_Return);
  }
  key(Qt::Key_Return);  // twice on one spot closes it
  EXPECT_EQ(footage().tool(), nullptr);
  ASSERT_TRUE(settled());
  const Track& track = passController().result()->track;
  ASSERT_EQ(track.outline.size(), track.frameCount);
  const OutlineSample& s = track.outline[60];
  ASSERT_TRUE(s.seen);
  EXPECT_NEAR(s.area_px2 / tank_->lureArea_px2(track.firstFrame + 60), 1.0, 0.15);
  // It is there again when the log is opened again, without being followed anew.
  const double area = s.area_px2;
  openWindow();
  bool followed = false;
  QObject::connect(&passController(), &PassController::resultChanged, &passController(),
                   [&] { followed |= passController().following(); });
  ASSERT_TRUE(waitFor([&] { return passController().result() != nullptr; }));
  EXPECT_FALSE(followed);
  EXPECT_EQ(passController().result()->track.outline[60].area_px2, area);
}

TEST_F(Mending, MakesAPassOfEachFurtherWayThroughThePicture) {
  RehearsalScene scene = test::smallPull();
  scene.length = Seconds(2.5);  // out of the picture after about two seconds
  RehearsalTank tank(scene);
  ClipWriterOptions options;
  options.width_px = scene.camera.width_px;
  options.height_px = scene.camera.height_px;
  options.rate = scene.rate;
  auto writer = ClipWriter::create(folder_ / "there-and-back.mp4", options);
  ASSERT_TRUE(writer);
  const std::size_t there = tank.frameCount();
  for (std::size_t n = 0; n < 2 * there; ++n) {
    const auto picture = tank.frame(n < there ? n : 2 * there - 1 - n);
    ASSERT_TRUE((*writer)->add(picture->rgb(), Seconds(static_cast<double>(n) / scene.rate.value())));
  }
  ASSERT_TRUE((*writer)->finish());
  passController().openClip(QString::fromStdString((folder_ / "there-and-back.mp4").string()));
  ASSERT_TRUE(waitFor([&] {
    return passController().passes().size() == 2 && passController().clip() && !passController().busy();
  }));
  passController().edit("Say the marks", [&](PassRequest& r) { r.marks = requestFor(tank, {}).marks; });
  ASSERT_TRUE(settled());
  press("mend");
  press("furtherWays");
  ASSERT_TRUE(waitFor([&] { return passController().passes().size() == 3 && !passController().busy(); }));
  const PassRequest& way = passController().passes().back().request;
  EXPECT_GT(way.firstFrame, there);
  EXPECT_EQ(way.marks.size(), 2U);
  undo();
  EXPECT_EQ(passController().passes().size(), 2U);
}

TEST_F(Mending, KeepsWhatTheMarksTellWhereAnOutlineCannotBeFollowed) {
  ASSERT_TRUE(goTo(90));
  passController().edit("Draw it on the wall", [&](PassRequest& r) {
    r.outline = OutlineSeed{90, {{5, 5}, {40, 5}, {40, 30}}};
  });
  ASSERT_TRUE(settled());
  EXPECT_TRUE(find<QLabel>("messageText")->text().contains("outline"));
  EXPECT_TRUE(sampleAt(MarkName::Nose, 90).seen);
  undo();
  ASSERT_TRUE(settled());
  EXPECT_TRUE(sampleAt(MarkName::Nose, 90).seen);
}

TEST_F(Mending, TheLureIsFoundAtOnePress) {
  passController().edit("Forget its ends", [](PassRequest& r) { r.marks.clear(); });
  press("findLure");
  ASSERT_TRUE(waitFor([&] { return passController().current()->request.marks.size() >= 2; }));
  for (const MarkSeed& mark : passController().current()->request.marks)
    EXPECT_LT(length(mark.at - tank_->markAt(mark.name, mark.frame)).value(), 8.0) << toString(mark.name);
  EXPECT_TRUE(settled()) << "and followed";
  undo();
  EXPECT_TRUE(passController().current()->request.marks.empty()) << "one undo takes it back";
}

TEST_F(Mending, TheHookIsAskedForOfALureThatIsHeldStill) {
  EXPECT_FALSE(find<QPushButton>("hook")->isVisible());
  passController().edit("Hold it still", [](PassRequest& r) { r.protocol = Protocol::Still; });
  EXPECT_TRUE(find<QPushButton>("hook")->isVisible());
  EXPECT_FALSE(find<QPushButton>("tip")->isVisible());
  ASSERT_TRUE(settled());
  // It moves, but nothing is followed: its marks stay where they were placed.
  const auto& places = passController().result()->track.find(MarkName::Nose)->samples;
  EXPECT_EQ(places.front().at.x_px, places.back().at.x_px);
}

/// A clip of several things that was followed already.
TEST_F(WindowTest, SplittingAClipFollowsNothingAgain) {
  test::film(folder_ / "several.mp4", {.frames = 350});
  {
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    PassRequest request;
    request.clip = folder_ / "several.mp4";
    request.pull = Pull::Right;
    request.scale = ScaleMark{{0.0, 90.0}, {100.0, 90.0}, Millimetres(100.0), Millimetres(0.5)};
    request.marks = {{MarkName::Nose, 0, {80.0, 20.0}}, {MarkName::Tail, 0, {0.0, 20.0}}};
    request.lastFrame = 349;
    test::keepReadings(**log, test::addPass(**log, "several", request), {}, test::severalThings());
  }
  openWindow();
  PassController& passes = window_->passController();
  passes.select(passes.passes().front().id);
  ASSERT_TRUE(waitFor([&] { return passes.result() != nullptr && !passes.busy(); }));
  press("mend");
  press("splitClip");
  ASSERT_TRUE(waitFor([&] { return passes.passes().size() == 4; }));
  EXPECT_EQ(passes.passes()[1].title, "several, twitch and pause");
  // A film without a lure: had it been followed again, nothing of the fall would be there.
  EXPECT_EQ(passes.passes()[3].request.protocol, Protocol::Fall);
  ASSERT_TRUE(waitFor([&] { return passes.result() != nullptr && !passes.busy(); }));
  const Reading* rate = passes.result()->readings.find(ReadingId::FallRate);
  ASSERT_NE(rate, nullptr);
  EXPECT_NEAR(std::get<double>(rate->value), 180.0, 4.0);
  QTest::keyClick(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(passes.passes().size(), 1U) << "one undo takes them all out";
}

}  // namespace
}  // namespace fin::app
