// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/pacer.h"

#include <algorithm>
#include <cmath>

namespace fin::app {

Pacer::Pacer(QObject* parent) : QObject(parent) {
  timer_.setTimerType(Qt::PreciseTimer);
  timer_.setSingleShot(true);
  connect(&timer_, &QTimer::timeout, this, [this] {
    emit beat(next_);
    ++next_;
    aim();
  });
}

void Pacer::start(const Cadence& cadence) {
  if (!cadence.validate()) return;
  cadence_ = cadence;
  next_ = 0;
  running_ = true;
  sounding_ = sound_.begin(cadence);
  clock_.start();
  aim();
  emit runningChanged(true);
}

void Pacer::stop() {
  if (!running_) return;
  running_ = false;
  timer_.stop();
  sound_.end();
  emit runningChanged(false);
}

void Pacer::aim() {
  // A window that was held up goes on with the beat that is due, not with all it missed.
  next_ = std::max(next_, cadence_.beatFrom(elapsed()));
  const double wait_s = (cadence_.beat(next_) - elapsed()).value();
  timer_.start(std::max(static_cast<int>(std::lround(1000.0 * wait_s)), 0));
}

}  // namespace fin::app
