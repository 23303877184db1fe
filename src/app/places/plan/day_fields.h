// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLineEdit>

#include "app/controllers/day_controller.h"

namespace fin::app {

/// What every day has: its name, date, people and water.
class DayFields : public QWidget {
  Q_OBJECT

 public:
  explicit DayFields(DayController& controller, QWidget* parent = nullptr);

 private:
  void refresh();

  DayController& controller_;
  QLineEdit* name_;
  QLineEdit* date_;
  QLineEdit* people_;
  QComboBox* water_;
};

}  // namespace fin::app
