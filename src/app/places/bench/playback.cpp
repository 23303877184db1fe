// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/playback.h"

namespace fin::app {

constexpr int kTick_ms = 15;

Playback::Playback(PassController& controller, QObject* parent) : QObject(parent), controller_(controller) {
  timer_.setInterval(kTick_ms);
  timer_.setTimerType(Qt::PreciseTimer);
  connect(&timer_, &QTimer::timeout, this, &Playback::tick);
  connect(&controller, &PassController::passChanged, this, &Playback::stop);
}

void Playback::restart(double share) {
  share_ = share;
  if (controller_.clock()) from_s_ = controller_.clock()->timeOf(controller_.frame()).value();
  wall_.restart();
}

void Playback::toggle() {
  if (running()) return stop();
  if (!controller_.clock()) return;
  if (controller_.frame() + 1 >= controller_.clip()->index().frameCount()) controller_.showFrame(0);
  restart(share_);
  timer_.start();
  emit runningChanged(true);
}

void Playback::stop() {
  if (!running()) return;
  timer_.stop();
  emit runningChanged(false);
}

void Playback::tick() {
  const double true_s = from_s_ + share_ * static_cast<double>(wall_.elapsed()) / 1000.0;
  const double container_s = true_s / controller_.clock()->factor();
  controller_.showFrame(controller_.clip()->index().frameShownAt(Seconds(container_s)));
  if (controller_.frame() + 1 >= controller_.clip()->index().frameCount()) stop();
}

}  // namespace fin::app
