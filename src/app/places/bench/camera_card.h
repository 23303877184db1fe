// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QPushButton>

#include "app/look/words.h"
#include "app/models/kept_calibrations.h"

namespace fin::app {

/// Which camera took the clip, what size and time are kept for it today, and what changing them did.
class CameraCard : public QWidget {
  Q_OBJECT

 public:
  CameraCard(PassDesk& desk, KeptCalibrations& kept, QWidget* parent = nullptr);
  void setUnits(UnitSystem units);

 signals:
  void stateChanged(const QString& text);

 private:
  void refresh();
  [[nodiscard]] QString changesText() const;

  PassDesk& desk_;
  KeptCalibrations& kept_;
  UnitSystem units_ = UnitSystem::Metric;
  QComboBox* camera_;
  QPushButton* keep_;
  QPushButton* use_;
  QLabel* changes_;
};

}  // namespace fin::app
