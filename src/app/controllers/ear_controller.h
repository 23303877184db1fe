// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>

#include "app/commands/edits.h"
#include "core/records/log.h"

namespace fin::app {

/// By how many dB the clips of each camera are heard louder. Kept in the log as soon as it is said; undoable.
/// No reading ever has it.
class EarController : public QObject {
  Q_OBJECT

 public:
  /// Both must outlive the controller.
  EarController(Log& log, Edits& edits, QObject* parent = nullptr);

  /// 0 where nothing was said.
  [[nodiscard]] double gain_dB(const std::string& camera) const;
  void setGain(const std::string& camera, double gain_dB);

 signals:
  void changed();

 private:
  Result<void> write(const std::string& camera, double gain_dB);

  Log& log_;
  Edits& edits_;
};

}  // namespace fin::app
