// SPDX-License-Identifier: GPL-3.0-or-later
// Two passes heard one after the other: with what gain, and what is said of it.
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>

#include "core/measuring/hear_pass.h"
#include "support/logged.h"
#include "window_fixture.h"

namespace fin::app {
namespace {

class Ear : public WindowTest {
 protected:
  /// A clip of a knocking bait, read for its sound; its hiss is as loud as the camera makes it.
  void hear(const char* name, double hiss, const char* camera) {
    RehearsalScene scene = test::smallPull();
    scene.rate = Hertz(30.0);
    scene.sound = RehearsalSound{.hiss = hiss, .gain = 0.5, .knocks_s = {1.0, 1.4}};
    const auto clip = folder_ / (std::string(name) + ".mp4");
    ASSERT_TRUE(filmRehearsal(scene, clip));
    const auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    PassRequest request;
    request.clip = clip;
    request.protocol = Protocol::Sound;
    request.quiet = QuietStretch{Seconds(0.1), Seconds(0.8)};
    const PassId id = test::addPass(**log, name, request, std::nullopt, camera);
    const auto opened = Clip::open(clip);
    ASSERT_TRUE(opened);
    const auto read = readPass(request, **opened, Track{});
    ASSERT_TRUE(read);
    ASSERT_FALSE(read->readings.readings.empty());
    test::keepReadings(**log, id, read->readings);
  }
  EarPage& page() { return window_->lineUp().ear(); }
  void openEar() {
    openWindow();
    window_->go(Place::LineUp);
    window_->lineUp().go(LineUpPlace::Page::Ear);
    ASSERT_TRUE(waitFor([&] { return !page().busy() && page().heardNow().has_value(); }));
  }
  QString heading() { return find<QLabel>("earHeading")->text(); }
};

TEST_F(Ear, HearsTwoInTurnAndSaysWithWhatGain) {
  hear("One", 0.004, "fixed");
  hear("Two", 0.016, "chase");
  openEar();
  EXPECT_TRUE(heading().contains("Both are heard as recorded")) << heading().toStdString();
  EXPECT_TRUE(find<QLabel>("earWords")->text().contains("different cameras"));
  const HeardInTurn plain = *page().heardNow();
  EXPECT_NEAR(plain.second_s, 1.87 + 0.5, 0.05);

  // Four times the hiss is 12 dB more: the second is heard so much softer.
  find<QComboBox>("earGain")->setCurrentIndex(static_cast<int>(EarPage::Gain::QuietAlike));
  EXPECT_TRUE(heading().contains("the second 1")) << heading().toStdString();
  EXPECT_TRUE(heading().contains("dB softer"));
  const HeardInTurn alike = *page().heardNow();
  EXPECT_NEAR(alike.samples.back() / plain.samples.back(), std::pow(10.0, -12.04 / 20.0), 0.04);
  EXPECT_EQ(alike.samples.front(), plain.samples.front());

  // Kept for the camera: said, in the log, undone.
  find<QDoubleSpinBox>("earSecondGain")->setValue(-6.0);
  EXPECT_TRUE(heading().contains("the second 6.0 dB softer")) << heading().toStdString();
  openEar();
  find<QComboBox>("earGain")->setCurrentIndex(static_cast<int>(EarPage::Gain::KeptForCamera));
  EXPECT_TRUE(heading().contains("the second 6.0 dB softer")) << heading().toStdString();
  find<QDoubleSpinBox>("earSecondGain")->setValue(0.0);
  press("undo");
  EXPECT_TRUE(heading().contains("the second 6.0 dB softer")) << heading().toStdString();
}

TEST_F(Ear, SaysWhatIsMissing) {
  openWindow();
  window_->go(Place::LineUp);
  window_->lineUp().go(LineUpPlace::Page::Ear);
  EXPECT_TRUE(find<QLabel>("earWords")->text().contains("Film two passes"));
  EXPECT_FALSE(page().heardNow().has_value());
}

}  // namespace
}  // namespace fin::app
