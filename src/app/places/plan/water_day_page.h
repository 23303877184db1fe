// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QSpinBox>

#include "app/controllers/water_controller.h"

namespace fin::app {

/// A day on the water before it begins: its name and water, how many rods, and how long they are patient.
class WaterDayPage : public QWidget {
  Q_OBJECT

 public:
  explicit WaterDayPage(WaterController& water, QWidget* parent = nullptr);

 private:
  void refresh();

  WaterController& water_;
  QSpinBox* rods_;
  QSpinBox* patience_;
  QSpinBox* block_;
};

}  // namespace fin::app
