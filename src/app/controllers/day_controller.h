// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <functional>

#include "app/commands/edits.h"
#include "app/phrases/words.h"
#include "core/records/log.h"

namespace fin::app {

/// The days of a log, and the plan of the one that is chosen: what Plan makes and Poolside works through.
/// Every edit goes through the undo stack and is in the log before it is shown; undoing one of another day
/// shows that day.
class DayController : public QObject {
  Q_OBJECT

 public:
  /// Both must outlive the controller.
  DayController(Log& log, Edits& edits, QObject* parent = nullptr);

  [[nodiscard]] const DayPlan& plan() const { return plan_; }
  /// By date; one at least.
  [[nodiscard]] const std::vector<DayHead>& days() const { return days_; }
  /// "2 May, Pool"; what is not said is left out.
  [[nodiscard]] QString dayName(DayId day) const;
  void choose(DayId day);
  /// A new day, chosen at once: water, cameras, questions and what is held equal as on the one before.
  void beginDay(DayKind kind, const QString& date);
  /// The chosen day's passes once more on a new day, of which one thing is different. Undoable.
  void beginRetest(const QString& date, const QString& change);
  /// Takes the chosen day out of sight with all that is its own. Undoable.
  void hideDay();
  /// Brings what happened on another day on the water to the chosen one, with its clock time. Undoable.
  void takeEvents(DayId from, const std::vector<EventId>& events);
  /// Changes the plan. Undoable; nothing happens when nothing changes.
  void edit(const QString& what, const std::function<void(DayPlan&)>& change);

  /// The pass to make now; null when the day is done or not planned.
  [[nodiscard]] const PlannedPass* now() const;
  [[nodiscard]] const PlannedPass* after() const;
  [[nodiscard]] const PlannedPass* planned(PlannedPassId id) const;
  /// What is told of a pass: its rig, or its letter on a blind day.
  [[nodiscard]] QString titleOf(const PlannedPass& pass) const;
  void setUnits(UnitSystem units);
  [[nodiscard]] UnitSystem units() const { return units_; }
  /// "Fall, from the side, 300 mm/s"
  [[nodiscard]] QString taskOf(const PlannedPass& pass) const;

  void finishNow(PassState state, const QString& whyFouled = {});
  /// Puts the pass that was made last on the sheet once more, to be made next.
  void makeLastAgain();
  void noteNow(const QString& note);
  /// How much line is out, from this pass on; nought for not said.
  void sayLineOut(double line_mm);
  /// Light, wind, the water's temperature and salt, from this pass on; empty or none for not said.
  struct Weather {
    QString light;
    QString wind;
    std::optional<double> water_C;
    std::optional<double> salinity_g_kg;
  };
  void sayWeather(const Weather& weather);
  /// Makes the sheet from rack, questions and options, anew. BadRequest where they make none.
  Result<void> makeSheet();

  /// Reads the plan from the log once more.
  void reload();
  /// A number for a new row that no other has.
  [[nodiscard]] std::int64_t freeId() const;

 signals:
  void planChanged();
  void dayChosen();
  /// What happened on a day that is not the chosen one was changed.
  void otherDayChanged();
  /// A person changed how a rig is tied that these other days filmed.
  void rigChanged(const Rig& was, const std::vector<DayId>& days);
  void told(const QString& message, bool trouble);

 private:
  Result<void> write(const DayPlan& before, const DayPlan& after);
  void readDays();
  void tellChangedRigs(const Rack& before);
  void read(DayId day);
  void begin(const QString& what, DayPlan fresh);
  /// Says something of every pass that is still to be made.
  void fromNowOn(const QString& what, const std::function<void(PlannedPass&)>& say);

  Log& log_;
  Edits& edits_;
  DayPlan plan_;
  std::vector<DayHead> days_;
  UnitSystem units_ = UnitSystem::Metric;
};

}  // namespace fin::app
