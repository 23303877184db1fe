// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLineEdit>
#include <QListWidget>
#include <QScrollArea>

#include "app/models/day_desk.h"

namespace fin::app {

/// What is asked, and which passes answer it.
class QuestionPage : public QWidget {
  Q_OBJECT

 public:
  explicit QuestionPage(DayDesk& desk, QWidget* parent = nullptr);

 private:
  void refresh();
  void takeQuestions();

  DayDesk& desk_;
  QLineEdit* name_;
  QListWidget* asked_;
  QScrollArea* answers_;
};

}  // namespace fin::app
