// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/log_book.h"

#include <algorithm>
#include <map>
#include <set>

namespace fin::app {

LogBook::LogBook(const Log& log, DayController& days, const PassController& passes, QObject* parent)
    : QObject(parent), log_(log), days_(days), passes_(passes) {}

void LogBook::refresh() {
  using Kind = Findable::Kind;
  findables_.clear();
  const DayPlan& plan = days_.plan();
  for (const Model& model : plan.rack.models)
    findables_.push_back({Kind::Model, model.id.value(), model.name, {}});
  for (const Rig& rig : plan.rack.rigs) {
    if (!rig.name.empty()) findables_.push_back({Kind::Rig, rig.id.value(), plan.rack.fullName(rig), {}});
  }
  const auto& days = days_.days();
  for (auto day = days.rbegin(); day != days.rend(); ++day)
    findables_.push_back({Kind::Day, day->id.value(), days_.dayName(day->id).toStdString(), day->id});
  for (const WaterBody& water : plan.waters)
    findables_.push_back({Kind::Water, water.id.value(), water.name, {}});
  std::map<DayId, std::string> dates;
  if (days.size() > 1) {
    for (const DayHead& day : days)
      dates[day.id] = "  (" + days_.dayName(day.id).section(',', 0, 0).toStdString() + ")";
  }
  for (const LoggedPass& pass : passes_.passes())
    findables_.push_back({Kind::Pass, pass.id.value(), pass.title + dates[pass.day], pass.day});
  emit changed();
}

DayPlan LogBook::planOf(DayId day) {
  auto plan = log_.plan(day);
  if (plan) return std::move(*plan);
  emit told(QString::fromStdString(plan.error().message), true);
  return {};
}

LogBook::ModelRecord LogBook::recordOf(ModelId model) {
  const Rack& rack = days_.plan().rack;
  std::set<std::string> names;
  for (const Rig& rig : rack.rigs) {
    if (rig.model == model) names.insert(rack.fullName(rig));
  }
  for (const Edition& edition : rack.editions) {
    if (edition.was.model != model) continue;
    names.insert(rack.fullName(edition.was));
    for (const DayId day : edition.days) names.insert(rack.nameOn(day, edition.was.id));
  }
  std::set<DayId> wanted;
  for (const LoggedPass& pass : passes_.passes()) {
    if (pass.request.rigName.empty() || names.contains(pass.request.rigName)) wanted.insert(pass.day);
  }
  ModelRecord out;
  std::vector<DayPlan> plans;
  for (const DayId day : wanted) {
    plans.push_back(planOf(day));
    out.waters.push_back(waterAsFilmed(plans.back()));
    out.waterOf[day] = out.waters.back();
  }
  const auto read = readingsOver(log_, plans, fingerprints_);
  if (!read) {
    emit told(QString::fromStdString(read.error().message), true);
    return out;
  }
  out.histories = historiesOf(read->current, days_.days(), {names.begin(), names.end()});
  out.passes = read->current;
  return out;
}

std::optional<WaterShift> LogBook::fallShift(const ModelRecord& record, const RigHistory& history, DayId from,
                                             DayId to) const {
  const Rack& rack = days_.plan().rack;
  const auto named = [&rack](const std::string& name) -> const Rig* {
    const auto found = std::find_if(rack.rigs.begin(), rack.rigs.end(),
                                    [&](const Rig& r) { return rack.fullName(r) == name; });
    return found == rack.rigs.end() ? nullptr : &*found;
  };
  const Rig* rig = named(history.rig);
  const auto first = record.waterOf.find(from);
  const auto second = record.waterOf.find(to);
  if (rig == nullptr || first == record.waterOf.end() || second == record.waterOf.end()) return std::nullopt;
  std::vector<ComparedPass> passes;
  std::copy_if(record.passes.begin(), record.passes.end(), std::back_inserter(passes),
               [from](const ComparedPass& p) { return p.day == from; });
  const auto shift = fin::fallShift(
      passes, [&named](const ComparedPass& pass) { return named(pass.rig); }, rack, *rig,
      first->second.state(), second->second.state());
  return shift ? std::optional(*shift) : std::nullopt;
}

ForecastOutcome LogBook::forecastOf(const DayPlan& day) {
  std::vector<ComparedPass> passes;
  if (const auto read = readingsOver(log_, {day}, fingerprints_)) {
    passes = read->current;
  } else {
    emit told(QString::fromStdString(read.error().message), true);
  }
  return outcomeOf(day, passes);
}

std::vector<EyeAbove> LogBook::eyeAbove() {
  std::vector<DayPlan> days;
  std::vector<ForecastOutcome> outcomes;
  for (const DayHead& head : days_.days()) {
    DayPlan day = planOf(head.id);
    if (day.foretold.lines.empty()) continue;
    outcomes.push_back(forecastOf(day));
    days.push_back(std::move(day));
  }
  return fin::eyeAbove(days, outcomes);
}

}  // namespace fin::app
