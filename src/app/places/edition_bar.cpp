// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/edition_bar.h"

#include <QHBoxLayout>

#include "app/ui/pieces.h"

namespace fin::app {

EditionBar::EditionBar(DayController& days, QWidget* parent)
    : QFrame(parent), days_(days), text_(new WholeLabel) {
  setObjectName("editionBar");
  setProperty("card", true);
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(12, 6, 8, 6);
  text_->setObjectName("editionText");
  row->addWidget(text_, 1);
  auto* slip = namedButton(tr("A slip: correct everywhere"), "editionSlip");
  auto* from = namedButton(tr("Changed from this day on"), "editionFrom");
  row->addWidget(slip);
  row->addWidget(from);
  hide();
  connect(slip, &QPushButton::clicked, this, &QWidget::hide);
  connect(from, &QPushButton::clicked, this, &EditionBar::fromToday);
  connect(&days, &DayController::rigChanged, this, &EditionBar::ask);
  connect(&days, &DayController::dayChosen, this, &QWidget::hide);
}

void EditionBar::ask(const Rig& was, const std::vector<DayId>& days) {
  // Several fields of one rig may be typed one after the other: what it was before the first counts.
  if (!isVisible() || was_.id != was.id) was_ = was;
  before_ = days;
  text_->setText(tr("%1 was filmed on %2 as it was before.")
                     .arg(QString::fromStdString(days_.plan().rack.fullName(was_)),
                          counted(days.size(), tr("other day"), tr("other days"))));
  show();
}

void EditionBar::fromToday() {
  hide();
  const EditionId id = days_.freeId();
  days_.edit(tr("Tied otherwise from this day on"),
             [&](DayPlan& plan) { plan.rack.editions.push_back({.id = id, .was = was_, .days = before_}); });
}

}  // namespace fin::app
