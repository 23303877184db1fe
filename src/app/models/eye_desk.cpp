// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/models/eye_desk.h"

#include <algorithm>

#include "app/commands/swap_command.h"

namespace fin::app {

EyeDesk::EyeDesk(Log& log, QUndoStack& undo, QObject* parent) : QObject(parent), log_(log), undo_(undo) {}

std::vector<EyeScore> EyeDesk::scores() const {
  return log_.eyeScores().value_or(std::vector<EyeScore>{});
}

Result<void> EyeDesk::add(const EyeScore& score) {
  return log_.addEyeScore(score);
}

void EyeDesk::forget(const std::string& property) {
  std::vector<EyeScore> before = scores();
  std::erase_if(before, [&](const EyeScore& s) { return s.property != property; });
  if (before.empty()) return;
  undo_.push(new SwapCommand(*this, tr("Forget scores by eye"), std::pair(property, std::move(before)),
                             std::pair(property, std::vector<EyeScore>{})));
}

void EyeDesk::apply(const std::pair<std::string, std::vector<EyeScore>>& scores) {
  Result<void> done = log_.forgetEyeScores(scores.first);
  for (const EyeScore& score : scores.second) {
    if (done) done = log_.addEyeScore(score);
  }
  if (!done) emit told(QString::fromStdString(done.error().message));
  emit changed();
}

}  // namespace fin::app
