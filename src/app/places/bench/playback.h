// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QElapsedTimer>
#include <QObject>
#include <QTimer>

#include "app/controllers/pass_controller.h"

namespace fin::app {

/// Runs the clip at a share of true speed: at a tenth, one true second takes ten.
class Playback : public QObject {
  Q_OBJECT

 public:
  explicit Playback(PassController& controller, QObject* parent = nullptr);
  void setSpeed(double share) { restart(share); }
  [[nodiscard]] bool running() const { return timer_.isActive(); }
  void toggle();
  void stop();

 signals:
  void runningChanged(bool running);

 private:
  void restart(double share);
  void tick();

  PassController& controller_;
  QTimer timer_;
  QElapsedTimer wall_;
  double share_ = 0.1;
  double from_s_ = 0.0;  ///< true time at which the wall clock was started
};

}  // namespace fin::app
