// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/models/ear_desk.h"

#include "app/commands/swap_command.h"

namespace fin::app {

EarDesk::EarDesk(Log& log, QUndoStack& undo, QObject* parent) : QObject(parent), log_(log), undo_(undo) {}

double EarDesk::gain_dB(const std::string& camera) const {
  const auto gains = log_.cameraGains_dB();
  if (!gains) return 0.0;
  const auto found = gains->find(camera);
  return found == gains->end() ? 0.0 : found->second;
}

void EarDesk::setGain(const std::string& camera, double gain_dB) {
  const double before = this->gain_dB(camera);
  if (before == gain_dB) return;
  undo_.push(
      new SwapCommand(*this, tr("Gain of a camera"), std::pair(camera, before), std::pair(camera, gain_dB)));
}

void EarDesk::apply(const std::pair<std::string, double>& gain) {
  const auto& [camera, dB] = gain;
  const auto kept = log_.keepCameraGain(camera, dB == 0.0 ? std::nullopt : std::optional(dB));
  if (!kept) emit told(QString::fromStdString(kept.error().message));
  emit changed();
}

}  // namespace fin::app
