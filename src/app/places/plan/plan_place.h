// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QStackedWidget>
#include <QWidget>
#include <vector>

#include "app/controllers/log_book.h"
#include "app/controllers/water_controller.h"

class QPushButton;

namespace fin::app {

class RackPage;

/// The day before it begins, step by step: of a test day from the question to the pass sheet, of a day on the
/// water from the conditions to what to tie on.
class PlanPlace : public QWidget {
  Q_OBJECT

 public:
  enum class Page {
    Question,
    Rack,
    Water,
    Cameras,
    Equal,
    Sheet,
    Foretell,
    WaterDay,
    Conditions,
    TieOn,
    Opinions,
    Speeds
  };

  PlanPlace(LogBook& book, WaterController& water, QWidget* parent = nullptr);
  void go(Page page);
  /// Of the page that is seen.
  [[nodiscard]] const QString& pageTitle() const {
    return titles_[static_cast<std::size_t>(pages_->currentIndex())];
  }
  [[nodiscard]] RackPage& rack() { return *rack_; }

 private:
  void showSteps();

  WaterController& water_;
  QStackedWidget* pages_;
  std::vector<QPushButton*> steps_;
  std::vector<QString> titles_;  ///< of every page, as far as it was shown
  RackPage* rack_;
};

}  // namespace fin::app
