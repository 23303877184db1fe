// SPDX-License-Identifier: GPL-3.0-or-later
// A day at the water played through by keys, with the simulated camera.
#include <QLineEdit>
#include <QListWidget>
#include <QMimeData>
#include <fstream>
#include <map>

#include "app/read_day_fixture.h"
#include "app/ui/unit_box.h"

namespace fin::app {
namespace {

class Poolside : public WindowTest {
 protected:
  void SetUp() override {
    std::filesystem::create_directory(folder_ / "camera");
    openWindow();
    window_->day().edit("A small day", [](DayPlan& plan) {
      plan.rack.models = {{.id = 1, .name = "Vinto 11", .family = Family::SoftPlastic, .length_mm = 110.0}};
      plan.rack.rigs = {{.id = 2, .model = 1, .name = "7 g head", .head_g = 7.0},
                        {.id = 3, .model = 1, .name = "4 g head", .head_g = 4.0}};
      plan.options.tasks = {{Protocol::Retrieve, View::Top, {500.0}}};
      plan.options.repeats = 2;
    });
    ASSERT_TRUE(window_->day().makeSheet());
    press("place1");
  }

  DayController& day() { return window_->day(); }
  const std::vector<PlannedPass>& sheet() { return day().plan().sheet; }
  RunList* runList() { return find<RunList>("runList"); }
  QListWidget* waiting() { return find<QListWidget>("waitingClips"); }
  void key(int k) { QTest::keyClick(&window_->poolside(), static_cast<Qt::Key>(k)); }
  void watch() {
    window_->poolside().incoming().watchFolder(QString::fromStdString((folder_ / "camera").string()));
  }
  /// A small clip made elsewhere and then put into the folder at once.
  void dropClip(const std::string& name, unsigned seed = 1, std::chrono::seconds later = {}) {
    RehearsalScene scene = test::smallPull(seed);
    scene.length = Seconds(0.4);
    ASSERT_TRUE(filmRehearsal(scene, folder_ / name));
    std::filesystem::last_write_time(folder_ / name, std::filesystem::file_time_type::clock::now() + later);
    std::filesystem::rename(folder_ / name, folder_ / ("camera/" + name));
  }
  bool waitForClips(int n) {
    return waitFor([this, n] { return waiting()->count() == n; });
  }
  /// The offered clip, taken in by its key.
  void takeClip() {
    const std::size_t before = window_->passController().passes().size();
    key(Qt::Key_T);
    ASSERT_TRUE(waitFor([&] { return window_->passController().passes().size() == before + 1; }));
  }
  const LoggedPass& clip(std::size_t i) { return window_->passController().passes()[i]; }
};

TEST_F(Poolside, WorksThroughTheDayByNumberKeys) {
  EXPECT_EQ(find<QLabel>("nowRig")->text(), day().titleOf(sheet()[0]));
  key(Qt::Key_1);
  EXPECT_EQ(sheet()[0].state, PassState::Done);
  key(Qt::Key_2);
  key(Qt::Key_3);  // the third reason
  EXPECT_EQ(sheet()[1].state, PassState::Fouled);
  EXPECT_EQ(sheet()[1].whyFouled, "the pace varied");
  key(Qt::Key_3);  // again
  ASSERT_EQ(sheet().size(), 5U);
  EXPECT_EQ(sheet()[2].attempt, 2);
  EXPECT_EQ(sheet()[2].rig, sheet()[1].rig);
  EXPECT_EQ(day().now(), &sheet()[2]);
  key(Qt::Key_5);
  typeInto(find<UnitBox>("lineOut"), "12.5");
  EXPECT_EQ(sheet()[2].lineOut_mm, 12500.0);
  EXPECT_EQ(sheet()[4].lineOut_mm, 12500.0) << "from this pass on";
  EXPECT_FALSE(sheet()[0].lineOut_mm) << "what was made before stays";
  QTest::keyClicks(find<QLineEdit>("noteText"), "windy");
  QTest::keyClick(find<QLineEdit>("noteText"), Qt::Key_Return);
  EXPECT_EQ(sheet()[2].note, "windy");
  key(Qt::Key_4);
  EXPECT_EQ(sheet()[2].state, PassState::Skipped);
  // The day is interrupted, and goes on where it stopped.
  openWindow();
  press("place1");
  EXPECT_EQ(day().now(), &sheet()[3]);
  QTest::keyClick(window_.get(), Qt::Key_Z, Qt::ControlModifier);  // a new window has nothing to undo
  key(Qt::Key_1);
  key(Qt::Key_1);
  EXPECT_EQ(find<QLabel>("nowRig")->text(), "The day is done");
}

TEST_F(Poolside, NotesLightWindAndWaterFromThisPassOn) {
  key(Qt::Key_1);
  key(Qt::Key_5);
  auto* light = find<QComboBox>("passLight");
  light->setFocus();
  QTest::keyClicks(light, "low sun");
  QTest::keyClick(light, Qt::Key_Tab);
  typeInto(find<UnitBox>("passWater"), "14.5");
  EXPECT_TRUE(sheet()[0].light.empty()) << "what was made before stays";
  for (std::size_t i = 1; i < sheet().size(); ++i) {
    EXPECT_EQ(sheet()[i].light, "low sun");
    EXPECT_EQ(sheet()[i].water_C, 14.5);
    EXPECT_TRUE(sheet()[i].wind.empty());
  }
  typeInto(find<UnitBox>("passWater"), "-3");
  EXPECT_FALSE(sheet()[1].water_C) << "not said any more";
}

TEST_F(Poolside, TakesTheSimulatedCamerasClipsAndRedoesAFouledPass) {
  watch();
  press("rehearse");
  ASSERT_TRUE(waitForClips(1));
  takeClip();
  ASSERT_EQ(window_->passController().passes().size(), 1U);
  EXPECT_EQ(clip(0).planned, sheet()[0].id);
  EXPECT_EQ(clip(0).request.protocol, Protocol::Retrieve);
  EXPECT_EQ(waiting()->count(), 0);
  key(Qt::Key_2);
  key(Qt::Key_1);
  key(Qt::Key_3);
  dropClip("again.mp4");
  ASSERT_TRUE(waitForClips(1));
  takeClip();
  EXPECT_EQ(clip(1).planned, sheet()[1].id);
  EXPECT_EQ(sheet()[1].attempt, 2);
  EXPECT_TRUE(std::filesystem::exists(folder_ / "camera/again.mp4"));
}

TEST_F(Poolside, TakesInAllThatIsOfferedByOneKey) {
  watch();
  dropClip("a.mp4", 1);
  ASSERT_TRUE(waitForClips(1));
  EXPECT_FALSE(find<QPushButton>("takeAllClips")->isVisible()) << "one is taken in by itself";
  key(Qt::Key_1);
  dropClip("b.mp4", 2, std::chrono::seconds(5));
  ASSERT_TRUE(waitForClips(2));
  EXPECT_TRUE(find<QPushButton>("takeAllClips")->isVisible());
  QTest::keyClick(&window_->poolside(), Qt::Key_T, Qt::ShiftModifier);
  ASSERT_TRUE(waitFor([this] { return window_->passController().passes().size() == 2; }));
  EXPECT_EQ(waiting()->count(), 0);
  EXPECT_EQ(clip(0).planned, sheet()[0].id);
  EXPECT_EQ(clip(1).planned, sheet()[1].id);
}

TEST_F(Poolside, PutsAWrongClipRightByKeysAndByDragging) {
  watch();
  dropClip("a.mp4");
  ASSERT_TRUE(waitForClips(1));
  takeClip();
  ASSERT_EQ(clip(0).planned, sheet()[0].id);
  runList()->setCurrentItem(runList()->itemOf(sheet()[0].id)->child(0));
  QTest::keyClick(runList(), Qt::Key_Down, Qt::AltModifier);
  EXPECT_EQ(clip(0).planned, sheet()[1].id);
  QTest::keyClick(runList(), Qt::Key_Down, Qt::AltModifier);
  EXPECT_EQ(clip(0).planned, sheet()[2].id);

  // What a drag carries, let go over the first pass.
  QMimeData carried;
  carried.setData(RunList::mimeType(),
                  "logged:" + QByteArray::number(static_cast<qlonglong>(clip(0).id.value())));
  const QPoint at = runList()->visualItemRect(runList()->itemOf(sheet()[0].id)).center();
  QDragEnterEvent enter(at, Qt::MoveAction, &carried, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(runList()->viewport(), &enter);
  QDragMoveEvent over(at, Qt::MoveAction, &carried, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(runList()->viewport(), &over);
  QDropEvent drop(at, Qt::MoveAction, &carried, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(runList()->viewport(), &drop);
  ASSERT_TRUE(waitFor([this] { return clip(0).planned == sheet()[0].id; }));
  QTest::keyClick(window_.get(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(clip(0).planned, sheet()[2].id);
}

TEST_F(Poolside, WaitsForAClipThatIsStillBeingWritten) {
  watch();
  RehearsalScene scene = test::smallPull();
  scene.length = Seconds(0.4);
  ASSERT_TRUE(filmRehearsal(scene, folder_ / "whole.mp4"));
  std::ifstream whole(folder_ / "whole.mp4", std::ios::binary);
  const std::string bytes{std::istreambuf_iterator<char>(whole), {}};
  std::ofstream growing(folder_ / "camera/growing.mp4", std::ios::binary);
  // Pieces at every look: it never stands still before it is whole.
  for (std::size_t i = 0; i < 6; ++i) {
    growing << bytes.substr(i * bytes.size() / 6, (i + 1) * bytes.size() / 6 - i * bytes.size() / 6)
            << std::flush;
    if (i < 5) QTest::qWait(400);
    EXPECT_EQ(waiting()->count(), 0) << i;
  }
  ASSERT_TRUE(waitForClips(1));
  const auto print = fingerprintOf(folder_ / "camera/growing.mp4");
  EXPECT_EQ(print->size_bytes, bytes.size());
}

TEST_F(Poolside, NoticesTheVerySameClipAndAFolderThatDisappears) {
  watch();
  dropClip("a.mp4");
  ASSERT_TRUE(waitForClips(1));
  takeClip();
  std::filesystem::copy_file(folder_ / "camera/a.mp4", folder_ / "camera/copy.mp4");
  ASSERT_TRUE(waitForClips(1));
  EXPECT_TRUE(waiting()->item(0)->text().contains("very same clip"))
      << waiting()->item(0)->text().toStdString();
  press("leaveClip");
  EXPECT_EQ(waiting()->count(), 0);

  auto* trouble = find<QLabel>("folderTrouble");
  std::filesystem::rename(folder_ / "camera", folder_ / "gone");
  ASSERT_TRUE(waitFor([&] { return trouble->isVisibleTo(window_.get()); }));
  EXPECT_TRUE(trouble->text().contains("not there"));
  std::filesystem::rename(folder_ / "gone", folder_ / "camera");
  ASSERT_TRUE(waitFor([&] { return !trouble->isVisibleTo(window_.get()); }));
  EXPECT_EQ(window_->passController().passes().size(), 1U);
}

TEST_F(Poolside, OffersTwoClipsOfOneSecondSideBySide) {
  watch();
  dropClip("a.mp4", 1);
  dropClip("b.mp4", 2);
  const auto now = std::filesystem::file_time_type::clock::now();
  std::filesystem::last_write_time(folder_ / "camera/a.mp4", now);
  std::filesystem::last_write_time(folder_ / "camera/b.mp4", now);
  ASSERT_TRUE(waitForClips(2));
  takeClip();
  ASSERT_TRUE(waitForClips(1));
  find<QComboBox>("clipCamera")->setEditText("top");
  takeClip();
  EXPECT_EQ(clip(0).planned, clip(1).planned);
  EXPECT_EQ(clip(1).camera, "top");
}

TEST_F(Poolside, KeepsTheBeatByKeyAndSaysWhenItIsSilent) {
  auto& pacer = window_->poolside().pacer().pacer();
  std::vector<std::size_t> beats;
  QObject::connect(&pacer, &Pacer::beat, window_.get(), [&](std::size_t n) { beats.push_back(n); });
  day().edit("Quick", [](DayPlan& plan) { plan.cadence = {2, Seconds(0.05), Seconds(0.1)}; });
  key(Qt::Key_P);
  ASSERT_TRUE(waitFor([&] { return beats.size() >= 5; }));
  key(Qt::Key_P);
  EXPECT_FALSE(pacer.running());
  for (std::size_t i = 1; i < beats.size(); ++i) EXPECT_GT(beats[i], beats[i - 1]);
}

TEST(TickSound, PlacesItsTicksToTheSample) {
  const Cadence cadence{2, Seconds(0.5), Seconds(1.0)};
  constexpr int kRate_Hz = 48000;
  std::vector<qint16> samples(3 * kRate_Hz);
  TickSound::fill(cadence, kRate_Hz, 0, samples.data(), static_cast<qint64>(samples.size()));
  std::vector<std::size_t> starts;
  for (std::size_t i = 0; i < samples.size(); ++i) {
    if (samples[i] == 0 || (i > 0 && samples[i - 1] != 0)) continue;
    if (starts.empty() || i - starts.back() > 9600) starts.push_back(i);
  }
  // A sine begins at zero, so the first sample that is not follows by one.
  ASSERT_EQ(starts.size(), 4U);
  for (std::size_t n = 0; n < 4; ++n) {
    EXPECT_NEAR(static_cast<double>(starts[n]), cadence.beat(n).value() * kRate_Hz + 1.0, 1.0) << n;
  }
}

/// A planned day of four rigs in four blocks, three of them filmed and read: two of them close together.
class FilmNextTest : public ReadDayTest {
 protected:
  void SetUp() override {
    auto log = Log::open(folder_ / "day.finlog");
    ASSERT_TRUE(log) << log.error().message;
    const double rates[] = {402.0, 440.0, 413.0, 480.0};
    const double scatter[] = {0.0, 5.0, -5.0, 3.0, -4.0, 4.0, -3.0, 0.0};
    const char* names[] = {"Oblig", "Hasp", "Oblag", "Vinto"};
    for (std::int64_t r = 0; r < 4; ++r) {
      plan_.rack.models.push_back({.id = r + 1, .name = names[r]});
      plan_.rack.rigs.push_back({.id = r + 11, .model = r + 1});
    }
    for (std::size_t block = 0; block < 4; ++block) {
      for (std::size_t r = 0; r < 4; ++r) {
        keep(**log, static_cast<std::int64_t>(r + 11), "fall " + std::to_string(plan_.sheet.size()),
             Protocol::Fall,
             {{ReadingId::FallRate, rates[r] + scatter[(block + 3 * r) % 8], "mm/s", 1.0, 60.0}}, true);
      }
    }
    for (std::int64_t r = 0; r < 4; ++r) {
      plan_.sheet.push_back({.id = 17 + r, .rig = r + 11, .protocol = Protocol::Fall, .block = 5});
    }
    plan_.options.tasks = {{Protocol::Fall, View::Side, {}}};
    ASSERT_TRUE((*log)->savePlan(DayPlan{}, plan_));
    VerdictPlan verdict, before;
    verdict.wishes = {{.reading = ReadingId::FallRate, .direction = Direction::Less}};
    ASSERT_TRUE((*log)->saveVerdict(before, verdict));
    log->reset();
    openWindow();
    press("place1");
  }
};

TEST_F(FilmNextTest, SaysWhatWouldSettleMostAndPlansTheRestByOneKey) {
  ASSERT_TRUE(waitFor([this] { return find<QFrame>("filmNext")->isVisible(); }));
  const QString said = text("filmNextText");
  EXPECT_TRUE(said.startsWith("Film next: ")) << said.toStdString();
  EXPECT_TRUE(said.contains("of Oblig and Oblag; the rest is settled. Open: fall rate."));
  const auto planned = [this] {
    std::map<RigId, int> out;
    for (const PlannedPass& pass : window_->day().plan().sheet) {
      if (pass.state == PassState::Planned) ++out[pass.rig];
    }
    return out;
  };
  const int more = said.mid(11, 1).toInt();
  ASSERT_GE(more, 1);
  QTest::keyClick(&window_->poolside(), Qt::Key_R);
  EXPECT_EQ(planned(), (std::map<RigId, int>{{11, more}, {13, more}}));
  press("undo");
  EXPECT_EQ(planned().size(), 4U);
}

TEST_F(FilmNextTest, NamesNoRigOnABlindDay) {
  window_->day().edit("Blind", [](DayPlan& plan) {
    plan.options.blind = true;
    for (PlannedPass& pass : plan.sheet)
      pass.label = std::string(1, static_cast<char>('A' + pass.rig.value() - 11));
  });
  window_->go(Place::Poolside);
  EXPECT_TRUE(waitFor([this] { return text("filmNextText").contains("of Rig A and Rig C;"); }))
      << text("filmNextText").toStdString();
  EXPECT_FALSE(text("filmNextText").contains("Oblig"));
}

}  // namespace
}  // namespace fin::app
