// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/lineup/line_up_place.h"

#include <QHBoxLayout>
#include <QShowEvent>
#include <QVBoxLayout>

#include "app/look/pieces.h"
#include "app/models/pass_desk.h"

namespace fin::app {

LineUpPlace::LineUpPlace(const Log& log, const PassDesk& desk, const DayDesk& day, QWidget* parent)
    : QWidget(parent),
      lineUp_(log, desk, day),
      tabs_(new QButtonGroup(this)),
      pages_(new QStackedWidget),
      spread_(new SpreadPage(lineUp_)),
      ladder_(new LadderPage(lineUp_)),
      depth_(new DepthPage(lineUp_)),
      weight_(new WeightPage(lineUp_)) {
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(16, 10, 16, 12);
  layout->setSpacing(10);
  auto* row = new QHBoxLayout;
  const std::pair<const char*, QString> tabs[] = {{"pageSpread", tr("Passes compared")},
                                                  {"pageLadder", tr("Ladder of speeds")},
                                                  {"pageDepth", tr("Depth against speed")},
                                                  {"pageWeight", tr("Another weight")}};
  for (int i = 0; i < static_cast<int>(std::size(tabs)); ++i) {
    auto* tab = namedButton(tabs[i].second, tabs[i].first);
    tab->setCheckable(true);
    tabs_->addButton(tab, i);
    row->addWidget(tab);
  }
  row->addStretch();
  layout->addLayout(row);
  pages_->addWidget(spread_);
  pages_->addWidget(ladder_);
  pages_->addWidget(depth_);
  pages_->addWidget(weight_);
  layout->addWidget(pages_, 1);
  connect(tabs_, &QButtonGroup::idClicked, this, [this](int id) { go(static_cast<Page>(id)); });
  connect(spread_, &SpreadPage::passWanted, this, &LineUpPlace::passWanted);
  const auto refreshWhenSeen = [this] {
    if (isVisible()) lineUp_.refresh();
  };
  connect(&desk, &PassDesk::resultChanged, this, refreshWhenSeen);
  connect(&desk, &PassDesk::passesChanged, this, refreshWhenSeen);
  connect(&day, &DayDesk::planChanged, this, refreshWhenSeen);
  go(Page::Spread);
}

void LineUpPlace::go(Page page) {
  pages_->setCurrentIndex(static_cast<int>(page));
  tabs_->button(static_cast<int>(page))->setChecked(true);
}

void LineUpPlace::setUnits(UnitSystem units) {
  spread_->setUnits(units);
  ladder_->setUnits(units);
  depth_->setUnits(units);
  weight_->setUnits(units);
}

void LineUpPlace::showEvent(QShowEvent* event) {
  lineUp_.refresh();
  QWidget::showEvent(event);
}

}  // namespace fin::app
