// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <filesystem>

#include "app/jobs/job.h"
#include "core/records/log_folder.h"
#include "core/records/log_merge.h"

namespace fin::app {

/// The log as a file: exported, merged with another, its moved clips found; and what two people changed in
/// two ways, to be decided on. The work runs in the background, one thing at a time.
class ThisLogPage : public QWidget {
  Q_OBJECT

 public:
  explicit ThisLogPage(const std::filesystem::path& log, QWidget* parent = nullptr);
  void exportTo(const QString& folder);
  void merge(const QString& other);
  void findClips(const QString& folder);
  [[nodiscard]] bool busy() const { return counting_.running() || merging_.running(); }

 signals:
  /// The log's file was changed beside the window.
  void logChanged();

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  void refresh();
  void decide(bool takeIt);
  void say(const QString& text, bool trouble);
  void count(const QString& doing, std::function<Result<LogCounts>()> work,
             std::function<QString(const LogCounts&)> tell);

  std::filesystem::path log_;
  QLabel* told_;
  QListWidget* versions_;
  QLabel* heading_;
  QPushButton* take_;
  QPushButton* keep_;
  std::vector<QPushButton*> acts_;
  std::vector<KeptVersion> kept_;
  Job<LogCounts> counting_;
  Job<MergeCounts> merging_;
};

}  // namespace fin::app
