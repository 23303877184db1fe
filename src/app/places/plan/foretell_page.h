// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>

#include "app/controllers/log_book.h"
#include "app/ui/unit_box.h"

namespace fin::app {

/// What is expected before it is filmed, and afterwards what became of it.
class ForetellPage : public QWidget {
  Q_OBJECT

 public:
  explicit ForetellPage(LogBook& book, QWidget* parent = nullptr);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  QWidget* buildLine();
  QWidget* buildOrder();
  void refresh();
  void fillChoices();
  void fillSaid();
  void fillScore(const ForecastOutcome& outcome);
  void showUnit();
  void sayLine();
  void sayOrder();
  void shift(int by);
  void takeBack();
  [[nodiscard]] ReadingId reading(const QComboBox& box) const;
  [[nodiscard]] QString lineInWords(const ForetoldLine& line) const;
  [[nodiscard]] QString outcomeInWords(const ForetoldLine& line, const LineOutcome& outcome) const;

  LogBook& book_;
  QLabel* score_;
  QComboBox* rig_;
  QComboBox* reading_;
  QComboBox* side_;
  QDoubleSpinBox* line_;
  QLabel* unit_;
  QComboBox* sure_;
  QPushButton* sayLine_;
  QComboBox* orderOf_;
  QListWidget* order_;
  QPushButton* sayOrder_;
  QListWidget* said_;
  QPushButton* takeBack_;
  QLabel* eye_;
};

}  // namespace fin::app
