// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QTableWidget>

#include "app/controllers/day_controller.h"
#include "app/ui/unit_box.h"

namespace fin::app {

/// What must not differ between passes, where it did all the same, and the two fair comparisons of buoyant
/// plastics.
class EqualPage : public QWidget {
  Q_OBJECT

 public:
  explicit EqualPage(DayController& controller, QWidget* parent = nullptr);

 private:
  QWidget* buildHeads();
  void refresh();
  void take(int row, int column);
  void answer();

  DayController& controller_;
  QTableWidget* table_;
  UnitBox* measured_;
  UnitBox* wanted_;
  UnitBox* head_;
  UnitBox* rest_;
  UnitBox* material_;
  QLabel* answer_;
};

}  // namespace fin::app
