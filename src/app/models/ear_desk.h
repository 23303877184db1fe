// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <QUndoStack>

#include "core/records/log.h"

namespace fin::app {

/// By how many dB the clips of each camera are heard louder. Kept in the log as soon as it is said; undoable.
/// No reading ever has it.
class EarDesk : public QObject {
  Q_OBJECT

 public:
  /// Both must outlive the desk.
  EarDesk(Log& log, QUndoStack& undo, QObject* parent = nullptr);

  /// 0 where nothing was said.
  [[nodiscard]] double gain_dB(const std::string& camera) const;
  void setGain(const std::string& camera, double gain_dB);

  /// For the undo command.
  void apply(const std::pair<std::string, double>& gain);

 signals:
  void changed();
  void told(const QString& message);

 private:
  Log& log_;
  QUndoStack& undo_;
};

}  // namespace fin::app
