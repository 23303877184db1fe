// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFrame>
#include <set>

#include "app/controllers/line_up.h"
#include "app/controllers/measuring_queue.h"

class QLabel;
class QPushButton;

namespace fin::app {

/// Names the passes that are not compared because what was measured is not of the pass as it stands, and has
/// them measured. Hidden where there are none.
class OutdatedBar : public QFrame {
  Q_OBJECT

 public:
  /// Both must outlive it.
  OutdatedBar(LineUp& lineUp, MeasuringQueue& queue, QWidget* parent = nullptr);

  /// Only some places compare.
  void setWanted(bool wanted);

 private:
  void refresh();
  void measureThem();
  void readAnew();

  LineUp& lineUp_;
  MeasuringQueue& queue_;
  QLabel* text_;
  QPushButton* measure_;
  QPushButton* stop_;
  bool wanted_ = false;
  std::set<PassId> tried_;  ///< read anew unasked
};

}  // namespace fin::app
