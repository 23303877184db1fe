// SPDX-License-Identifier: GPL-3.0-or-later
// The whole day by keyboard alone: whatever is pressed goes to what has the focus, and nothing is reached but
// by keys.
#include <QApplication>
#include <QClipboard>
#include <QComboBox>
#include <QFileDialog>
#include <QLineEdit>
#include <QListWidget>
#include <QTableWidget>
#include <QTextBrowser>
#include <QTimer>

#include "support/reading_words.h"
#include "window_fixture.h"

namespace fin::app {
namespace {

class KeyboardDay : public WindowTest {
 protected:
  static constexpr int kFarthest = 150;  ///< presses of Tab, once round any page

  void key(int k, Qt::KeyboardModifiers with = Qt::NoModifier) {
    QWidget* focus = QApplication::focusWidget();
    QTest::keyClick(focus != nullptr ? focus : window_.get(), static_cast<Qt::Key>(k), with);
  }
  void write(const QString& text) {
    ASSERT_NE(QApplication::focusWidget(), nullptr);
    QTest::keyClicks(QApplication::focusWidget(), text);
  }
  void place(int number) { key(Qt::Key_0 + number, Qt::ControlModifier); }
  /// By Tab; in a group of which one is on, on by the arrow.
  bool reach(const QString& name) {
    for (int i = 0; i < kFarthest; ++i) {
      const QWidget* focus = QApplication::focusWidget();
      if (focus != nullptr && focus->objectName() == name) return true;
      key(inOneGroup(focus, window_->findChild<QAbstractButton*>(name)) ? Qt::Key_Right : Qt::Key_Tab);
    }
    ADD_FAILURE() << name.toStdString() << " is not reached by Tab";
    return false;
  }
  static bool inOneGroup(const QWidget* focus, const QAbstractButton* wanted) {
    const auto* button = qobject_cast<const QAbstractButton*>(focus);
    return button != nullptr && wanted != nullptr && button->group() != nullptr &&
           button->group() == wanted->group();
  }
  void pressKey(const QString& button) {
    if (reach(button)) key(Qt::Key_Space);
  }
  /// Answers the file dialog that what is done opens.
  template <class Do>
  void answering(const std::filesystem::path& path, const Do& what) {
    bool typed = false;
    QTimer timer;
    QObject::connect(&timer, &QTimer::timeout, [&] {
      auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
      if (dialog == nullptr) return;
      auto* name = dialog->findChild<QLineEdit*>("fileNameEdit");
      if (!typed) {
        QGuiApplication::clipboard()->setText(QString::fromStdString(path.string()));
        name->selectAll();
        QTest::keyClick(name, Qt::Key_V, Qt::ControlModifier);  // typed, a completer takes part of it
        typed = true;
      }
      QTest::keyClick(name, Qt::Key_Return);
    });
    timer.start(50);
    what();
    window_->activateWindow();  // no window manager does it here
    EXPECT_TRUE(QTest::qWaitForWindowActive(window_.get()));
    EXPECT_TRUE(typed) << "no file was asked for";
  }
  /// The cross in hand, with the arrows.
  void steer(PixelPoint to) {
    FootageView& footage = window_->bench().footage();
    ASSERT_NE(footage.tool(), nullptr);
    if (!footage.tool()->aim()) key(Qt::Key_Right);
    ASSERT_TRUE(footage.tool()->aim());
    const auto go = [&](auto coordinate, Qt::Key less, Qt::Key more) {
      for (int i = 0; i < 1000; ++i) {
        const double left = coordinate(to) - coordinate(*footage.tool()->aim());
        if (std::abs(left) <= 0.25) return;
        key(left < 0.0 ? less : more, std::abs(left) >= 5.0 ? Qt::ShiftModifier : Qt::NoModifier);
      }
      ADD_FAILURE() << "the cross does not get there";
    };
    go([](PixelPoint p) { return p.x_px; }, Qt::Key_Left, Qt::Key_Right);
    go([](PixelPoint p) { return p.y_px; }, Qt::Key_Up, Qt::Key_Down);
    key(Qt::Key_Return);
  }
  void planTheDay() {
    place(1);
    ASSERT_TRUE(reach("questions"));
    key(Qt::Key_Down);
    key(Qt::Key_Up);
    key(Qt::Key_Space);
    ASSERT_TRUE(reach("dayName"));
    write("By keys alone");
    key(Qt::Key_Return);
    for (const char* name : {"Vinto 11", "Skrell 95"}) {
      pressKey("step2");
      pressKey("addModel");
      ASSERT_TRUE(reach("rack_model"));
      key(Qt::Key_A, Qt::ControlModifier);
      write(name);
      key(Qt::Key_Tab);
    }
    pressKey("step6");
    pressKey("makeSheet");
    EXPECT_EQ(window_->day().plan().name, "By keys alone");
    ASSERT_EQ(window_->day().plan().rack.models.size(), 2U);
    EXPECT_EQ(window_->day().plan().rack.models[1].name, "Skrell 95");
    EXPECT_GE(window_->day().plan().sheet.size(), 4U);
  }
  /// The camera writes a clip; it is taken in, and its pass is done.
  void filmAtThePool(std::size_t pass) {
    RehearsalScene scene = scenes_[pass];
    const std::string name = "clip" + std::to_string(pass) + ".mp4";
    ASSERT_TRUE(filmRehearsal(scene, folder_ / name));
    std::filesystem::rename(folder_ / name, folder_ / "camera" / name);
    ASSERT_TRUE(waitFor([&] { return find<QListWidget>("waitingClips")->count() == 1; }));
    key(Qt::Key_T);
    ASSERT_TRUE(waitFor([&] { return window_->passController().passes().size() == pass + 1; }));
    key(Qt::Key_1);
    EXPECT_EQ(window_->day().plan().sheet[pass].state, PassState::Done);
  }
  void measure(std::size_t pass) {
    const RehearsalTank tank(scenes_[pass]);
    const PassRequest known = requestFor(tank, {});
    PassController& controller = window_->passController();
    ASSERT_TRUE(reach("passChooser"));
    key(pass == 0 ? Qt::Key_Home : Qt::Key_End);
    ASSERT_TRUE(waitFor([&] {
      return controller.current() == &controller.passes()[pass] && controller.clip() &&
             window_->bench().footage().hasPicture();
    }));
    place(3);
    for (std::size_t n = 0; n < known.firstFrame; ++n) key(Qt::Key_F);
    ASSERT_TRUE(waitFor([&] { return window_->bench().footage().shownFrame() == known.firstFrame; }));
    ASSERT_TRUE(reach("length"));
    key(Qt::Key_A, Qt::ControlModifier);
    write("300");
    key(Qt::Key_Return);
    place(3);
    key(Qt::Key_R);
    steer(known.scale->from);
    steer(known.scale->to);
    key(Qt::Key_1);
    steer(known.marks[0].at);
    key(Qt::Key_2);
    steer(known.marks[1].at);
    ASSERT_TRUE(waitFor([&] { return !controller.busy() && controller.result() != nullptr; }));
    const auto& pull = std::get<StraightPull>(scenes_[pass].motion);
    EXPECT_NEAR(numberIn(controller.readings(), ReadingId::WobbleFrequency).value_or(0.0), pull.wobble_Hz,
                0.15);
    EXPECT_NEAR(numberIn(controller.readings(), ReadingId::TravelSpeed).value_or(0.0), pull.speed_mm_s, 8.0);
  }

