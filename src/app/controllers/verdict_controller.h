// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <functional>

#include "app/commands/edits.h"
#include "app/controllers/line_up.h"
#include "app/controllers/rankings.h"
#include "core/comparison/ranking.h"

namespace fin::app {

/// What the day is decided by. Every edit goes through the undo stack and is in the log before it is shown.
class VerdictController : public QObject {
  Q_OBJECT

 public:
  /// All must outlive the controller.
  VerdictController(Log& log, LineUp& lineUp, Edits& edits, QObject* parent = nullptr);

  [[nodiscard]] const LineUp& lineUp() const { return lineUp_; }
  [[nodiscard]] Rankings& rankings() const { return *rankings_; }
  [[nodiscard]] const VerdictPlan& plan() const { return plan_; }
  /// As said, or as the day's readings propose where nothing was said yet.
  [[nodiscard]] std::vector<Wish> wishes() const;
  /// The day's rigs by these wishes.
  [[nodiscard]] ScoreTable tableBy(std::vector<Wish> wishes) const;

  /// Changes the plan. Undoable; nothing happens when nothing changes.
  void edit(const QString& what, const std::function<void(VerdictPlan&)>& change);
  /// Reads it from the log once more.
  void reload();

 signals:
  /// The plan, or the readings behind it.
  void changed();
  void told(const QString& message, bool trouble);

 private:
  [[nodiscard]] DayId day() const;
  Result<void> write(DayId of, const VerdictPlan& before, const VerdictPlan& after);

  Log& log_;
  LineUp& lineUp_;
  Rankings* rankings_;
  Edits& edits_;
  VerdictPlan plan_;
  /// What tables were made of; several pages ask for the same ones, and with many rigs they take their time.
  struct KnownTable {
    std::vector<Wish> wishes;
    std::vector<Entry> entries;
    Judgements judgements;
    ScoreTable table;
  };
  mutable std::vector<KnownTable> tables_;  ///< of the passes as they are
};

}  // namespace fin::app
