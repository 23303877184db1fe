// SPDX-License-Identifier: GPL-3.0-or-later
// Passes side by side and laid over each other, driven through the window on clips whose frames bear numbers.
#include <qcustomplot.h>
#include <QComboBox>
#include <QListWidget>
#include <QTableWidget>

#include "core/exchange/film_json.h"
#include "numbered_day_fixture.h"

namespace fin::app {
namespace {

constexpr double kFilm_Hz = 50.0;

class InStep : public NumberedDayTest {
 protected:
  void SetUp() override {
    NumberedDayTest::SetUp();
    QTest::keyClick(window_.get(), Qt::Key_4, Qt::ControlModifier);
    press("pageInStep");
  }
  InStepPage& page() { return window_->lineUp().inStep(); }
  QListWidget* picker() { return page().findChild<QListWidget*>("passPicker"); }
  void tick(int passes) {
    for (int i = 0; i < passes; ++i) picker()->item(i)->setCheckState(Qt::Checked);
    ASSERT_TRUE(waitFor(
        [&] { return page().settled() && page().panes().size() == static_cast<std::size_t>(passes); }));
  }
  /// The number that the picture of a pane bears.
  static std::size_t numberOn(const InStepPane& pane) {
    const QImage rgb = pane.view().picture().convertToFormat(QImage::Format_RGB888);
    const cv::Mat view(rgb.height(), rgb.width(), CV_8UC3, const_cast<uchar*>(rgb.constBits()),
                       static_cast<std::size_t>(rgb.bytesPerLine()));
    return test::numberIn(Picture::fromMat(view));
  }
};

TEST_F(InStep, ShowsEveryPassAtTheSameTimeFromItsOwnRun) {
  tick(3);
  page().goTo(0.0);
  ASSERT_TRUE(waitFor([&] { return page().settled(); }));
  const auto panes = page().panes();
  for (std::size_t i = 0; i < 3; ++i) EXPECT_EQ(numberOn(*panes[i]), 10 + 5 * i);
  page().setFocus();
  QTest::keyClick(&page(), Qt::Key_G);
  ASSERT_TRUE(waitFor([&] { return page().settled(); }));
  for (std::size_t i = 0; i < 3; ++i) EXPECT_EQ(numberOn(*panes[i]), 20 + 5 * i) << "ten frames on";
  const QImage strip = page().strip();
  EXPECT_EQ(strip.width(), 3 * 420);
  // Pressing in a trace says where that one's instant is; the others stay.
  auto* plot = panes[1]->findChild<QCustomPlot*>("inStepTrace");
  const int x = static_cast<int>(plot->xAxis->coordToPixel(0.4));
  QTest::mouseClick(plot, Qt::LeftButton, Qt::NoModifier, QPoint(x, plot->height() / 3));
  page().goTo(0.0);
  ASSERT_TRUE(waitFor([&] { return page().settled(); }));
  EXPECT_NEAR(static_cast<double>(numberOn(*panes[1])), 15 + 0.4 * kFilm_Hz, 1.0);
  EXPECT_EQ(numberOn(*panes[0]), 10U);
  EXPECT_EQ(find<QComboBox>("sharedInstant")->currentText(), "where I pressed");
}

TEST_F(InStep, RunsSixWithoutLeavingOutAFrame) {
  tick(6);
  ASSERT_EQ(picker()->count(), 7);
  EXPECT_FALSE(picker()->item(6)->flags().testFlag(Qt::ItemIsEnabled)) << "six at most";
  find<QComboBox>("slowness")->setCurrentIndex(2);  // a fifth
  page().goTo(-0.2);
  ASSERT_TRUE(waitFor([&] { return page().settled(); }));
  page().setFocus();
  QTest::keyClick(&page(), Qt::Key_Space);
  EXPECT_TRUE(page().running());
  ASSERT_TRUE(waitFor([&] { return page().time_s() > 0.3; }));
  QTest::keyClick(&page(), Qt::Key_Space);
  EXPECT_FALSE(page().running());
  for (const InStepPane* pane : page().panes()) {
    const std::vector<std::size_t>& shown = pane->shownFrames();
    ASSERT_GE(shown.size(), 24U);
    for (std::size_t i = shown.size() - 23; i < shown.size(); ++i) EXPECT_EQ(shown[i], shown[i - 1] + 1);
  }
}

TEST_F(InStep, GoesOnWhenAClipIsGone) {
  std::filesystem::remove(folder_ / "clip 1.mp4");
  tick(2);
  const auto panes = page().panes();
  EXPECT_FALSE(panes[0]->view().picture().isNull());
  EXPECT_TRUE(panes[1]->view().picture().isNull());
  EXPECT_FALSE(panes[1]->pass()->trouble.isEmpty());
}

TEST_F(InStep, LaysTracesOverEachOther) {
  tick(2);
  press("pageOverlay");
  auto* plot = find<QCustomPlot>("overlayPlot");
  EXPECT_EQ(plot->plottableCount(), 2);
  EXPECT_EQ(plot->legend->itemCount(), 2);
  auto* curve = qobject_cast<QCPCurve*>(plot->plottable(1));
  EXPECT_NEAR(curve->data()->constBegin()->key, 0.0, 1e-9) << "from where its run begins";
  window_->lineUp().overlay().choose(OverlayPage::What::Paths);
  ASSERT_EQ(plot->plottableCount(), 2);
  curve = qobject_cast<QCPCurve*>(plot->plottable(1));
  // 44 frames on, 1.5 px each, 2 mm a pixel.
  EXPECT_NEAR((curve->data()->constEnd() - 1)->key, 44 * 3.0, 1.0);
  for (const auto what : {OverlayPage::What::Twitches, OverlayPage::What::Skirts}) {
    window_->lineUp().overlay().choose(what);
    EXPECT_EQ(plot->plottableCount(), 0);
    EXPECT_TRUE(text("overlayWords").contains("clip 0"));
  }
}

TEST_F(InStep, ScoresByEyeBlindAndThenComparesWithTheReading) {
  press("pageEye");
  EyePage& eye = window_->lineUp().eye();
  EXPECT_TRUE(text("eyeHeading").contains("agree with the readings?"));
  auto* property = find<QComboBox>("eyeProperty");
  property->setCurrentIndex(property->findData(QVariant::fromValue(ReadingId::RiseRate)));
  ASSERT_EQ(property->currentData().value<ReadingId>(), ReadingId::RiseRate);
  press("beginEye");
  // Every clip twice, without a name; the eye follows the number of its rig.
  for (int shown = 0; shown < 14; ++shown) {
    ASSERT_TRUE(waitFor([&] {
      return eye.shown() != nullptr && text("eyeWhich").startsWith(QString("Clip %1 of 14").arg(shown + 1));
    }));
    const int rig = eye.shown()->title.section(' ', 1).toInt();
    EXPECT_FALSE(find<QPushButton>("nextEye")->isEnabled()) << "no score yet";
    QTest::keyClick(&eye, static_cast<Qt::Key>(Qt::Key_0 + rig));
    QTest::keyClick(&eye, Qt::Key_Return);
  }
  ASSERT_FALSE(eye.judging());
  auto* table = find<QTableWidget>("eyeTable");
  EXPECT_EQ(table->rowCount(), 7);
  EXPECT_TRUE(text("eyeWords").contains("differed by about 0.0 of 10")) << text("eyeWords").toStdString();
  press("forgetEye");
  EXPECT_EQ(table->rowCount(), 0);
  press("undo");
  EXPECT_EQ(table->rowCount(), 7) << "forgetting can be undone";
}

TEST_F(InStep, FilmsWhatIsSeenAndWritesItsScript) {
  tick(2);
  press("filmInStep");
  find<QComboBox>("slowness")->setCurrentIndex(1);  // half of the true speed
  find<QComboBox>("filmShape")->setCurrentIndex(1);
  find<QLineEdit>("filmTitle")->setText("Which <is> it?");
  EXPECT_TRUE(find<QPlainTextEdit>("filmEnd")->toPlainText().contains("one tank is not a lake"));
  EXPECT_FALSE(find<QComboBox>("filmSound")->isEnabled()) << "a slowed film is silent";
  const auto place = [&](const char* name) { return QString::fromStdString((folder_ / name).string()); };
  emit page().film().filmWanted(place("film.mp4"));
  ASSERT_TRUE(waitFor([&] { return !page().film().maker().busy(); }));
  const auto film = Clip::open(folder_ / "film.mp4");
  ASSERT_TRUE(film) << text("filmSaid").toStdString();
  EXPECT_EQ((*film)->info().width_px, 1280);
  // Runs of 50 and 45 frames at 50 a second, from their beginnings: a second, less the last frame's stand, at
  // half the speed and 30 a second; with 3 s of title and 6 s of what to know.
  EXPECT_NEAR(static_cast<double>((*film)->index().frameCount()), 30.0 * (3.0 + 6.0 + 2.0 * 0.98), 2.0);
  EXPECT_TRUE(text("filmSaid").startsWith("Made: "));

  emit page().film().scriptWanted(place("film.json"));
  ASSERT_TRUE(waitFor([&] { return !page().film().maker().busy(); }));
  const auto script = parseFilm(test::slurp(folder_ / "film.json"), folder_.path());
  ASSERT_TRUE(script) << script.error().message;
  ASSERT_TRUE(validate(*script));
  EXPECT_EQ(script->title, "Which <is> it?");
  EXPECT_EQ(script->passes[0].clip, folder_ / "clip 0.mp4");
  EXPECT_EQ(script->passes[0].lure.size(), 50U);
  EXPECT_NEAR(script->passes[1].instant(), 15.0 / kFilm_Hz, 1e-9);
  EXPECT_NEAR(script->passes[0].mmPerPixel.value_or(0.0), 2.0, 1e-9);
}

TEST_F(InStep, StopsAFilmAndSaysOfAClipThatIsGone) {
  tick(2);
  press("filmInStep");
  find<QComboBox>("slowness")->setCurrentIndex(5);
  emit page().film().filmWanted(QString::fromStdString((folder_ / "film.webm").string()));
  ASSERT_TRUE(waitFor([&] { return find<QPushButton>("stopFilm")->isVisible(); }));
  press("stopFilm");
  EXPECT_EQ(text("filmSaid"), "Stopped. Nothing was left behind.");
  EXPECT_FALSE(find<QPushButton>("stopFilm")->isVisible());
  std::filesystem::remove(folder_ / "clip 1.mp4");
  emit page().film().filmWanted(QString::fromStdString((folder_ / "film.webm").string()));
  ASSERT_TRUE(waitFor([&] { return !page().film().maker().busy(); }));
  EXPECT_TRUE(text("filmSaid").contains("clip 1.mp4")) << text("filmSaid").toStdString();
  EXPECT_FALSE(std::filesystem::exists(folder_ / "film.webm"));
}

}  // namespace
}  // namespace fin::app
