// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QGridLayout>
#include <functional>
#include <vector>

#include "app/controllers/day_controller.h"
#include "app/ui/unit_box.h"

namespace fin::app {

/// One number of the plan with its line in a form.
struct NumberLine {
  QString label;
  const char* name;  ///< of the box, for tests and for assistive tools
  const char* unit;
  UnitBox::Range range;
  std::function<double(const DayPlan&)> get;
  std::function<void(DayPlan&, double)> set;
  QString before = {};  ///< stands before the number, as in "1/500 s"
};

/// A line for a plain number in one part of the plan.
template <class Part>
NumberLine numberLine(const QString& label, const char* name, const char* unit, UnitBox::Range range,
                      Part DayPlan::*part, double Part::*member) {
  return {label,
          name,
          unit,
          range,
          [part, member](const DayPlan& p) { return p.*part.*member; },
          [part, member](DayPlan& p, double v) { p.*part.*member = v; }};
}

/// Adds lines (label left, box right) that follow the plan and edit it.
void addNumbers(QGridLayout& grid, DayController& controller, const std::vector<NumberLine>& lines,
                QWidget& owner);

}  // namespace fin::app
