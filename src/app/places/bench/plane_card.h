// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QWidget>

#include "app/controllers/pass_controller.h"
#include "app/ui/unit_box.h"

namespace fin::app {

/// Where the ruler hangs when it is not in the lure's plane, and what lies between it and the camera.
class PlaneCard : public QWidget {
  Q_OBJECT

 public:
  explicit PlaneCard(PassController& controller, QWidget* parent = nullptr);

 signals:
  void stateChanged(const QString& text);

 private:
  void take();
  void refresh();

  PassController& controller_;
  UnitBox* lureAir_;
  UnitBox* glass_;
  UnitBox* lureWater_;
  UnitBox* rulerWater_;
  UnitBox* rulerAir_;
  UnitBox* salt_;
  QLabel* window_;  ///< what a flat window does
};

}  // namespace fin::app
