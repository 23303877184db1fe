// SPDX-License-Identifier: GPL-3.0-or-later
// A long clip in the window: how long it takes to open, the first time and after, and what memory it takes
// while it is scrubbed through and followed.
//   opening CLIP
#include <fmt/format.h>
#include <QApplication>
#include <QElapsedTimer>
#include <QTemporaryDir>
#include <QTest>
#include <fstream>
#include <random>
#include <string>

#include "app/main_window.h"

namespace {

/// Most memory held so far, MB.
double mostMemory() {
  std::ifstream status("/proc/self/status");
  for (std::string line; std::getline(status, line);) {
    if (line.rfind("VmHWM:", 0) == 0) return std::stod(line.substr(6)) / 1024.0;
  }
  return 0.0;
}

double secondsToOpen(fin::app::MainWindow& window) {
  QElapsedTimer timer;
  timer.start();
  (void)QTest::qWaitFor([&] { return window.bench().footage().hasPicture(); }, 600000);
  return static_cast<double>(timer.elapsed()) / 1000.0;
}

}  // namespace

int main(int argc, char** argv) {
  QApplication application(argc, argv);
  if (argc < 2) return 2;
  const QTemporaryDir folder;
  const auto window = [&] {
    auto log = *fin::Log::open(folder.filePath("day.finlog").toStdString());
    auto out =
        std::make_unique<fin::app::MainWindow>(std::move(log), folder.filePath("indexes").toStdString());
    out->show();
    return out;
  };
  auto first = window();
  const double bare = mostMemory();
  first->passController().openClip(argv[1]);
  const double firstTime = secondsToOpen(*first);
  first.reset();
  auto again = window();  // opens its pass by itself
  const double after = secondsToOpen(*again);
  fin::app::PassController& controller = again->passController();
  const std::size_t frames = controller.clip()->index().frameCount();
  std::mt19937 random(1);
  std::uniform_int_distribution<std::size_t> any(0, frames - 1);
  for (int i = 0; i < 60; ++i) {
    const std::size_t n = any(random);
    controller.showFrame(n);
    (void)QTest::qWaitFor([&] { return again->bench().footage().shownFrame() == n; }, 20000);
  }
  // Following has a decoder of its own.
  const auto& info = controller.clip()->info();
  controller.edit("marks", [&](fin::PassRequest& r) {
    r.firstFrame = frames / 2;
    r.lastFrame = std::min(frames - 1, frames / 2 + 150);
    r.marks = {{fin::MarkName::Nose, r.firstFrame, {0.5 * info.width_px, 0.5 * info.height_px}},
               {fin::MarkName::Tail, r.firstFrame, {0.45 * info.width_px, 0.5 * info.height_px}}};
  });
  (void)QTest::qWaitFor([&] { return !controller.busy(); }, 600000);
  fmt::print(
      "{} frames: first opening {:.2f} s, after that {:.2f} s; memory {:.0f} MB, of it the bare window "
      "{:.0f} MB\n",
      frames, firstTime, after, mostMemory(), bare);
  return 0;
}
