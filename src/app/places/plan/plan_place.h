// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QStackedWidget>
#include <QWidget>
#include <vector>

#include "app/controllers/log_book.h"

class QPushButton;

namespace fin::app {

class RackPage;

/// The day before the water: from the question to the pass sheet, step by step.
class PlanPlace : public QWidget {
  Q_OBJECT

 public:
  enum class Page { Question, Rack, Water, Cameras, Equal, Sheet, Foretell };

  explicit PlanPlace(LogBook& book, QWidget* parent = nullptr);
  void go(Page page);
  [[nodiscard]] RackPage& rack() { return *rack_; }

 private:
  QStackedWidget* pages_;
  std::vector<QPushButton*> steps_;
  RackPage* rack_;
};

}  // namespace fin::app
