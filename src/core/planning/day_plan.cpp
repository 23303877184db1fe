// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/day_plan.h"

#include <iterator>

#include <algorithm>
#include <array>

#include "core/planning/questions.h"
#include "core/units/date.h"
#include "core/units/names.h"

namespace fin {
namespace {

constexpr double kFileTimeLag_s = 0.05;
constexpr std::array<std::string_view, 2> kDayKinds{"test", "water"};

}  // namespace

std::vector<HeldEqual> usualHeldEqual() {
  return {{"Rod", "", ""},     {"Line and strength", "", ""}, {"Hook or head", "", ""}, {"Water", "", ""},
          {"Cadence", "", ""}, {"Camera distance", "", ""},   {"Operator", "", ""}};
}

std::string_view toString(DayKind kind) {
  return kDayKinds[static_cast<std::size_t>(kind)];
}
std::optional<DayKind> dayKindNamed(std::string_view text) {
  return enumNamed<DayKind>(kDayKinds, text);
}

std::string dateOf(const DayPlan& plan) {
  if (!plan.date.empty()) return plan.date;
  double first = 0.0;
  for (const PlannedPass& pass : plan.sheet) {
    if (pass.finished_s > 0.0 && (first == 0.0 || pass.finished_s < first)) first = pass.finished_s;
  }
  return first > 0.0 ? dateAt(first) : std::string();
}

std::vector<DayId> changedFrom(const std::vector<DayHead>& days, const Rack& rack) {
  std::vector<DayId> out;
  for (const Edition& edition : rack.editions) {
    const auto last = std::find_if(days.rbegin(), days.rend(), [&edition](const DayHead& day) {
      return std::find(edition.days.begin(), edition.days.end(), day.id) != edition.days.end();
    });
    if (last == days.rend() || last == days.rbegin()) continue;
    const DayId from = std::prev(last)->id;
    if (std::find(out.begin(), out.end(), from) == out.end()) out.push_back(from);
  }
  return out;
}

WaterPlan waterAsFilmed(const DayPlan& plan) {
  WaterPlan out = plan.water;
  for (const PlannedPass& pass : plan.sheet) {
    if (pass.state != PassState::Done) continue;
    out.temperature_C = pass.water_C.value_or(out.temperature_C);
    out.salinity_g_kg = pass.salinity_g_kg.value_or(out.salinity_g_kg);
  }
  return out;
}

std::optional<double> shortestLure_mm(const Rack& rack) {
  std::optional<double> shortest;
  for (const Model& model : rack.models) {
    if (model.length_mm && *model.length_mm > 0.0)
      shortest = std::min(*model.length_mm, shortest.value_or(*model.length_mm));
  }
  return shortest;
}

FilmingPlan filmingOf(const DayPlan& plan) {
  FilmingPlan out = plan.filming;
  out.waterDepth_mm = plan.water.depth_mm;
  out.bodyLength_mm = shortestLure_mm(plan.rack).value_or(out.bodyLength_mm);
  return out;
}

std::vector<SheetTask> tasksFor(const std::vector<std::string>& questions,
                                const std::vector<double>& speeds_mm_s, bool camerasTogether) {
  std::vector<SheetTask> out;
  for (const Proposal& p : proposalsFor(questions)) {
    const std::vector<double> speeds = p.severalSpeeds ? speeds_mm_s : std::vector<double>();
    const auto same =
        std::find_if(out.begin(), out.end(), [&](const SheetTask& t) { return t.protocol == p.protocol; });
    if (camerasTogether && same != out.end()) {
      if (same->speeds_mm_s.empty()) same->speeds_mm_s = speeds;
      continue;
    }
    out.push_back({p.protocol, p.view, speeds});
  }
  return out;
}

std::optional<std::size_t> passForClip(const std::vector<PlannedPass>& sheet, double clip_s) {
  // Passes are made one after the other: a clip belongs to the first that was finished after the clip was
  // begun. A file's time lags behind the clock by some milliseconds.
  std::optional<std::size_t> best;
  for (std::size_t i = 0; i < sheet.size(); ++i) {
    const PlannedPass& pass = sheet[i];
    if (pass.finished_s <= 0.0 || pass.state == PassState::Skipped ||
        pass.finished_s < clip_s + kFileTimeLag_s)
      continue;
    if (!best || pass.finished_s < sheet[*best].finished_s) best = i;
  }
  // A clip older than everything made today tells nothing: its clock was set back, or it is another day's.
  if (best && sheet[*best].finished_s - clip_s < 3600.0) return best;
  return nextPass(sheet);
}

}  // namespace fin
