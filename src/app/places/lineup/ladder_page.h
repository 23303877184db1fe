// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QWidget>

#include "app/controllers/line_up.h"
#include "core/comparison/cadence.h"

class QCustomPlot;

namespace fin::app {

/// Pulls of one rig at several speeds: where its action begins, where it goes wrong, and what lies between.
/// The other rigs' ladders stand faintly behind it. Or its twitches at several intervals: when it keeps its
/// depth.
class LadderPage : public QWidget {
  Q_OBJECT

 public:
  explicit LadderPage(LineUp& lineUp, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);

 private:
  void refresh();
  void show();
  void draw(const SpeedLadder& ladder, const QColor& colour, bool chosen);
  void say(const SpeedLadder& ladder);
  void shade(const SpeedLadder& ladder);
  void showTwitches(const CadenceLadder& ladder);

  LineUp& lineUp_;
  UnitSystem units_ = UnitSystem::Metric;
  ByRig<LadderRung> ladders_;
  ByRig<CadenceRung> cadences_;
  QComboBox* rig_;
  QLabel* band_;
  QLabel* words_;
  QCustomPlot* plot_;
};

}  // namespace fin::app