  std::vector<RehearsalScene> scenes_;
};

TEST_F(KeyboardDay, FromTheQuestionToTheReport) {
  for (unsigned seed : {1U, 2U}) {
    scenes_.push_back(test::smallPull(seed));
    std::get<StraightPull>(scenes_.back().motion).wobble_Hz = seed == 1 ? 5.0 : 6.5;
  }
  std::filesystem::create_directory(folder_ / "camera");
  openWindow();
  planTheDay();

  place(2);
  answering(folder_ / "camera", [this] { pressKey("watchFolder"); });
  EXPECT_TRUE(find<QLabel>("folderTrouble")->text().isEmpty())
      << find<QLabel>("folderTrouble")->text().toStdString();
  place(2);
  filmAtThePool(0);
  filmAtThePool(1);

  place(3);
  measure(0);
  measure(1);

  place(4);
  pressKey("pageSpread");
  ASSERT_TRUE(reach("readingChoice"));
  place(5);
  pressKey("verdictReport");
  ASSERT_TRUE(reach("conclusion"));
  write("Made by keys.");
  answering(folder_ / "page", [this] { pressKey("report-page"); });
  ASSERT_TRUE(waitFor([&] { return std::filesystem::exists(folder_ / "page" / "index.html"); }));
  EXPECT_GT(std::filesystem::file_size(folder_ / "page" / "index.html"), 10000U);
  const auto loop = Clip::open(folder_ / "page" / "clips" / "1.mp4");
  ASSERT_TRUE(loop) << loop.error().message;
  EXPECT_GT((*loop)->index().frameCount(), 100U) << "two seconds at a fifth of the speed";
  ASSERT_TRUE(Clip::open(folder_ / "page" / "clips" / "1.webm"));
}

}  // namespace
}  // namespace fin::app
