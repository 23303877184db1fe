// SPDX-License-Identifier: GPL-3.0-or-later
// Putting a long pass right: how long a step, a correction and an undo take in the window.
//   mending [FRAMES]
// Films hops of one lure, follows them all, and prints each time also as a share of following all.
#include <fmt/format.h>
#include <QApplication>
#include <QElapsedTimer>
#include <QTemporaryDir>
#include <QtTest/QTest>
#include <algorithm>
#include <string>
#include <vector>

#include "app/main_window.h"
#include "app/ui/theme.h"
#include "core/rehearsal/rehearse.h"

namespace {

constexpr int kPatience_ms = 200000;

fin::RehearsalScene hops(std::size_t frames) {
  fin::RehearsalScene scene;
  scene.camera.width_px = 640;
  scene.camera.height_px = 360;
  scene.camera.focal_px = 1500.0;
  scene.length = fin::Seconds(static_cast<double>(frames) / scene.rate.value());
  scene.ruler_mm = 300.0;
  scene.motion = fin::Hops{.count = static_cast<int>(scene.length.value() / 1.3),
                           .start_mm = 0.0,
                           .bottom_mm = -75.0,
                           .height_mm = 110.0,
                           .ahead_mm = 0.0};
  return scene;
}

/// Runs the window until what was asked for is followed, read and shown.
double settle_ms(fin::app::MainWindow& window) {
  QElapsedTimer timer;
  timer.start();
  const auto& controller = window.passController();
  (void)QTest::qWaitFor([&] { return !controller.busy() && controller.result() != nullptr; }, kPatience_ms);
  QApplication::processEvents();
  return static_cast<double>(timer.nsecsElapsed()) / 1e6;
}

}  // namespace

int main(int argc, char** argv) {
  setlinebuf(stdout);
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication application(argc, argv);
  fin::app::dress(application);
  const std::size_t frames = argc > 1 ? std::stoul(argv[1]) : 10000;
  const QTemporaryDir folder;
  const std::string clip = folder.filePath("hops.mp4").toStdString();
  const fin::RehearsalScene scene = hops(frames);
  auto log = fin::Log::open(folder.filePath("day.finlog").toStdString());
  if (!log || !fin::filmRehearsal(scene, clip)) return 1;

  fin::app::MainWindow window(std::move(*log));
  window.resize(1280, 800);
  window.show();
  window.activateWindow();
  if (!QTest::qWaitForWindowActive(&window)) return 1;
  auto& controller = window.passController();
  auto& footage = window.bench().footage();
  controller.openClip(QString::fromStdString(clip));
  if (!QTest::qWaitFor([&] { return controller.clip() && footage.hasPicture(); }, kPatience_ms)) return 1;
  const fin::RehearsalTank tank(scene);
  const fin::PassRequest known = fin::requestFor(tank, {});
  QElapsedTimer timer;
  timer.start();
  controller.edit("Say it all", [&](fin::PassRequest& r) {
    r.protocol = known.protocol;
    r.marks = known.marks;
    r.view = known.view;
    r.scale = known.scale;
    r.firstFrame = known.firstFrame;
    r.lastFrame = known.lastFrame;
  });
  const double asked_ms = static_cast<double>(timer.nsecsElapsed()) / 1e6;
  const double all_ms = asked_ms + settle_ms(window);
  fmt::print("{} frames followed and read: {:.0f} ms\n", controller.result()->track.frameCount, all_ms);
  const auto tell = [&](const char* what, double ms) {
    fmt::print("{}: {:.1f} ms, {:.4f} of that\n", what, ms, ms / all_ms);
  };

  const std::size_t middle = frames / 2;
  controller.showFrame(middle);
  (void)QTest::qWaitFor([&] { return footage.shownFrame() == middle; }, kPatience_ms);
  std::vector<double> steps;
  for (std::size_t n = 1; n <= 100; ++n) {
    timer.start();
    QTest::keyClick(&footage, Qt::Key_F);
    if (!QTest::qWaitFor([&] { return footage.shownFrame() == middle + n; }, 5000)) return 1;
    window.repaint();
    steps.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
  }
  std::sort(steps.begin(), steps.end());
  tell("one frame on, picture and traces shown (median of 100)", steps[50]);
  tell("the slowest of them", steps.back());

  timer.start();
  window.repaint();
  tell("painting the whole window", static_cast<double>(timer.nsecsElapsed()) / 1e6);

  const auto edit = [&](const char* what, const auto& change) {
    timer.start();
    controller.edit(what, change);
    const double held_ms = static_cast<double>(timer.nsecsElapsed()) / 1e6;
    tell(fmt::format("{}: the window is held", what).c_str(), held_ms);
    tell(fmt::format("{}: followed anew and read", what).c_str(), held_ms + settle_ms(window));
  };
  const fin::PixelPoint nose = tank.markAt(fin::MarkName::Nose, middle);
  edit("a mark corrected", [&](fin::PassRequest& r) {
    r.marks.push_back({fin::MarkName::Nose, middle, nose});
  });
  edit("a stretch fouled", [&](fin::PassRequest& r) { r.fouled.push_back({middle + 500, middle + 600}); });
  timer.start();
  QTest::keyClick(&window, Qt::Key_Z, Qt::ControlModifier);
  const double undone_ms = static_cast<double>(timer.nsecsElapsed()) / 1e6;
  tell("undone", undone_ms + settle_ms(window));
  return 0;
}
