// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <vector>

#include "app/controllers/measuring_queue.h"

namespace fin::app {

/// A reading of one pass before and after its size and time were changed.
struct ReadingChange {
  QString pass;
  ReadingId reading{};
  std::optional<Reading> before;  ///< none where it was refused
  std::optional<Reading> after;
};

/// Size and time as they are kept by camera and day. Keeping other ones changes all passes that stood on the
/// earlier ones and reads them anew; both are undone together.
class KeptCalibrations : public QObject {
  Q_OBJECT

 public:
  /// All must outlive this.
  KeptCalibrations(PassController& controller, Log& log, Edits& edits, MeasuringQueue& queue,
                   QObject* parent = nullptr);

  /// What is kept for the camera and day of the pass on the bench; null where nothing is.
  [[nodiscard]] const KeptCalibration* kept() const;
  /// The passes of this camera and day whose size and time are those kept.
  [[nodiscard]] std::vector<PassId> standingOnKept() const;
  /// Keeps those of the pass on the bench. Undoable.
  void keep();
  /// Gives the pass on the bench those that are kept. Undoable.
  void use();
  /// What the last keeping, or its undoing, did to the readings.
  [[nodiscard]] const std::vector<ReadingChange>& changes() const { return changes_; }
  [[nodiscard]] bool reading() const { return queue_.left() > 0; }

  /// Reads them from the log once more.
  void reload();

 signals:
  void changed();
  void told(const QString& message, bool trouble);

 private:
  /// What is kept for a camera and day, and the passes that stand on it, before and after.
  struct Change {
    std::string camera;
    std::string day;
    std::optional<KeptCalibration> before;
    std::optional<KeptCalibration> after;
    std::vector<PassChange> passes;
  };
  Result<void> write(const Change& change);
  void noteChanges(PassId pass, const ReadingSet& before, const ReadingSet& after);

  PassController& controller_;
  Log& log_;
  Edits& edits_;
  MeasuringQueue& queue_;
  std::vector<KeptCalibration> all_;
  std::vector<PassId> touched_;  ///< the passes that the last keeping changed
  std::vector<ReadingChange> changes_;
};

}  // namespace fin::app
