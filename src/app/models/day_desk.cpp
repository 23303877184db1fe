// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/models/day_desk.h"

#include <QDateTime>
#include <algorithm>

#include "app/commands/swap_command.h"

namespace fin::app {
namespace {

double wallClock_s() {
  return static_cast<double>(QDateTime::currentMSecsSinceEpoch()) / 1000.0;
}

RowId nextId(const std::vector<PlannedPass>& sheet) {
  RowId highest = 0;
  for (const PlannedPass& p : sheet) highest = std::max(highest, p.id);
  return highest + 1;
}

std::optional<std::size_t> lastMade(const std::vector<PlannedPass>& sheet) {
  std::optional<std::size_t> last;
  for (std::size_t i = 0; i < sheet.size(); ++i) {
    if (sheet[i].state != PassState::Planned && (!last || sheet[i].finished_s >= sheet[*last].finished_s))
      last = i;
  }
  return last;
}

}  // namespace

DayDesk::DayDesk(Log& log, QUndoStack& undo, QObject* parent) : QObject(parent), log_(log), undo_(undo) {
  if (auto plan = log_.plan()) plan_ = std::move(*plan);
}

void DayDesk::edit(const QString& what, const std::function<void(DayPlan&)>& change) {
  DayPlan after = plan_;
  change(after);
  if (after == plan_) return;
  undo_.push(new SwapCommand(*this, what, plan_, std::move(after)));
}

void DayDesk::apply(const DayPlan& plan) {
  if (auto ok = log_.savePlan(plan); !ok) {
    emit told(QString::fromStdString(ok.error().message), true);
    emit planChanged();  // fields go back to what stands
    return;
  }
  plan_ = plan;
  emit planChanged();
}

const PlannedPass* DayDesk::now() const {
  const auto next = nextPass(plan_.sheet);
  return next ? &plan_.sheet[*next] : nullptr;
}

const PlannedPass* DayDesk::after() const {
  const auto next = nextPass(plan_.sheet);
  if (!next) return nullptr;
  for (std::size_t i = *next + 1; i < plan_.sheet.size(); ++i) {
    if (plan_.sheet[i].state == PassState::Planned) return &plan_.sheet[i];
  }
  return nullptr;
}

const PlannedPass* DayDesk::planned(RowId id) const {
  const auto found =
      std::find_if(plan_.sheet.begin(), plan_.sheet.end(), [id](const PlannedPass& p) { return p.id == id; });
  return found == plan_.sheet.end() ? nullptr : &*found;
}

QString DayDesk::titleOf(const PlannedPass& pass) const {
  if (!pass.label.empty()) return tr("Rig %1").arg(QString::fromStdString(pass.label));
  const Rig* rig = plan_.rack.rig(pass.rig);
  return rig == nullptr ? tr("a rig no longer on the rack")
                        : QString::fromStdString(plan_.rack.fullName(*rig));
}

QString DayDesk::taskOf(const PlannedPass& pass) const {
  QString out = QString("%1, %2").arg(spokenName(pass.protocol), spokenName(pass.view));
  if (pass.speed_mm_s) {
    const ShownUnit unit = shownUnit("mm/s", units_);
    out += tr(", %1 %2")
               .arg(*pass.speed_mm_s * unit.factor, 0, 'f', units_ == UnitSystem::Metric ? 0 : 1)
               .arg(unit.unit);
  }
  if (pass.control) out += tr(", control");
  if (pass.attempt > 1) out += tr(", attempt %1").arg(pass.attempt);
  return out;
}

void DayDesk::setUnits(UnitSystem units) {
  units_ = units;
  emit planChanged();
}

void DayDesk::finishNow(PassState state, const QString& whyFouled) {
  const auto next = nextPass(plan_.sheet);
  if (!next) return;
  const QString what = state == PassState::Done     ? tr("Pass done")
                       : state == PassState::Fouled ? tr("Pass fouled")
                                                    : tr("Pass skipped");
  edit(what, [&](DayPlan& plan) {
    PlannedPass& pass = plan.sheet[*next];
    pass.state = state;
    pass.whyFouled = whyFouled.toStdString();
    pass.finished_s = wallClock_s();
  });
}

void DayDesk::makeLastAgain() {
  const auto last = lastMade(plan_.sheet);
  if (!last) return;
  edit(tr("Make the last pass again"), [&](DayPlan& plan) {
    const auto next = nextPass(plan.sheet).value_or(plan.sheet.size());
    plan.sheet.insert(plan.sheet.begin() + static_cast<std::ptrdiff_t>(next),
                      againAfter(plan.sheet[*last], nextId(plan.sheet)));
  });
}

void DayDesk::noteNow(const QString& note) {
  const auto next = nextPass(plan_.sheet);
  if (!next) return;
  edit(tr("Note on the pass"), [&](DayPlan& plan) { plan.sheet[*next].note = note.toStdString(); });
}

void DayDesk::sayLineOut(double line_mm) {
  edit(tr("Line out"), [line_mm](DayPlan& plan) {
    for (PlannedPass& pass : plan.sheet) {
      if (pass.state == PassState::Planned)
        pass.lineOut_mm = line_mm > 0.0 ? std::optional(line_mm) : std::nullopt;
    }
  });
}

void DayDesk::makeSheet() {
  std::vector<RowId> rigs;
  for (const Rig& rig : plan_.rack.rigs) rigs.push_back(rig.id);
  auto sheet = fin::makeSheet(rigs, plan_.options);
  if (!sheet) {
    emit told(QString::fromStdString(sheet.error().message), true);
    return;
  }
  edit(tr("Make the pass sheet"), [&](DayPlan& plan) { plan.sheet = std::move(*sheet); });
}

}  // namespace fin::app
