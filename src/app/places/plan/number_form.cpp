// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/places/plan/number_form.h"

#include <QLabel>

namespace fin::app {

void addNumbers(QGridLayout& grid, DayController& controller, const std::vector<NumberLine>& lines,
                QWidget& owner) {
  for (const NumberLine& line : lines) {
    const int row = grid.rowCount();
    auto* box = new UnitBox(line.label, line.unit, line.range);
    box->setObjectName(line.name);
    box->setPrefix(line.before);
    auto* label = new QLabel(line.label);
    label->setBuddy(box);
    grid.addWidget(label, row, 0);
    grid.addWidget(box, row, 1);
    const auto show = [box, line, &controller] { box->show(line.get(controller.plan())); };
    QObject::connect(&controller, &DayController::planChanged, box, show);
    QObject::connect(box, &UnitBox::edited, &owner, [line, &controller](double metric) {
      controller.edit(line.label, [&](DayPlan& plan) { line.set(plan, metric); });
    });
    show();
  }
}

}  // namespace fin::app
