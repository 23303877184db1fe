// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/bench/playback.h"

namespace fin::app {

constexpr int kTick_ms = 15;

Playback::Playback(PassDesk& desk, QObject* parent) : QObject(parent), desk_(desk) {
  timer_.setInterval(kTick_ms);
  timer_.setTimerType(Qt::PreciseTimer);
  connect(&timer_, &QTimer::timeout, this, &Playback::tick);
  connect(&desk, &PassDesk::passChanged, this, &Playback::stop);
}

void Playback::restart(double share) {
  share_ = share;
  if (desk_.clock()) from_s_ = desk_.clock()->timeOf(desk_.frame()).value();
  wall_.restart();
}

void Playback::toggle() {
  if (running()) return stop();
  if (!desk_.clock()) return;
  if (desk_.frame() + 1 >= desk_.clip()->index().frameCount()) desk_.showFrame(0);
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
  const double container_s = true_s / desk_.clock()->factor();
  desk_.showFrame(desk_.clip()->index().frameShownAt(Seconds(container_s)));
  if (desk_.frame() + 1 >= desk_.clip()->index().frameCount()) stop();
}

}  // namespace fin::app
