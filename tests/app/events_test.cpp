// SPDX-License-Identifier: GPL-3.0-or-later
// Twitches put right, and the quiet stretch of a sound pass, on the bench by mouse and keys.
#include <qcustomplot.h>
#include <QLabel>

#include "app/jobs/clip_voice.h"
#include "support/reading_words.h"
#include "window_fixture.h"

namespace fin::app {
namespace {

class Events : public WindowTest {
 protected:
  void open(RehearsalScene scene, Protocol protocol) {
    const RehearsalTank tank(scene);
    ASSERT_TRUE(filmRehearsal(scene, folder_ / "clip.mp4"));
    openWindow();
    passController().openClip(QString::fromStdString((folder_ / "clip.mp4").string()));
    ASSERT_TRUE(waitFor([&] { return passController().clip() && window_->bench().footage().hasPicture(); }));
    const PassRequest known = requestFor(tank, {});
    passController().edit("Say it all", [&](PassRequest& r) {
      if (protocol == Protocol::Twitch) r.marks = known.marks;
      r.protocol = protocol;
      r.view = known.view;
      r.captureRate = known.captureRate;
      r.scale = known.scale;
      r.pull = known.pull;
      r.firstFrame = known.firstFrame;
      r.lastFrame = known.lastFrame;
    });
    ASSERT_TRUE(settled());
  }
  PassController& passController() { return window_->passController(); }
  bool settled() {
    return waitFor([&] { return !passController().busy() && passController().result() != nullptr; });
  }
  void key(int k) {
    window_->bench().footage().setFocus();
    QTest::keyClick(&window_->bench().footage(), static_cast<Qt::Key>(k));
    ASSERT_TRUE(settled());
  }
  void goTo(double true_s) {
    const double container_s = true_s / passController().clock()->factor();
    passController().showFrame(passController().clip()->index().frameShownAt(Seconds(container_s)));
  }
  const std::vector<TwitchSpan>& twitches() { return passController().result()->evidence.twitches; }
  double reading(ReadingId name) {
    return numberIn(passController().readings(), name).value_or(std::nan(""));
  }
};

TEST_F(Events, TwitchesArePutRightByKeysAndByMouse) {
  open(test::smallJerks(), Protocol::Twitch);
  ASSERT_EQ(twitches().size(), 3U);
  EXPECT_NEAR(reading(ReadingId::Advance), 80.0, 3.0);
  EXPECT_TRUE(find<QLabel>("cadenceWords")->text().contains("off the pacer's beat"));
  // Leave one out, take it in again by undo.
  goTo(twitches()[1].span.from_s);
  key(Qt::Key_U);
  EXPECT_TRUE(twitches()[1].leftOut);
  EXPECT_EQ(reading(ReadingId::TwitchCount), 2.0);
  press("undo");
  ASSERT_TRUE(settled());
  EXPECT_EQ(reading(ReadingId::TwitchCount), 3.0);
  // One that is none, and one that was missed.
  key(Qt::Key_Y);
  EXPECT_EQ(twitches().size(), 2U);
  EXPECT_NEAR(reading(ReadingId::TwitchInterval), 1.8, 0.05);
  key(Qt::Key_T);
  ASSERT_EQ(twitches().size(), 3U);
  // A frame later by key, then dragged on by the mouse.
  const double before = twitches()[1].span.from_s;
  key(Qt::Key_Period);
  EXPECT_NEAR(twitches()[1].span.from_s, before + 1.0 / passController().clock()->rate().value(), 1e-6);
  auto* plot = window_->bench().findChild<TraceView*>()->findChild<QCustomPlot*>();
  auto* time = plot->axisRect(0)->axis(QCPAxis::atBottom);
  const auto at = [&](double s) { return QPoint(static_cast<int>(std::lround(time->coordToPixel(s))), 20); };
  QTest::mousePress(plot, Qt::LeftButton, Qt::NoModifier, at(twitches()[1].span.from_s));
  QTest::mouseMove(plot, at(before + 0.2));
  QTest::mouseRelease(plot, Qt::LeftButton, Qt::NoModifier, at(before + 0.2));
  ASSERT_TRUE(settled());
  EXPECT_NEAR(twitches()[1].span.from_s, before + 0.2, 0.01);
  QTest::mouseDClick(plot, Qt::LeftButton, Qt::NoModifier, at(before + 0.5));
  ASSERT_TRUE(settled());
  EXPECT_EQ(twitches().size(), 4U);
  press("twitchesAsFound");
  ASSERT_TRUE(settled());
  EXPECT_EQ(twitches().size(), 3U);
  EXPECT_NEAR(twitches()[1].span.from_s, before, 0.02);
  // What was said is in the log.
  key(Qt::Key_U);
  openWindow();
  ASSERT_TRUE(settled());
  EXPECT_EQ(reading(ReadingId::TwitchCount), 2.0);
}

TEST_F(Events, TheQuietStretchIsSaidAndTheLevelToldOverIt) {
  RehearsalScene scene = test::smallPull();
  scene.sound = RehearsalSound{.knocks_s = {0.9, 1.2, 1.5}};
  scene.rate = Hertz(30.0);
  open(scene, Protocol::Sound);
  EXPECT_FALSE(passController().readings().find(ReadingId::RattleLevel));
  EXPECT_FALSE(find<QLabel>("quietWords")->isHidden());
  goTo(0.1);
  key(Qt::Key_Q);
  EXPECT_TRUE(find<QLabel>("quietWords")->text().contains("where the quiet ends"));
  goTo(0.7);
  key(Qt::Key_Q);
  ASSERT_TRUE(passController().current()->request.quiet);
  EXPECT_NEAR(passController().current()->request.quiet->to.value(), 0.7, 0.04);
  EXPECT_GT(reading(ReadingId::RattleLevel), 3.0);
  press("noQuiet");
  ASSERT_TRUE(settled());
  EXPECT_FALSE(passController().readings().find(ReadingId::RattleLevel));
}

TEST(ClipVoice, SlowsWithoutChangingHowLoudItIs) {
  const float samples[] = {0.0F, 0.5F, -0.5F};
  const QByteArray twice = ClipVoice::slowed(samples, 2.0);
  const auto* value = reinterpret_cast<const qint16*>(twice.constData());
  ASSERT_EQ(twice.size(), 5 * 2);
  EXPECT_EQ(value[1], 8192);
  EXPECT_EQ(value[2], 16384);
  EXPECT_EQ(value[3], 0);
  EXPECT_EQ(value[4], -16384);
  EXPECT_TRUE(ClipVoice::slowed({}, 2.0).isEmpty());
}

}  // namespace
}  // namespace fin::app
