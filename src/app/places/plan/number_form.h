// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QGridLayout>
#include <functional>
#include <vector>

#include "app/look/unit_box.h"
#include "app/models/day_desk.h"

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

/// Adds lines (label left, box right) that follow the plan and edit it.
void addNumbers(QGridLayout& grid, DayDesk& desk, const std::vector<NumberLine>& lines, QWidget& owner);

}  // namespace fin::app
