// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/controllers/water_controller.h"
#include "app/places/log/row_table.h"

namespace fin::app {

/// The rules that a lure is chosen by, as data: written in place, added, taken out, or all as they were.
class RulesPage : public QWidget {
  Q_OBJECT

 public:
  explicit RulesPage(WaterController& water, QWidget* parent = nullptr);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  void refresh();
  void typed(int row, int column, const QString& text);

  WaterController& water_;
  RowTable* table_;
};

}  // namespace fin::app
