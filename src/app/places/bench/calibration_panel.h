// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QCheckBox>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>

#include "app/look/unit_box.h"
#include "app/models/pass_desk.h"

namespace fin::app {

/// More on size and time: how the filming rate is found, where the ruler hangs, plumb, waterline and bottom,
/// and a camera that moves.
class CalibrationPanel : public QScrollArea {
  Q_OBJECT

 public:
  enum class Line { Plumb, Waterline, Bottom };

  explicit CalibrationPanel(PassDesk& desk, QWidget* parent = nullptr);

 signals:
  void lineWanted(Line line);
  void done();

 private:
  QWidget* buildRate();
  QWidget* buildPlane();
  QWidget* buildLines();
  void refresh();
  void takeRate();
  void takePlane();
  void dropLine(Line line);

  PassDesk& desk_;
  std::optional<std::size_t> from_;
  std::optional<std::size_t> to_;
  QLabel* interval_;
  UnitBox* between_;
  QLabel* rate_;
  UnitBox* rulerAir_;
  UnitBox* rulerWater_;
  UnitBox* lureAir_;
  UnitBox* glass_;
  UnitBox* lureWater_;
  UnitBox* salt_;
  QLabel* plane_;
  std::vector<std::pair<QPushButton*, QPushButton*>> lines_;  ///< draw, take away
  QCheckBox* follow_;
};

/// The line of a request that a name stands for.
std::optional<PixelLine>& lineOf(PassRequest& request, CalibrationPanel::Line line);

}  // namespace fin::app
