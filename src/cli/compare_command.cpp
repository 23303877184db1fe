// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>

#include "cli/commands.h"
#include "cli/measure_file.h"
#include "core/exchange/comparison_file.h"
#include "core/records/day_readings.h"

namespace fin::cli {
namespace {

/// As they are named, or all numbers that any pass has.
Result<std::vector<ReadingId>> wanted(const CompareCommand& command,
                                      const std::vector<ComparedPass>& passes) {
  if (command.readings.empty()) return readingsAmong(passes);
  std::vector<ReadingId> out;
  for (const std::string& word : command.readings) {
    const auto reading = readingNamed(word);
    if (!reading) return failure(ErrorCode::BadRequest, "no reading is called " + word, "reading");
    out.push_back(*reading);
  }
  return out;
}

/// As they are named, or the newest test day.
Result<std::vector<DayPlan>> daysOf(const CompareCommand& command, const Log& log) {
  const auto days = log.days();
  if (!days) return tl::unexpected(days.error());
  std::vector<DayId> wanted;
  for (const std::string& name : command.days) {
    const std::size_t before = wanted.size();
    for (const DayHead& day : *days) {
      if (day.date == name || day.name == name) wanted.push_back(day.id);
    }
    if (wanted.size() == before)
      return failure(ErrorCode::BadRequest, "the log has no day called " + name, "day");
  }
  if (command.days.empty()) {
    const auto newest =
        std::find_if(days->rbegin(), days->rend(), [](const DayHead& d) { return d.kind == DayKind::Test; });
    wanted.push_back(newest == days->rend() ? DayId(1) : newest->id);
  }
  std::vector<DayPlan> out;
  for (const DayId id : wanted) {
    auto plan = log.plan(id);
    if (!plan) return tl::unexpected(plan.error());
    out.push_back(std::move(*plan));
  }
  return out;
}

}  // namespace

Exit run(const CompareCommand& command) {
  if (!std::filesystem::is_regular_file(command.log))
    return complain({ErrorCode::Unreadable, command.log.string() + ": there is no such log", "log"});
  const auto log = Log::open(command.log);
  if (!log) return complain(log.error());
  const auto plans = daysOf(command, **log);
  if (!plans) return complain(plans.error());
  const auto verdict = (*log)->verdict(plans->front().id);
  if (!verdict) return complain(verdict.error());
  FingerprintCache fingerprints;
  const auto day = readingsOver(**log, *plans, fingerprints);
  if (!day) return complain(day.error());
  const auto readings = wanted(command, day->current);
  if (!readings) return complain(readings.error());
  std::vector<ComparedReading> compared;
  for (const ReadingId reading : *readings) {
    const auto speed = commonSpeed(day->current, reading);
    const auto worth = worthOf(verdict->worths, reading);
    compared.push_back(
        {reading, speed,
         compare(valuesOf(day->current, reading, speed), reading, {.furtherPasses = true, .worth = worth}),
         worth, camerasAgree(day->current, reading)});
  }
  std::vector<std::string> outdated;
  for (const OutdatedPass& pass : day->outdated) outdated.push_back(pass.title);
  if (auto ok = handOut(command.out, writeComparison(compared, outdated)); !ok) return complain(ok.error());
  return Exit::Done;
}

}  // namespace fin::cli
