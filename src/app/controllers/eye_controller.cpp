// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/eye_controller.h"

#include <algorithm>

namespace fin::app {

EyeController::EyeController(Log& log, Edits& edits, QObject* parent)
    : QObject(parent), log_(log), edits_(edits) {}

std::vector<EyeScore> EyeController::scores() const {
  return log_.eyeScores().value_or(std::vector<EyeScore>{});
}

Result<void> EyeController::add(const EyeScore& score) {
  return log_.addEyeScores({score});
}

void EyeController::forget(ReadingId property) {
  std::vector<EyeScore> before = scores();
  std::erase_if(before, [&](const EyeScore& s) { return s.property != property; });
  if (before.empty()) return;
  const auto shown = [this](Result<void> done) {
    if (done) emit changed();
    return done;
  };
  (void)edits_.perform(
      tr("Forget scores by eye"), [=, this] { return shown(log_.forgetEyeScores(property)); },
      [=, this] { return shown(log_.addEyeScores(before)); });
}

}  // namespace fin::app
