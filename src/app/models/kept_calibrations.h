// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <QUndoStack>
#include <vector>

#include "app/models/pass_desk.h"

namespace fin::app {

/// A reading of one pass before and after its size and time were changed.
struct ReadingChange {
  QString pass;
  std::string reading;
  std::optional<Reading> before;  ///< none where it was refused
  std::optional<Reading> after;
};

/// Size and time as they are kept by camera and day. Keeping other ones changes all passes that stood on the
/// earlier ones and reads them anew; both are undone together.
class KeptCalibrations : public QObject {
  Q_OBJECT

 public:
  /// All must outlive this.
  KeptCalibrations(PassDesk& desk, Log& log, QUndoStack& undo, QObject* parent = nullptr);

  /// What is kept for the camera and day of the pass on the bench; null where nothing is.
  [[nodiscard]] const KeptCalibration* kept() const;
  /// The passes of this camera and day whose size and time are those kept.
  [[nodiscard]] std::vector<RowId> standingOnKept() const;
  /// Keeps those of the pass on the bench. Undoable.
  void keep();
  /// Gives the pass on the bench those that are kept. Undoable.
  void use();
  /// What the last keeping, or its undoing, did to the readings.
  [[nodiscard]] const std::vector<ReadingChange>& changes() const { return changes_; }
  [[nodiscard]] bool reading() const { return reading_.running(); }

  struct State {
    std::string camera;
    std::string day;
    std::optional<KeptCalibration> kept;
    std::vector<std::pair<RowId, PassRequest>> requests;
  };
  // For the undo command.
  void apply(const State& state);

 signals:
  void changed();
  void told(const QString& message, bool trouble);

 private:
  struct Task {
    RowId id;
    QString title;
    PassRequest request;
    Track track;
    ReadingSet before;
  };
  struct Read {
    Task task;
    Result<PassResult> result;
  };
  void reload();
  void readAnew(const std::vector<std::pair<RowId, PassRequest>>& requests);
  void take(std::vector<Read> read);

  PassDesk& desk_;
  Log& log_;
  QUndoStack& undo_;
  std::vector<KeptCalibration> all_;
  std::vector<ReadingChange> changes_;
  Background<std::vector<Read>> reading_;
};

}  // namespace fin::app
