// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QWidget>

#include "app/look/unit_box.h"
#include "app/models/pass_desk.h"

namespace fin::app {

/// Where the ruler hangs when it is not in the lure's plane, and what lies between it and the camera.
class PlaneCard : public QWidget {
  Q_OBJECT

 public:
  explicit PlaneCard(PassDesk& desk, QWidget* parent = nullptr);

 signals:
  void stateChanged(const QString& text);

 private:
  void take();
  void refresh();

  PassDesk& desk_;
  UnitBox* lureAir_;
  UnitBox* glass_;
  UnitBox* lureWater_;
  UnitBox* rulerWater_;
  UnitBox* rulerAir_;
  UnitBox* salt_;
  QLabel* window_;  ///< what a flat window does
};

}  // namespace fin::app
