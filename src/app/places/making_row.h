// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QProgressBar>
#include <QPushButton>

#include "app/controllers/making.h"

namespace fin::app {

/// How far something is made and how long it still takes, with a button that stops it; then how it went.
class MakingRow : public QWidget {
  Q_OBJECT

 public:
  /// `making` must outlive it. `said` and `stop` are the names of its label and button.
  MakingRow(Making& making, const char* said, const char* stop, QWidget* parent = nullptr);
  /// What else is to be said there.
  void say(const QString& message, bool trouble);

 private:
  void refresh();

  Making& making_;
  QProgressBar* progress_;
  QPushButton* stop_;
  QLabel* said_;
};

}  // namespace fin::app
