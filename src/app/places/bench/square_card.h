// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QPushButton>
#include <QWidget>

#include "app/controllers/pass_controller.h"
#include "app/ui/unit_box.h"

namespace fin::app {

/// A rectangle of known sides in the lure's plane, in place of a length: size, tilt and perspective at once.
class SquareCard : public QWidget {
  Q_OBJECT

 public:
  explicit SquareCard(PassController& controller, QWidget* parent = nullptr);
  /// Takes the four corners as pressed.
  void takeCorners(const std::vector<PixelPoint>& corners);

 signals:
  void cornersWanted();
  void stateChanged(const QString& text);

 private:
  void refresh();
  [[nodiscard]] QString stateText(const SquareMark& mark) const;

  PassController& controller_;
  UnitBox* width_;
  UnitBox* height_;
  QPushButton* away_;
};

}  // namespace fin::app
