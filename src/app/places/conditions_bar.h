// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>

#include "app/controllers/water_controller.h"

namespace fin::app {

/// On every page of a day on the water: what is known of it, in one line.
class ConditionsBar : public QLabel {
  Q_OBJECT

 public:
  explicit ConditionsBar(WaterController& water, QWidget* parent = nullptr);

 private:
  void refresh();

  WaterController& water_;
};

}  // namespace fin::app
