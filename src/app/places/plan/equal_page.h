// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QTableWidget>

#include "app/look/unit_box.h"
#include "app/models/day_desk.h"

namespace fin::app {

/// What must not differ between passes, where it did all the same, and the two fair comparisons of buoyant
/// plastics.
class EqualPage : public QWidget {
  Q_OBJECT

 public:
  explicit EqualPage(DayDesk& desk, QWidget* parent = nullptr);

 private:
  QWidget* buildHeads();
  void refresh();
  void take(int row, int column);
  void answer();

  DayDesk& desk_;
  QTableWidget* table_;
  UnitBox* measured_;
  UnitBox* wanted_;
  UnitBox* head_;
  UnitBox* rest_;
  UnitBox* material_;
  QLabel* answer_;
};

}  // namespace fin::app
