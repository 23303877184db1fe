// SPDX-License-Identifier: GPL-3.0-or-later
// How passes run side by side: in_step_bench DAY.finlog [PASSES [SLOWNESS]]
// Prints the time that was asked for and the time it took, and how many frames were left out (of the finest
// clip's).
#include <QApplication>
#include <QComboBox>
#include <QElapsedTimer>
#include <QtTest/QTest>
#include <cstdio>

#include "app/main_window.h"
#include "app/ui/theme.h"

namespace {

constexpr double kRun_s = 1.0;  ///< true time

}  // namespace

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication application(argc, argv);
  fin::app::dress(application);
  auto log = argc > 1 ? fin::Log::open(argv[1]) : fin::Result<std::unique_ptr<fin::Log>>(nullptr);
  if (!log || *log == nullptr) {
    std::fprintf(stderr, "in_step_bench DAY.finlog [PASSES [SLOWNESS]]\n");
    return 2;
  }
  const std::size_t count = argc > 2 ? std::stoul(argv[2]) : 6;
  const double slower = argc > 3 ? std::stod(argv[3]) : 10.0;
  fin::app::MainWindow window(std::move(*log));
  window.show();
  window.go(fin::app::Place::LineUp);
  window.lineUp().go(fin::app::LineUpPlace::Page::InStep);
  std::vector<fin::PassId> wanted;
  for (const auto& pass : window.passController().passes()) {
    if (wanted.size() < count) wanted.push_back(pass.id);
  }
  window.lineUp().studied().want(wanted);
  fin::app::InStepPage& page = window.lineUp().inStep();
  if (!QTest::qWaitFor([&] { return page.settled() && page.panes().size() == wanted.size(); }, 60000))
    return 1;
  auto* slowness = page.findChild<QComboBox*>("slowness");
  slowness->setCurrentIndex(slowness->findData(1.0 / slower));
  page.goTo(0.1);
  if (!QTest::qWaitFor([&] { return page.settled(); }, 60000)) return 1;
  std::vector<std::size_t> before;
  for (const auto* pane : page.panes()) before.push_back(pane->shownFrames().size());
  const double from = page.time_s();
  QElapsedTimer wall;
  wall.start();
  page.toggle();
  if (!QTest::qWaitFor([&] { return page.time_s() >= from + kRun_s; }, 300000)) return 1;
  const double took_s = static_cast<double>(wall.elapsed()) / 1000.0;
  page.toggle();
  std::size_t leftOut = 0;
  std::size_t shown = 0;
  const auto panes = page.panes();
  for (std::size_t i = 0; i < panes.size(); ++i) {
    const auto& frames = panes[i]->shownFrames();
    for (std::size_t k = std::max<std::size_t>(before[i], 1); k < frames.size(); ++k) {
      ++shown;
      leftOut += frames[k] - frames[k - 1] - 1;
    }
  }
  std::printf(
      "%zu passes at 1/%.0f: asked %.2f s, took %.2f s (%.2f times); %zu frames shown, %zu left out\n",
      panes.size(), slower, kRun_s * slower, took_s, took_s / (kRun_s * slower), shown, leftOut);
  return 0;
}
