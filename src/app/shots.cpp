// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shots.h"

#include <QApplication>
#include <QPixmap>
#include <cstdio>

namespace fin::app {

constexpr int kTick_ms = 60;
constexpr int kQuietTicks = 6;

Shots::Shots(MainWindow& window, const QDir& folder, QObject* parent)
    : QObject(parent), window_(window), folder_(folder) {
  const auto bench = [this](std::size_t pass, double share) {
    window_.go(Place::Bench);
    PassDesk& desk = window_.desk();
    if (pass >= desk.passes().size()) return;
    desk.select(desk.passes()[pass].id);
    connect(&desk, &PassDesk::resultChanged, this, [&desk, share] {
      const PassResult* result = desk.result();
      if (result != nullptr && desk.frame() == result->track.firstFrame) {
        desk.showFrame(result->track.firstFrame +
                       static_cast<std::size_t>(share * static_cast<double>(result->track.frameCount)));
      }
    });
  };
  left_ = {{"bench-pull.png", [bench] { bench(1, 0.55); }}, {"bench-fall.png", [bench] { bench(3, 0.6); }}};
  connect(&timer_, &QTimer::timeout, this, [this] {
    quiet_ = settled() ? quiet_ + 1 : 0;
    if (quiet_ >= kQuietTicks) take();
  });
  timer_.start(kTick_ms);
  next();
}

bool Shots::settled() const {
  const FootageView& footage = window_.bench().footage();
  const bool shown =
      !window_.desk().clip() || (footage.hasPicture() && footage.shownFrame() == window_.desk().frame());
  return !window_.desk().busy() && shown;
}

void Shots::next() {
  if (left_.empty()) return QApplication::quit();
  quiet_ = 0;
  left_.front().prepare();
}

void Shots::take() {
  const QString file = folder_.filePath(left_.front().file);
  if (!window_.grab().save(file)) {
    std::fprintf(stderr, "agile-fin: %s cannot be written\n", qPrintable(file));
    return QApplication::exit(1);
  }
  left_.pop_front();
  next();
}

}  // namespace fin::app
