// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFrame>
#include <QLabel>

#include "app/controllers/day_controller.h"

namespace fin::app {

/// After a rig was changed that other days filmed: was that a slip, correct everywhere, or is it tied
/// otherwise from this day on? Everywhere, unless the person says otherwise.
class EditionBar : public QFrame {
  Q_OBJECT

 public:
  explicit EditionBar(DayController& days, QWidget* parent = nullptr);

 private:
  void ask(const Rig& was, const std::vector<DayId>& days);
  void fromToday();

  DayController& days_;
  QLabel* text_;
  Rig was_;
  std::vector<DayId> before_;
};

}  // namespace fin::app
