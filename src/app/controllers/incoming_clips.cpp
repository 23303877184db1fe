// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/incoming_clips.h"

#include <QFileInfo>
#include <algorithm>

namespace fin::app {

IncomingClips::IncomingClips(DayController& day, PassController& passes, QObject* parent)
    : QObject(parent), day_(day), passes_(passes) {
  connect(&watch_, &FolderWatch::arrived, this, &IncomingClips::arrived);
  const auto follow = [this] {
    const QString folder = QString::fromStdString(day_.plan().watchedFolder);
    if (folder == watch_.folder()) return;
    waiting_.clear();
    watch_.setFolder(folder);
    emit changed();
  };
  connect(&day, &DayController::planChanged, this, follow);
  // What was taken in, or taken out again by undo, is no longer waiting, or waits again.
  connect(&passes, &PassController::passesChanged, this, [this] {
    std::erase_if(waiting_, [this](const Waiting& w) { return inTheLog(w.clip.file); });
    emit changed();
  });
  follow();
}

bool IncomingClips::inTheLog(const QString& file) const {
  const auto& all = passes_.passes();
  return std::any_of(all.begin(), all.end(), [&](const LoggedPass& p) {
    return QFileInfo(QString::fromStdString(p.request.clip.string())) == QFileInfo(file);
  });
}

void IncomingClips::arrived(const ArrivedClip& clip) {
  if (inTheLog(clip.file)) return;
  Waiting waiting{clip, std::nullopt, {}};
  for (const LoggedPass& p : passes_.passes()) {
    if (p.clip == clip.print) waiting.sameAs = QString::fromStdString(p.title);
  }
  for (const Waiting& w : waiting_) {
    if (w.clip.print == clip.print) waiting.sameAs = QFileInfo(w.clip.file).fileName();
  }
  const auto guess = passForClip(day_.plan().sheet, clip.begun_s);
  if (guess) waiting.offered = day_.plan().sheet[*guess].id;
  waiting_.push_back(std::move(waiting));
  std::stable_sort(waiting_.begin(), waiting_.end(),
                   [](const Waiting& a, const Waiting& b) { return a.clip.begun_s < b.clip.begun_s; });
  emit changed();
}

void IncomingClips::take(const QString& file, std::optional<PlannedPassId> planned, const QString& camera) {
  PassController::Intake intake{
      .title = QFileInfo(file).completeBaseName(), .planned = planned, .camera = camera.toStdString()};
  if (const PlannedPass* pass = planned ? day_.planned(*planned) : nullptr) {
    intake.title = QString("%1: %2").arg(day_.titleOf(*pass), day_.taskOf(*pass));
    intake.protocol = pass->protocol;
    intake.view = pass->view;
    intake.rigName = day_.titleOf(*pass).toStdString();
  }
  passes_.takeIn(file, intake);
}

std::vector<QString> IncomingClips::offered() const {
  std::vector<QString> out;
  for (const Waiting& w : waiting_) {
    const bool shared = std::any_of(waiting_.begin(), waiting_.end(), [&](const Waiting& other) {
      return &other != &w && other.offered == w.offered;
    });
    if (w.offered && w.sameAs.isEmpty() && !shared) out.push_back(w.clip.file);
  }
  return out;
}

void IncomingClips::takeOffered(const QString& camera) {
  for (const QString& file : offered()) {
    const auto waiting =
        std::find_if(waiting_.begin(), waiting_.end(), [&](const Waiting& w) { return w.clip.file == file; });
    take(file, waiting->offered, camera);
  }
}

void IncomingClips::leave(const QString& file) {
  std::erase_if(waiting_, [&](const Waiting& w) { return w.clip.file == file; });
  emit changed();
}

}  // namespace fin::app
