// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QWidget>

#include "app/models/line_up.h"

class QCustomPlot;

namespace fin::app {

/// How deep each rig ran at the speeds it was pulled at; between them, and nowhere else, a smooth curve.
class DepthPage : public QWidget {
  Q_OBJECT

 public:
  explicit DepthPage(LineUp& lineUp, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);

 private:
  void refresh();
  void draw(const std::string& rig, const std::vector<DepthPoint>& points, const QColor& colour);

  LineUp& lineUp_;
  UnitSystem units_ = UnitSystem::Metric;
  QLabel* heading_;
  QLabel* words_;
  QCustomPlot* plot_;
};

}  // namespace fin::app
