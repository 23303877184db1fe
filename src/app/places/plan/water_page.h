// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QLineEdit>
#include <QWidget>

#include "app/controllers/day_controller.h"

namespace fin::app {

/// Pool or tank, and what follows: how heavy it is, and how much salt or fresh water brings it where it
/// should be.
class WaterPage : public QWidget {
  Q_OBJECT

 public:
  explicit WaterPage(DayController& controller, QWidget* parent = nullptr);

 private:
  void refresh();

  DayController& controller_;
  QLineEdit* name_;
  QLabel* weight_;
  QLabel* toDo_;
  QLabel* state_;
};

}  // namespace fin::app
