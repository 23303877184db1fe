// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QListWidget>
#include <QWidget>

#include "app/controllers/verdict_controller.h"
#include "app/ui/unit_box.h"
#include "core/comparison/speed_sets.h"

class QButtonGroup;
class QCustomPlot;

namespace fin::app {

/// Which rigs can be pulled at one speed: their bands on a scale, sets, pairs for two rods, and an order for
/// a day of fishing.
class TogetherPage : public QWidget {
  Q_OBJECT

 public:
  explicit TogetherPage(VerdictController& controller, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);

 private:
  QWidget* buildBelow();
  void refresh();
  void draw(const std::vector<SpeedBand>& bands);
  void listSets(const std::vector<SpeedBand>& bands);
  void listOrder(const std::vector<SpeedBand>& bands);

  VerdictController& controller_;
  UnitSystem units_ = UnitSystem::Metric;
  QLabel* heading_;
  QCustomPlot* plot_;
  QLabel* words_;
  QListWidget* sets_;
  QListWidget* pairs_;
  QListWidget* order_;
  QButtonGroup* school_;
  UnitBox* prey_;
};

}  // namespace fin::app
