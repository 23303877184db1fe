// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QTableWidget>

#include "app/controllers/water_controller.h"
#include "app/ui/unit_box.h"

namespace fin::app {

/// Which rigs go together on the rods, from fast down to slow; what was heard of bands; what a current does
/// to a lure; and the card for the pocket.
class SpeedsPage : public QWidget {
  Q_OBJECT

 public:
  explicit SpeedsPage(WaterController& water, QWidget* parent = nullptr);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  QWidget* buildHeard();
  QWidget* buildCurrent();
  void refresh();
  void showHeard();
  void answer();
  void printCard();
  [[nodiscard]] RigId chosen() const;

  WaterController& water_;
  QLabel* headline_;
  QLabel* tiers_;
  QTableWidget* rigs_;
  UnitBox* slowest_;
  UnitBox* fastest_;
  UnitBox* shallowest_;
  UnitBox* deepest_;
  class QLineEdit* from_;
  UnitBox* pull_;
  UnitBox* current_;
  UnitBox* angle_;
  QLabel* currentWords_;
  QLabel* printed_;
};

}  // namespace fin::app
