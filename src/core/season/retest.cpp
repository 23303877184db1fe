// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/retest.h"

namespace fin {

void clearWhatHappened(DayPlan& day) {
  day.sheet.clear();
  day.events.clear();
  day.conditions.clear();
  day.foretold = {};
  day.photos.clear();
}

DayPlan retestOf(const DayPlan& day, std::int64_t id, const std::string& date, const std::string& change) {
  DayPlan out = day;
  out.id = id;
  out.date = date;
  out.name = day.name.empty() ? change : day.name + ", again: " + change;
  for (HeldEqual& held : out.heldEqual) held.exception.clear();
  out.heldEqual.push_back({"Changed on purpose", change, ""});
  clearWhatHappened(out);
  for (const PlannedPass& pass : day.sheet) {
    if (pass.attempt > 1) continue;
    PlannedPass again{.id = ++id, .rig = pass.rig, .protocol = pass.protocol, .view = pass.view};
    again.speed_mm_s = pass.speed_mm_s;
    again.block = pass.block;
    again.control = pass.control;
    again.label = pass.label;
    again.lineOut_mm = pass.lineOut_mm;
    out.sheet.push_back(std::move(again));
  }
  return out;
}

}  // namespace fin
