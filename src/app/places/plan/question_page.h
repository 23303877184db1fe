// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QListWidget>
#include <QScrollArea>

#include "app/controllers/day_controller.h"

namespace fin::app {

/// What is asked, and which passes answer it.
class QuestionPage : public QWidget {
  Q_OBJECT

 public:
  explicit QuestionPage(DayController& controller, QWidget* parent = nullptr);

 private:
  void refresh();
  void takeQuestions();

  DayController& controller_;
  QListWidget* asked_;
  QScrollArea* answers_;
};

}  // namespace fin::app
