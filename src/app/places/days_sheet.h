// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFrame>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>

#include "app/controllers/line_up.h"
#include "app/controllers/pass_controller.h"

namespace fin::app {

/// The days of the log: one is chosen, others are ticked to be compared beside it; a new one is begun, or the
/// chosen one tested again; the pass on the bench is moved to another.
class DaysSheet : public QFrame {
  Q_OBJECT

 public:
  DaysSheet(DayController& days, PassController& passes, LineUp& lineUp, QWidget* parent = nullptr);
  [[nodiscard]] QListWidget& list() { return *list_; }

 signals:
  /// A day was chosen or begun.
  void done();

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  QWidget* buildNew();
  void refresh();
  void tick();
  void showUsable();
  /// What was typed, if it is a date; says so if not.
  [[nodiscard]] std::optional<QString> date();
  [[nodiscard]] DayId marked() const;
  void choose();

  DayController& days_;
  PassController& passes_;
  LineUp& lineUp_;
  QListWidget* list_;
  QLineEdit* date_;
  QLineEdit* change_;
  QLabel* trouble_;
  QPushButton* again_;
  QPushButton* move_;
  QPushButton* hide_;
};

}  // namespace fin::app
