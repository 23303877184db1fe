// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QPushButton>
#include <QWidget>

#include "app/look/unit_box.h"
#include "app/models/pass_desk.h"

namespace fin::app {

/// A rectangle of known sides in the lure's plane, in place of a length: size, tilt and perspective at once.
class SquareCard : public QWidget {
  Q_OBJECT

 public:
  explicit SquareCard(PassDesk& desk, QWidget* parent = nullptr);
  /// Takes the four corners as pressed.
  void takeCorners(const std::vector<PixelPoint>& corners);

 signals:
  void cornersWanted();
  void stateChanged(const QString& text);

 private:
  void refresh();
  [[nodiscard]] QString stateText(const SquareMark& mark) const;

  PassDesk& desk_;
  UnitBox* width_;
  UnitBox* height_;
  QPushButton* away_;
};

}  // namespace fin::app
