// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>

#include "app/commands/edits.h"
#include "core/records/log.h"

namespace fin::app {

/// The scores given by eye. A score is in the log as soon as it is given; forgetting those of a property can
/// be undone.
class EyeController : public QObject {
  Q_OBJECT

 public:
  /// Both must outlive the controller.
  EyeController(Log& log, Edits& edits, QObject* parent = nullptr);

  [[nodiscard]] std::vector<EyeScore> scores() const;
  [[nodiscard]] Result<void> add(const EyeScore& score);
  void forget(ReadingId property);

 signals:
  void changed();

 private:
  Log& log_;
  Edits& edits_;
};

}  // namespace fin::app
