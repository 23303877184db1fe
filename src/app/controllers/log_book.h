// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>

#include "app/controllers/day_controller.h"
#include "app/controllers/pass_controller.h"
#include "core/records/day_readings.h"
#include "core/season/finding_words.h"
#include "core/season/forecast.h"
#include "core/season/rig_history.h"
#include "core/season/water_shift.h"

namespace fin::app {

/// What a log holds over all its days, to be found again: names, and how readings went.
class LogBook : public QObject {
  Q_OBJECT

 public:
  /// All must outlive it.
  LogBook(const Log& log, DayController& days, const PassController& passes, QObject* parent = nullptr);

  [[nodiscard]] DayController& days() const { return days_; }
  [[nodiscard]] const PassController& passes() const { return passes_; }
  /// Everything that has a name: models, rigs, days (the newest first), waters, passes.
  [[nodiscard]] const std::vector<Findable>& findables() const { return findables_; }
  /// Of a model's rigs, over all days that filmed one of them, and of those days' plans.
  struct ModelRecord {
    std::vector<RigHistory> histories;
    std::vector<WaterPlan> waters;       ///< of those days
    std::map<DayId, WaterPlan> waterOf;  ///< likewise
    std::vector<ComparedPass> passes;
  };
  [[nodiscard]] ModelRecord recordOf(ModelId model);
  /// How a day was planned; an empty one, and told, where it cannot be read.
  [[nodiscard]] DayPlan planOf(DayId day);
  /// By how much a rig's fall shifts between two days by its weight in water alone; none where that is not
  /// known.
  [[nodiscard]] std::optional<WaterShift> fallShift(const ModelRecord& record, const RigHistory& history,
                                                    DayId from, DayId to) const;
  /// What became of what was foretold of a day.
  [[nodiscard]] ForecastOutcome forecastOf(const DayPlan& day);
  /// What the eye above the water got wrong, over all days of the log.
  [[nodiscard]] std::vector<EyeAbove> eyeAbove();

  /// Gathers the names anew.
  void refresh();

 signals:
  void changed();
  void told(const QString& message, bool trouble);

 private:
  const Log& log_;
  DayController& days_;
  const PassController& passes_;
  FingerprintCache fingerprints_;
  std::vector<Findable> findables_;
};

}  // namespace fin::app
