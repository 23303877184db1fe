// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QButtonGroup>
#include <QStackedWidget>

#include "app/places/lineup/depth_page.h"
#include "app/places/lineup/ladder_page.h"
#include "app/places/lineup/spread_page.h"
#include "app/places/lineup/weight_page.h"

namespace fin::app {

/// Many passes beside each other: what differs, where each rig works, and what another weight would do.
class LineUpPlace : public QWidget {
  Q_OBJECT

 public:
  enum class Page { Spread, Ladder, Depth, Weight };

  LineUpPlace(const Log& log, const PassDesk& desk, const DayDesk& day, QWidget* parent = nullptr);
  void go(Page page);
  void setUnits(UnitSystem units);

 signals:
  void passWanted(RowId pass);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  LineUp lineUp_;
  QButtonGroup* tabs_;
  QStackedWidget* pages_;
  SpreadPage* spread_;
  LadderPage* ladder_;
  DepthPage* depth_;
  WeightPage* weight_;
};

}  // namespace fin::app
