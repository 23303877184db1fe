// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QCheckBox>
#include <QLabel>
#include <QPushButton>

#include "app/controllers/pass_controller.h"
#include "app/ui/unit_box.h"

namespace fin::app {

/// How the filming rate is found: as the camera wrote it, from two frames and a known time between them, or
/// from beats of the pacer; how long the camera reads a picture; and whether an interlaced clip is read field
/// by field.
class RateCard : public QWidget {
  Q_OBJECT

 public:
  explicit RateCard(PassController& controller, QWidget* parent = nullptr);

 signals:
  void stateChanged(const QString& text);

 private:
  void refresh();
  void takeRate(Seconds between);

  PassController& controller_;
  std::optional<std::size_t> from_;
  std::optional<std::size_t> to_;
  QPushButton* written_;
  QLabel* interval_;
  UnitBox* between_;
  UnitBox* beats_;
  UnitBox* perMinute_;
  UnitBox* rollingShutter_;
  QCheckBox* fields_;
};

}  // namespace fin::app
