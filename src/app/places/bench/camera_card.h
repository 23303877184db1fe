// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QPushButton>

#include "app/controllers/kept_calibrations.h"
#include "app/phrases/words.h"

namespace fin::app {

/// Which camera took the clip, what size and time are kept for it today, and what changing them did.
class CameraCard : public QWidget {
  Q_OBJECT

 public:
  CameraCard(PassController& controller, KeptCalibrations& kept, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);

 signals:
  void stateChanged(const QString& text);

 private:
  void refresh();
  [[nodiscard]] QString changesText() const;

  PassController& controller_;
  KeptCalibrations& kept_;
  UnitSystem units_ = UnitSystem::Metric;
  QComboBox* camera_;
  QPushButton* keep_;
  QPushButton* use_;
  QLabel* changes_;
};

}  // namespace fin::app
