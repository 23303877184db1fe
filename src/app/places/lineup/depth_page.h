// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QWidget>

#include "app/controllers/line_up.h"

class QCustomPlot;

namespace fin::app {

/// How deep each rig ran at the speeds it was pulled at, or with the line that was out; between the pulls,
/// and nowhere else, a smooth curve.
class DepthPage : public QWidget {
  Q_OBJECT

 public:
  explicit DepthPage(LineUp& lineUp, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);

 private:
  void refresh();
  void draw(const DepthCurve& curve, const QColor& colour);
  [[nodiscard]] QString nameOf(const DepthCurve& curve) const;
  [[nodiscard]] DepthBy by() const { return static_cast<DepthBy>(by_->currentIndex()); }
  [[nodiscard]] ShownUnit unit() const;

  LineUp& lineUp_;
  UnitSystem units_ = UnitSystem::Metric;
  QComboBox* by_;
  QLabel* heading_;
  QLabel* words_;
  QCustomPlot* plot_;
};

}  // namespace fin::app
