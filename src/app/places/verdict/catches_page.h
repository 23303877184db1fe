// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QTableWidget>

#include "app/controllers/water_controller.h"

namespace fin::app {

/// What came of each rig over all days on the water: rates, two rigs held against each other, and whether the
/// tank was right.
class CatchesPage : public QWidget {
  Q_OBJECT

 public:
  explicit CatchesPage(WaterController& water, QWidget* parent = nullptr);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  void refresh();
  void fillRigs();
  void fillTank();
  void showPair();

  WaterController& water_;
  CatchReport report_;
  QLabel* headline_;
  QLabel* how_;
  QTableWidget* rigs_;
  QComboBox* first_;
  QComboBox* second_;
  QLabel* pair_;
  QListWidget* tank_;
};

}  // namespace fin::app
