// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>
#include <set>
#include <vector>

#include "core/planning/day_plan.h"

namespace fin::app {

/// The days of a season on one line of time: a test day filled, a day on the water a ring with its fish, a
/// stroke where a rig was changed, the chosen one large. Pressed, or walked along with the arrow keys, a day
/// is chosen.
class SeasonLine : public QWidget {
  Q_OBJECT

 public:
  explicit SeasonLine(QWidget* parent = nullptr);
  /// `changed` are days from which on a rig was tied otherwise.
  void show(const std::vector<DayHead>& days, DayId chosen, std::set<DayId> changed = {});
  [[nodiscard]] QSize sizeHint() const override;

 signals:
  void dayWanted(DayId day);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;

 private:
  [[nodiscard]] double xOf(std::size_t day) const;
  [[nodiscard]] std::optional<std::size_t> dayAt(QPointF at) const;

  std::vector<DayHead> days_;  ///< that have a date, by date
  std::set<DayId> changed_;
  DayId chosen_;
  int from_ = 0;  ///< day numbers
  int to_ = 1;
};

}  // namespace fin::app
