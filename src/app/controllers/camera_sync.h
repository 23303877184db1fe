// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <vector>

#include "app/controllers/pass_controller.h"

namespace fin::app {

/// Several clips of one planned pass, from several cameras, brought onto one time: by an instant marked in
/// each, or by their sound.
class CameraSync : public QObject {
  Q_OBJECT

 public:
  /// It must outlive this.
  CameraSync(PassController& controller, QObject* parent = nullptr);

  /// The other clips of the planned pass on the bench.
  [[nodiscard]] std::vector<LoggedPass> partners() const;
  /// The frame that is shown is the shared instant of this clip. Undoable.
  void markHere();
  /// Finds the shared instant of the other clips by their sound. Where this clip has none yet, its first
  /// frame is taken. Undoable.
  void alignBySound();
  [[nodiscard]] bool aligning() const { return aligning_.running(); }
  /// When a partner shows what the bench shows; none while one of the two has no shared instant.
  [[nodiscard]] std::optional<Seconds> sameInstantIn(const LoggedPass& partner) const;
  void show(PassId partner);

 signals:
  void changed();
  void told(const QString& message, bool trouble);

 private:
  struct Heard {
    PassId id;
    QString title;
    Result<Seconds> instant;
  };
  void take(const std::vector<Heard>& heard, Seconds own);
  void mark(const QString& what, const std::vector<std::pair<PassId, Seconds>>& instants);

  PassController& controller_;
  Job<std::vector<Heard>> aligning_;
};

}  // namespace fin::app
