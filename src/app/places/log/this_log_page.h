// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <filesystem>

#include "app/jobs/job.h"
#include "app/places/log/taken_out_list.h"
#include "core/records/kept_versions.h"
#include "core/records/log_folder.h"
#include "core/records/log_merge.h"

namespace fin::app {

/// The log as a file: exported, merged with another, its moved clips found; what two people changed in two
/// ways, to be decided on; and what was taken out, to be brought back. The work runs in the background, one
/// thing at a time.
class ThisLogPage : public QWidget {
  Q_OBJECT

 public:
  explicit ThisLogPage(const std::filesystem::path& log, QWidget* parent = nullptr);
  void exportTo(const QString& folder);
  void importFrom(const QString& folder, const QString& file);
  void copyThin(const QString& file);
  void merge(const QString& other);
  void findClips(const QString& folder);
  [[nodiscard]] bool busy() const { return counting_.running() || merging_.running(); }

 signals:
  /// The log's file was changed beside the window.
  void logChanged();
  /// Another log was made, and is to be looked at.
  void openWanted(const QString& file);

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
  TakenOutList* takenOut_;
  QLineEdit* editor_;
  std::vector<QPushButton*> acts_;
  std::vector<KeptVersion> kept_;
  Job<LogCounts> counting_;
  Job<MergeCounts> merging_;
};

}  // namespace fin::app
