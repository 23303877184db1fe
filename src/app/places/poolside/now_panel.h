// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QStackedWidget>
#include <QWidget>

#include "app/controllers/day_controller.h"

namespace fin::app {

class UnitBox;

/// The pass to make now and the next one, in letters for two metres, with one key and one large button for
/// all that can become of it.
class NowPanel : public QWidget {
  Q_OBJECT

 public:
  explicit NowPanel(DayController& controller, QWidget* parent = nullptr);
  /// The number keys: 1 done, 2 fouled, 3 again, 4 skip, 5 note; while a reason is asked, 1 … 6 answer it.
  bool key(int number);

 signals:
  void planWanted();

 private:
  QWidget* buildButtons();
  QWidget* buildReasons();
  QWidget* buildNote();
  void sayWeather();
  void refresh();
  void foul(const QString& why);

  DayController& controller_;
  QLabel* count_;
  QLabel* rig_;
  QLabel* task_;
  QLabel* next_;
  QPushButton* plan_;  ///< where nothing is planned
  QStackedWidget* below_;
  std::vector<QPushButton*> buttons_;
  std::vector<QPushButton*> reasons_;
  QLineEdit* note_;
  UnitBox* lineOut_;
  QComboBox* light_;
  QComboBox* wind_;
  UnitBox* water_;
  UnitBox* salt_;
};

}  // namespace fin::app
