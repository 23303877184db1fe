// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <vector>

#include "app/controllers/day_controller.h"
#include "app/controllers/pass_controller.h"
#include "app/jobs/folder_watch.h"

namespace fin::app {

/// Clips that have come in and wait for their pass. Each is offered the pass that was being made when it was
/// begun.
class IncomingClips : public QObject {
  Q_OBJECT

 public:
  IncomingClips(DayController& day, PassController& passes, QObject* parent = nullptr);

  struct Waiting {
    ArrivedClip clip;
    std::optional<PlannedPassId> offered;  ///< a planned pass
    QString sameAs;                        ///< the pass in the log that has this very clip already
  };
  [[nodiscard]] const std::vector<Waiting>& waiting() const { return waiting_; }
  [[nodiscard]] FolderWatch& watch() { return watch_; }

  /// Takes a waiting clip into the log for a planned pass (or none). The file stays where it is.
  void take(const QString& file, std::optional<PlannedPassId> planned, const QString& camera);
  /// Takes every waiting clip in that is offered a pass of its own and is not in the log already.
  void takeOffered(const QString& camera);
  [[nodiscard]] std::vector<QString> offered() const;
  /// Leaves a waiting clip out until the folder is watched anew.
  void leave(const QString& file);

 signals:
  void changed();

 private:
  void arrived(const ArrivedClip& clip);
  [[nodiscard]] bool inTheLog(const QString& file) const;

  DayController& day_;
  PassController& passes_;
  FolderWatch watch_;
  std::vector<Waiting> waiting_;
};

}  // namespace fin::app
