// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/ear_controller.h"

namespace fin::app {

EarController::EarController(Log& log, Edits& edits, QObject* parent)
    : QObject(parent), log_(log), edits_(edits) {}

double EarController::gain_dB(const std::string& camera) const {
  const auto gains = log_.cameraGains_dB();
  if (!gains) return 0.0;
  const auto found = gains->find(camera);
  return found == gains->end() ? 0.0 : found->second;
}

void EarController::setGain(const std::string& camera, double gain_dB) {
  const double before = this->gain_dB(camera);
  if (before == gain_dB) return;
  (void)edits_.perform(
      tr("Gain of a camera"), [=, this] { return write(camera, gain_dB); },
      [=, this] { return write(camera, before); });
}

Result<void> EarController::write(const std::string& camera, double gain_dB) {
  const auto done = log_.keepCameraGain(camera, gain_dB == 0.0 ? std::nullopt : std::optional(gain_dB));
  if (done) emit changed();
  return done;
}

}  // namespace fin::app
