// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <chrono>

#include "cli/commands.h"
#include "cli/measure_file.h"
#include "core/exchange/water_file.h"
#include "core/records/water_season.h"
#include "core/units/date.h"

namespace fin::cli {
namespace {

double now_s() {
  return std::chrono::duration<double>(std::chrono::system_clock::now().time_since_epoch()).count();
}

/// A log that is there, and what it knows of the water.
struct Opened {
  std::unique_ptr<Log> log;
  WaterSeason season;
};
Result<Opened> opened(const std::filesystem::path& file) {
  if (!std::filesystem::is_regular_file(file))
    return failure(ErrorCode::Unreadable, file.string() + ": there is no such log", "log");
  auto log = Log::open(file);
  if (!log) return tl::unexpected(log.error());
  FingerprintCache fingerprints;
  auto season = waterSeason(**log, fingerprints, now_s());
  if (!season) return tl::unexpected(season.error());
  return Opened{std::move(*log), std::move(*season)};
}

/// As it is named by date or name, else the newest.
Result<std::size_t> dayAmong(const WaterSeason& season, const std::string& name) {
  if (season.days.empty()) return failure(ErrorCode::BadRequest, "the log has no day on the water", "log");
  if (name.empty()) return season.days.size() - 1;
  const auto found = std::find_if(season.days.begin(), season.days.end(),
                                  [&name](const DayPlan& d) { return dateOf(d) == name || d.name == name; });
  if (found == season.days.end())
    return failure(ErrorCode::BadRequest, "the log has no day on the water called " + name, "day");
  return static_cast<std::size_t>(found - season.days.begin());
}

Result<std::string> tieOnText(const Opened& in, const WaterCommand& command) {
  const auto day = dayAmong(in.season, command.day);
  if (!day) return tl::unexpected(day.error());
  const DayPlan& plan = in.season.days[*day];
  return writeTieOn(tieOnFor(in.season, plan, now_s()), candidatesFor(in.season, plan), in.season.rules);
}

Result<std::string> runText(const Opened& in, const WaterCommand& command) {
  const auto day = dayAmong(in.season, command.day);
  if (!day) return tl::unexpected(day.error());
  const DayPlan& plan = in.season.days[*day];
  const RunningDay& run = in.season.runs[*day];
  const double at = lookedAt_s(plan, now_s());
  std::size_t fish = 0;
  double hours = 0.0;
  for (const RunningDay& one : in.season.runs) {
    fish += one.count(RunEventKind::Caught);
    hours += one.rodHours();
  }
  RunReport report{.day = dateOf(plan) + " " + plan.name,
                   .rack = &in.season.rack,
                   .run = run,
                   .advice = adviceFor(tierFactsOf(plan, run, at)),
                   .wasted = wastedOf(run, in.season.bands, plan.waterDay.rods),
                   .bands = in.season.bands,
                   .tiers = tiersOf(in.season.bands, plan.waterDay.rods),
                   .contradictions = contradictionsIn(WaterNow(plan.conditions, at))};
  if (hours > 0.0)
    report.silence = chanceOfSilence(static_cast<double>(fish) / hours, run.sinceTouch_rodMin() / 60.0);
  return writeRun(report);
}

Result<std::string> boxText(const Opened& in, const WaterCommand& command) {
  const auto verdict = in.log->verdict(1);
  if (!verdict) return tl::unexpected(verdict.error());
  BoxReport report{.lures = boxLures(in.season, *verdict)};
  for (const Purpose& purpose : verdict->purposes) report.purposes.push_back(purpose.name);
  const std::vector<double> weights(report.purposes.size(), 1.0);
  const auto box = command.slots > 0
                       ? bestForSlots(report.lures, weights, static_cast<std::size_t>(command.slots))
                       : fewestLures(report.lures, weights, command.loss);
  if (!box) return tl::unexpected(box.error());
  report.box = *box;
  if (const auto buy = buyFirst(report.lures, weights)) report.buy = *buy;
  for (const RigTally& tally : talliesOf(in.season.runs)) {
    const Rig* rig = in.season.rack.rig(tally.rig);
    if (rig == nullptr) continue;
    const auto spares = sparesFor(tally.lost, tally.hours, command.hoursAhead);
    if (spares) report.spares.emplace_back(in.season.rack.fullName(*rig), *spares);
  }
  return writeBox(report);
}

Result<std::string> textFor(const Opened& in, const WaterCommand& command) {
  switch (command.what) {
    case WaterCommand::What::TieOn:
      return tieOnText(in, command);
    case WaterCommand::What::Run:
      return runText(in, command);
    case WaterCommand::What::Catches:
      return writeCatches(catchReport(in.season.rack, in.season.runs, in.season.candidates));
    case WaterCommand::What::Box:
      break;
  }
  return boxText(in, command);
}

}  // namespace

Exit run(const WaterCommand& command) {
  const auto in = opened(command.log);
  if (!in) return complain(in.error());
  const auto text = textFor(*in, command);
  if (!text) return complain(text.error());
  if (auto ok = handOut(command.out, *text); !ok) return complain(ok.error());
  return Exit::Done;
}

}  // namespace fin::cli
