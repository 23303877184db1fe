// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/nothing_yet_bar.h"

#include <QHBoxLayout>

#include "app/ui/pieces.h"

namespace fin::app {

NothingYetBar::NothingYetBar(LineUp& lineUp, QWidget* parent) : QFrame(parent), lineUp_(lineUp) {
  setObjectName("nothingYet");
  setProperty("card", true);
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(12, 6, 8, 6);
  row->addWidget(new WholeLabel(tr("No pass is measured yet, so there is nothing to compare.")), 1);
  auto* measure = namedButton(tr("Measure a clip"), "measureFirst");
  measure->setProperty("primary", true);
  auto* plan = namedButton(tr("Plan a day"), "planFirst");
  row->addWidget(measure);
  row->addWidget(plan);
  hide();
  connect(measure, &QPushButton::clicked, this, &NothingYetBar::measureWanted);
  connect(plan, &QPushButton::clicked, this, &NothingYetBar::planWanted);
  connect(&lineUp, &LineUp::changed, this, &NothingYetBar::refresh);
}

void NothingYetBar::setWanted(bool wanted) {
  wanted_ = wanted;
  refresh();
}

void NothingYetBar::refresh() {
  setVisible(wanted_ && lineUp_.passes().empty());
}

}  // namespace fin::app
