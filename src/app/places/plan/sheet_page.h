// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QSpinBox>
#include <QTableWidget>

#include "app/controllers/day_controller.h"

namespace fin::app {

/// The passes of the day in their order: made at random in blocks, changed by hand, printed for a clipboard.
class SheetPage : public QWidget {
  Q_OBJECT

 public:
  explicit SheetPage(DayController& controller, QWidget* parent = nullptr);

 private:
  QWidget* buildOptions();
  QWidget* buildButtons();
  void refresh();
  void takeSpeeds();
  void move(int by);
  void take(int row, int column);
  void printTo(const char* kind);

  DayController& controller_;
  QSpinBox* repeats_;
  QSpinBox* seed_;
  QLineEdit* speeds_;
  QLabel* speedsLabel_;
  QComboBox* control_;
  QSpinBox* controlEvery_;
  QCheckBox* blind_;
  QCheckBox* together_;
  QLabel* message_;
  QLabel* time_;
  QTableWidget* table_;
};

}  // namespace fin::app
