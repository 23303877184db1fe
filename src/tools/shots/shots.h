// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QDir>
#include <QObject>
#include <QTimer>
#include <deque>
#include <functional>

#include "app/main_window.h"

namespace fin::app {

/// Goes through the main views and writes a PNG of each, and the sheets for clipboard and wall, then ends the
/// program.
class Shots : public QObject {
  Q_OBJECT

 public:
  Shots(MainWindow& window, const QDir& folder, QObject* parent = nullptr);

 private:
  struct Shot {
    QString file;
    std::function<void()> prepare;
  };
  void next();
  void press(const char* button);
  void take();

  MainWindow& window_;
  QDir folder_;
  std::deque<Shot> left_;
  QTimer timer_;
  std::function<void()> whenOpen_;
  int quiet_ = 0;  ///< ticks since the view last had something to do
};

}  // namespace fin::app
