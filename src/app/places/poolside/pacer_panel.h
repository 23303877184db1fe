// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QPushButton>
#include <QSpinBox>
#include <QWidget>

#include "app/look/unit_box.h"
#include "app/models/day_desk.h"
#include "app/models/pacer.h"
#include "app/places/poolside/beat_mark.h"

namespace fin::app {

/// The cadence by ear and eye; for a straight pull the handle's turns a minute.
class PacerPanel : public QWidget {
  Q_OBJECT

 public:
  explicit PacerPanel(DayDesk& desk, QWidget* parent = nullptr);
  void toggle();
  [[nodiscard]] Pacer& pacer() { return pacer_; }

 private:
  void refresh();

  DayDesk& desk_;
  Pacer pacer_;
  QLabel* turns_;
  BeatMark* mark_;
  QPushButton* run_;
  QLabel* silent_;
};

}  // namespace fin::app
