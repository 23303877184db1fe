// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QMap>
#include <QObject>
#include <QSet>
#include <QTimer>
#include <filesystem>
#include <vector>

#include "app/jobs/job.h"
#include "core/footage/clip_fingerprint.h"

namespace fin::app {

/// A clip that has come into the watched folder and is whole.
struct ArrivedClip {
  QString file;
  ClipFingerprint print;
  double begun_s =
      0.0;  ///< wall clock when it was begun, seconds since 1970: when it was last written, less its length
  double length_s = 0.0;  ///< as it plays
};

/// Watches a folder for clips. A clip counts as whole when its size has stood still and it can be opened; one
/// that is still being written is waited for. Nothing is moved, renamed or written.
class FolderWatch : public QObject {
  Q_OBJECT

 public:
  explicit FolderWatch(QObject* parent = nullptr);
  /// An empty name stops watching.
  void setFolder(const QString& folder);
  /// Where indexes of clips looked through before are kept.
  void setIndexFolder(std::filesystem::path folder) { indexFolder_ = std::move(folder); }
  [[nodiscard]] const QString& folder() const { return folder_; }

 signals:
  void arrived(const ArrivedClip& clip);
  /// How many files are still being written.
  void waiting(int files);
  /// What is wrong with the folder or a file; empty when it is well again.
  void trouble(const QString& why);

 private:
  struct Look {
    bool there = false;
    std::vector<ArrivedClip> whole;
    std::vector<QString> unreadable;
    int unfinished = 0;
    QMap<QString, qint64> sizes;
  };
  void look();
  void take(Look look);

  QString folder_;
  std::filesystem::path indexFolder_;
  QTimer timer_;
  QSet<QString> known_;
  QMap<QString, qint64> sizes_;
  QMap<QString, int> stood_;       ///< looks since a file's size stood still
  QMap<QString, qint64> givenUp_;  ///< files that stood still at this size and are no clip; they may yet grow
  QString trouble_;
  Job<Look> looking_;
};

}  // namespace fin::app
