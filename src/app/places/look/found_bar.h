// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QFrame>
#include <QLabel>
#include <QPushButton>

#include "app/controllers/look_through.h"

namespace fin::app {

/// Above the places: clips that have no marks yet, how far measuring them by itself has come, and how many
/// passes wait for a look.
class FoundBar : public QFrame {
  Q_OBJECT

 public:
  /// Both must outlive it.
  FoundBar(LookThrough& look, MeasuringQueue& queue, QWidget* parent = nullptr);
  /// While the page itself is seen it says only how measuring goes.
  void setLooking(bool looking);

 signals:
  void lookWanted();

 private:
  void refresh();
  void begin();

  LookThrough& look_;
  MeasuringQueue& queue_;
  bool looking_ = false;
  QLabel* text_;
  QPushButton* begin_;
  QPushButton* stop_;
  QPushButton* through_;
};

}  // namespace fin::app
