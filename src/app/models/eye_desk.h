// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <QUndoStack>

#include "core/records/log.h"

namespace fin::app {

/// The scores given by eye. A score is in the log as soon as it is given; forgetting those of a property can
/// be undone.
class EyeDesk : public QObject {
  Q_OBJECT

 public:
  /// Both must outlive the desk.
  EyeDesk(Log& log, QUndoStack& undo, QObject* parent = nullptr);

  [[nodiscard]] std::vector<EyeScore> scores() const;
  [[nodiscard]] Result<void> add(const EyeScore& score);
  void forget(const std::string& property);

  /// For the undo command: these and no others are the scores of their property.
  void apply(const std::pair<std::string, std::vector<EyeScore>>& scores);

 signals:
  void changed();
  void told(const QString& message);

 private:
  Log& log_;
  QUndoStack& undo_;
};

}  // namespace fin::app
