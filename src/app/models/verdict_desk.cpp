// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/models/verdict_desk.h"

#include "app/commands/swap_command.h"

namespace fin::app {

VerdictDesk::VerdictDesk(Log& log, LineUp& lineUp, QUndoStack& undo, QObject* parent)
    : QObject(parent), log_(log), lineUp_(lineUp), undo_(undo) {
  if (auto plan = log_.verdict()) plan_ = std::move(*plan);
  lineUp_.correctDrift(plan_.correctDrift);
  connect(&lineUp_, &LineUp::changed, this, &VerdictDesk::changed);
  connect(&lineUp_, &LineUp::driftCorrectionWanted, this, [this](bool on) {
    edit(on ? tr("Correct for the day's drift") : tr("Leave the day's drift in"),
         [on](VerdictPlan& plan) { plan.correctDrift = on; });
  });
}

std::vector<Wish> VerdictDesk::wishes() const {
  return plan_.wishes.empty() ? proposedWishes(lineUp_.passes()) : plan_.wishes;
}

ScoreTable VerdictDesk::tableBy(std::vector<Wish> wishes) const {
  return tableFor(lineUp_.passes(), lineUp_.entries(), std::move(wishes));
}

void VerdictDesk::edit(const QString& what, const std::function<void(VerdictPlan&)>& change) {
  VerdictPlan after = plan_;
  change(after);
  if (after == plan_) return;
  undo_.push(new SwapCommand(*this, what, plan_, std::move(after)));
}

void VerdictDesk::apply(const VerdictPlan& plan) {
  if (auto ok = log_.saveVerdict(plan); !ok) {
    emit told(QString::fromStdString(ok.error().message));
    emit changed();  // fields go back to what stands
    return;
  }
  const bool drift = plan.correctDrift != plan_.correctDrift;
  plan_ = plan;
  if (drift) return lineUp_.correctDrift(plan.correctDrift);
  emit changed();
}

}  // namespace fin::app
