// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/jobs/folder_watch.h"

#include <QDateTime>
#include <QDir>
#include <QFileInfo>

#include "core/footage/clip.h"

namespace fin::app {
namespace {

constexpr int kLook_ms = 500;
constexpr int kStoodForWhole = 1;       ///< looks
constexpr int kStoodForUnreadable = 8;  ///< a file that stands still so long and cannot be opened is no clip

const QStringList& endings() {
  static const QStringList all{"*.mp4", "*.mov", "*.mkv", "*.avi", "*.m4v", "*.ts", "*.mts", "*.webm"};
  return all;
}

}  // namespace

FolderWatch::FolderWatch(QObject* parent) : QObject(parent) {
  timer_.setInterval(kLook_ms);
  connect(&timer_, &QTimer::timeout, this, &FolderWatch::look);
}

void FolderWatch::setFolder(const QString& folder) {
  if (folder == folder_) return;
  looking_.stop();
  folder_ = folder;
  known_.clear();
  sizes_.clear();
  stood_.clear();
  givenUp_.clear();
  trouble_.clear();
  emit trouble({});
  emit waiting(0);
  if (folder.isEmpty()) {
    timer_.stop();
  } else {
    timer_.start();
    look();
  }
}

void FolderWatch::look() {
  if (looking_.running()) return;
  looking_.start(
      [folder = folder_, indexFolder = indexFolder_, known = known_, sizes = sizes_, stood = stood_,
       givenUp = givenUp_](const JobControl& job) -> Result<Look> {
        Look out;
        const QDir dir(folder);
        out.there = dir.exists() && QFileInfo(folder).isReadable();
        for (const QFileInfo& file : dir.entryInfoList(endings(), QDir::Files, QDir::Time)) {
          const QString path = file.absoluteFilePath();
          if (known.contains(path) || file.fileName().contains(".part.") || job.cancelled()) continue;
          out.sizes[path] = file.size();
          if (givenUp.value(path, -1) == file.size()) continue;
          const bool still = sizes.value(path, -1) == file.size() && file.size() > 0;
          if (!still || stood.value(path) < kStoodForWhole) {
            ++out.unfinished;
            continue;
          }
          const auto clip = Clip::open(path.toStdString(), {indexFolder, {job.stop, {}}});
          if (clip) {
            const ClipIndex& index = (*clip)->index();
            const double length = index.timeOf(index.frameCount() - 1).value();
            const double written = static_cast<double>(file.lastModified().toMSecsSinceEpoch()) / 1000.0;
            out.whole.push_back({path, (*clip)->info().fingerprint, written - length, length});
          } else if (stood.value(path) >= kStoodForUnreadable) {
            out.unreadable.push_back(path);
          } else {
            ++out.unfinished;
          }
        }
        return out;
      },
      [this](Result<Look> look) {
        if (look) take(std::move(*look));
      });
}

void FolderWatch::take(Look look) {
  for (const QString& file : look.unreadable) givenUp_[file] = look.sizes.value(file);
  QString why;
  if (!look.there)
    why = tr("%1 is not there or cannot be read. Clips come in again when it is back.").arg(folder_);
  for (auto at = look.sizes.begin(); at != look.sizes.end(); ++at) {
    stood_[at.key()] = sizes_.value(at.key(), -1) == at.value() ? stood_.value(at.key()) + 1 : 0;
    if (givenUp_.value(at.key(), -1) == at.value()) {
      why = tr("%1 is no longer being written, but is not a clip that can be read.")
                .arg(QFileInfo(at.key()).fileName());
    }
  }
  sizes_ = look.sizes;
  if (why != trouble_) {
    trouble_ = why;
    emit trouble(why);
  }
  emit waiting(look.unfinished);
  for (const ArrivedClip& clip : look.whole) {
    known_.insert(clip.file);
    emit arrived(clip);
  }
}

}  // namespace fin::app
