// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFrame>

#include "app/controllers/line_up.h"

namespace fin::app {

/// Above the places that compare, while there is nothing to compare: what is missing, and the way to it.
class NothingYetBar : public QFrame {
  Q_OBJECT

 public:
  explicit NothingYetBar(LineUp& lineUp, QWidget* parent = nullptr);
  /// Whether a place is seen that would need it.
  void setWanted(bool wanted);

 signals:
  void measureWanted();
  void planWanted();

 private:
  void refresh();

  LineUp& lineUp_;
  bool wanted_ = false;
};

}  // namespace fin::app
