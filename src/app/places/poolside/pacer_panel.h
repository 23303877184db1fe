// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QSpinBox>
#include <QWidget>

#include "app/controllers/day_controller.h"
#include "app/controllers/pacer.h"
#include "app/places/poolside/beat_mark.h"
#include "app/ui/unit_box.h"

namespace fin::app {

/// The cadence by ear and eye; for a straight pull the handle's turns a minute.
class PacerPanel : public QWidget {
  Q_OBJECT

 public:
  explicit PacerPanel(DayController& controller, QWidget* parent = nullptr);
  void toggle();
  [[nodiscard]] Pacer& pacer() { return pacer_; }

 private:
  void refresh();

  DayController& controller_;
  Pacer pacer_;
  QLabel* turns_;
  BeatMark* mark_;
  QPushButton* run_;
  QLabel* silent_;
};

}  // namespace fin::app
