// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QElapsedTimer>
#include <QObject>
#include <QTimer>

#include "app/jobs/tick_sound.h"

namespace fin::app {

/// Keeps a cadence: tells every beat when it falls and sounds it where there is a sound device. Each beat is
/// aimed at by the clock from the start, so that no delay adds up.
class Pacer : public QObject {
  Q_OBJECT

 public:
  explicit Pacer(QObject* parent = nullptr);

  void start(const Cadence& cadence);
  void stop();
  [[nodiscard]] bool running() const { return running_; }
  [[nodiscard]] bool sounding() const { return sounding_; }
  [[nodiscard]] const Cadence& cadence() const { return cadence_; }
  [[nodiscard]] Seconds elapsed() const { return Seconds(static_cast<double>(clock_.nsecsElapsed()) * 1e-9); }

 signals:
  void beat(std::size_t number);
  void runningChanged(bool running);

 private:
  void aim();

  Cadence cadence_;
  QElapsedTimer clock_;
  QTimer timer_;
  TickSound sound_;
  std::size_t next_ = 0;
  bool running_ = false;
  bool sounding_ = false;
};

}  // namespace fin::app
