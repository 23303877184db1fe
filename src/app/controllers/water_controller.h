// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <functional>
#include <map>

#include "app/controllers/day_controller.h"
#include "core/records/water_season.h"

namespace fin::app {

/// A day on the water: what is noted, what happens, and what a log knows that helps there. Every key is an
/// edit of the day, undoable, and in the log at once.
class WaterController : public QObject {
  Q_OBJECT

 public:
  /// Both must outlive it. `now_s` gives seconds since 1970; the wall clock where none is given.
  WaterController(const Log& log, DayController& days, std::function<double()> now_s = {},
                  QObject* parent = nullptr);

  [[nodiscard]] DayController& days() const { return days_; }
  [[nodiscard]] const DayPlan& plan() const { return days_.plan(); }
  [[nodiscard]] bool onTheWater() const { return plan().kind == DayKind::Water; }
  [[nodiscard]] double now() const { return now_s_(); }
  void setClock(std::function<double()> now_s) { now_s_ = std::move(now_s); }
  /// The moment that the chosen day is looked at.
  [[nodiscard]] double lookedAt() const { return lookedAt_s(plan(), now()); }

  /// All that the log knows of the water; gathered when it is asked for after something changed.
  [[nodiscard]] const WaterSeason& season() const;
  [[nodiscard]] WaterNow water() const { return {plan().conditions, lookedAt()}; }
  /// The chosen day as it stands now.
  [[nodiscard]] RunningDay run() const { return runOf(plan().events, plan().waterDay.rods, lookedAt()); }
  [[nodiscard]] TieOn tieOn() const { return tieOnFor(season(), plan(), now()); }
  [[nodiscard]] const std::vector<TieCandidate>& candidates() const;
  [[nodiscard]] QString rigName(RigId rig) const;

  /// Notes a condition from now on; one of the same kind within a minute is written over.
  void note(const ConditionLine& line);
  void takeBackNote(std::size_t line);
  void setSchool(SchoolSide one, SchoolSide other, SchoolSide chosen);
  void editRules(const QString& what, const std::function<void(std::vector<TieRule>&)>& change);

  // The running page. A rod is counted from 1.
  void tie(int rod, RigId rig);
  /// Puts a rod to work or takes it out of the water.
  void toggleRod(int rod);
  /// A fish, miss, follow, foul or a lost lure.
  void came(int rod, RunEventKind kind, RigId of = {});
  /// Says more of the last fish.
  void detail(const std::function<void(RunEvent&)>& say);
  void takeTier(int tier);
  /// Time of which nobody noted anything: whether the rods were at work.
  void gap(double from_s, double to_s, bool fished);
  void beginBlock();

  /// What was measured has changed: it is gathered anew when it is next asked for.
  void readAnew();

 signals:
  void changed();

 private:
  void planChanged();
  void add(const QString& what, RunEvent event);
  [[nodiscard]] std::optional<double> speedFor(RigId rig) const;
  [[nodiscard]] int blockNow() const;

  const Log& log_;
  DayController& days_;
  std::function<double()> now_s_;
  mutable FingerprintCache fingerprints_;
  mutable std::optional<WaterSeason> season_;
  mutable std::optional<std::vector<TieCandidate>> candidates_;
};

}  // namespace fin::app
