// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <optional>
#include <string_view>
#include <vector>

#include "app/models/day_desk.h"
#include "core/comparison/compared_passes.h"
#include "core/comparison/control_drift.h"
#include "core/comparison/score_table.h"

namespace fin::app {

class PassDesk;

/// The passes of the log that were read, by rig. Fouled ones are left out, and counted.
class LineUp : public QObject {
  Q_OBJECT

 public:
  /// All must outlive it.
  LineUp(const Log& log, const PassDesk& desk, const DayDesk& day, QObject* parent = nullptr);

  /// Reads the log again; costs little, but nothing has to be done while nobody looks.
  void refresh();

  [[nodiscard]] const DayDesk& day() const { return day_; }
  [[nodiscard]] const PassDesk& desk() const { return desk_; }
  /// Freed of the day's drift where that is wanted.
  [[nodiscard]] const std::vector<ComparedPass>& passes() const { return passes_; }
  /// The rigs behind them, each as it is judged, in the order in which they were first read.
  [[nodiscard]] std::vector<Entry> entries() const;
  [[nodiscard]] std::size_t fouled() const { return fouled_; }
  /// What should have been equal between the passes with this reading and was not, in words.
  [[nodiscard]] QStringList differencesFor(std::string_view reading,
                                           std::optional<double> speed_mm_s = {}) const;
  /// How the control rig wandered in this reading, whether it is corrected for or not.
  [[nodiscard]] Result<ControlDrift> driftOf(std::string_view reading) const;
  [[nodiscard]] bool driftCorrected() const { return driftCorrected_; }
  void correctDrift(bool on);
  /// The rig of a pass, where the day's plan knows it.
  [[nodiscard]] const Rig* rigOf(const ComparedPass& pass) const;
  [[nodiscard]] QString heardBy(const std::vector<ComparedPass>& passes) const;

 signals:
  void changed();
  void driftCorrectionWanted(bool on);

 private:
  void takeOutDrift();

  const Log& log_;
  const PassDesk& desk_;
  const DayDesk& day_;
  std::vector<ComparedPass> read_;  ///< as they were read
  std::vector<ComparedPass> passes_;
  std::size_t fouled_ = 0;
  bool driftCorrected_ = false;
};

}  // namespace fin::app
