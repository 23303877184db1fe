// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <optional>
#include <string_view>
#include <vector>

#include "app/controllers/day_controller.h"
#include "core/comparison/compared_passes.h"
#include "core/comparison/conditions.h"
#include "core/comparison/control_drift.h"
#include "core/comparison/score_table.h"
#include "core/records/day_readings.h"

namespace fin::app {

class PassController;

/// The passes of the chosen day, and of days beside it, whose readings are current, by rig. Fouled ones are
/// left out, and counted; outdated ones are left out, and named.
class LineUp : public QObject {
  Q_OBJECT

 public:
  /// All must outlive it.
  LineUp(const Log& log, const PassController& controller, const DayController& day,
         QObject* parent = nullptr);

  /// Reads the log again; costs little, but nothing has to be done while nobody looks.
  void refresh();

  [[nodiscard]] const DayController& day() const { return day_; }
  /// Days that are compared beside the chosen one.
  [[nodiscard]] const std::vector<DayId>& besides() const { return besides_; }
  void setBesides(std::vector<DayId> days);
  [[nodiscard]] const PassController& passController() const { return controller_; }
  [[nodiscard]] const std::vector<ComparedPass>& passes() const { return read_.current; }
  /// The rigs behind them, each as it is judged, in the order in which they were first read.
  [[nodiscard]] std::vector<Entry> entries() const;
  [[nodiscard]] std::size_t fouled() const { return read_.fouled; }
  /// Measured, but not as they stand: they are not compared.
  [[nodiscard]] const std::vector<OutdatedPass>& outdated() const { return read_.outdated; }
  /// What should have been equal between the passes with this reading and was not, in words.
  [[nodiscard]] QStringList differencesFor(ReadingId reading, std::optional<double> speed_mm_s = {}) const;
  /// How the control rig wandered in this reading.
  [[nodiscard]] Result<ControlDrift> driftOf(ReadingId reading) const;
  /// The rig of a pass, where the day's plan knows it.
  [[nodiscard]] const Rig* rigOf(const ComparedPass& pass) const;
  [[nodiscard]] QString heardBy(const std::vector<ComparedPass>& passes) const;

 signals:
  void changed();
  void told(const QString& message, bool trouble);

 private:
  [[nodiscard]] std::vector<PassConditions> conditions() const;
  [[nodiscard]] const PlannedPass* plannedFor(const ComparedPass& pass) const;

  const Log& log_;
  const PassController& controller_;
  const DayController& day_;
  FingerprintCache fingerprints_;
  std::vector<DayId> besides_;
  std::vector<DayPlan> plans_;  ///< of the chosen day and those beside it
  DayReadings read_;
};

}  // namespace fin::app
