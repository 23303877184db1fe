// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QWidget>

#include "app/controllers/pass_controller.h"
#include "app/ui/unit_box.h"

namespace fin::app {

/// The lure's own length as a ruler, from which side a camera that swims along sees it, and how it heads.
class SightCard : public QWidget {
  Q_OBJECT

 public:
  explicit SightCard(PassController& controller, QWidget* parent = nullptr);
  /// Takes the lure for the ruler, by the length it had in another pass of its rig, or no longer. False where
  /// its length is still to be typed.
  bool takeOrLeaveOwnLength();
  void beginTyping() { length_->setFocus(); }

 signals:
  void stateChanged(const QString& text);

 private:
  void refresh();
  void keepAngle();
  void keepLength();

  PassController& controller_;
  UnitBox* length_;
  UnitBox* unsure_;
  QLabel* sideLabel_;
  QComboBox* side_;
  UnitBox* angle_;
  UnitBox* angleUnsure_;
};

}  // namespace fin::app
