// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/verdict_controller.h"

namespace fin::app {
namespace {

constexpr std::size_t kMostTables = 32;

}  // namespace

VerdictController::VerdictController(Log& log, LineUp& lineUp, Edits& edits, QObject* parent)
    : QObject(parent), log_(log), lineUp_(lineUp), rankings_(new Rankings(this)), edits_(edits) {
  reload();
  connect(&lineUp_.day(), &DayController::dayChosen, this, &VerdictController::reload);
  connect(&lineUp_, &LineUp::changed, this, [this] {
    tables_.clear();
    emit changed();
  });
}

void VerdictController::reload() {
  auto plan = log_.verdict(day());
  if (!plan) {
    emit told(QString::fromStdString(plan.error().message), true);
    return;
  }
  plan_ = std::move(*plan);
  emit changed();
}

std::vector<Wish> VerdictController::wishes() const {
  return plan_.wishes.empty() ? proposedWishes(lineUp_.passes()) : plan_.wishes;
}

ScoreTable VerdictController::tableBy(std::vector<Wish> wishes) const {
  std::vector<Entry> entries = lineUp_.entries();
  for (const KnownTable& known : tables_) {
    if (known.wishes == wishes && known.entries == entries && known.judgements == plan_.judgements)
      return known.table;
  }
  ScoreTable table = tableFor(lineUp_.passes(), entries, wishes, plan_.judgements);
  if (tables_.size() >= kMostTables) tables_.clear();
  tables_.push_back({std::move(wishes), std::move(entries), plan_.judgements, table});
  return table;
}

void VerdictController::edit(const QString& what, const std::function<void(VerdictPlan&)>& change) {
  const bool done = edits_.swap<VerdictPlan>(
      what, plan_, change,
      [this, of = day()](const VerdictPlan& from, const VerdictPlan& to) { return write(of, from, to); });
  if (!done) emit changed();  // fields go back to what stands
}

DayId VerdictController::day() const {
  return lineUp_.day().plan().id;
}

Result<void> VerdictController::write(DayId of, const VerdictPlan& before, const VerdictPlan& after) {
  if (auto done = log_.saveVerdict(before, after, of); !done) return done;
  if (of != day()) return {};
  plan_ = after;
  emit changed();
  return {};
}

}  // namespace fin::app
