// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/kept_calibrations.h"

#include <algorithm>
#include <set>

namespace fin::app {
namespace {

std::optional<Reading> in(const ReadingSet& set, ReadingId id) {
  const Reading* found = set.find(id);
  return found == nullptr ? std::nullopt : std::optional(*found);
}

bool differ(const std::optional<Reading>& a, const std::optional<Reading>& b) {
  return a.has_value() != b.has_value() || (a && (a->value != b->value || a->u95 != b->u95));
}

void addChanges(const QString& pass, const ReadingSet& before, const ReadingSet& after,
                std::vector<ReadingChange>& to) {
  std::set<ReadingId> ids;
  for (const ReadingSet* set : {&before, &after}) {
    for (const Reading& r : set->readings) ids.insert(r.id);
  }
  for (const ReadingId id : ids) {
    const auto was = in(before, id);
    const auto is = in(after, id);
    if (differ(was, is)) to.push_back({pass, id, was, is});
  }
}

}  // namespace

KeptCalibrations::KeptCalibrations(PassController& controller, Log& log, Edits& edits, MeasuringQueue& queue,
                                   QObject* parent)
    : QObject(parent), controller_(controller), log_(log), edits_(edits), queue_(queue) {
  connect(&queue, &MeasuringQueue::measured, this, &KeptCalibrations::noteChanges);
  connect(&queue, &MeasuringQueue::changed, this, &KeptCalibrations::changed);
  connect(&controller, &PassController::passChanged, this, &KeptCalibrations::changed);
  connect(&controller, &PassController::requestChanged, this, &KeptCalibrations::changed);
  connect(&controller, &PassController::passesChanged, this, &KeptCalibrations::changed);
  reload();
}

void KeptCalibrations::reload() {
  if (auto all = log_.calibrations()) {
    all_ = std::move(*all);
  } else {
    emit told(QString::fromStdString(all.error().message), true);
  }
  emit changed();
}

const KeptCalibration* KeptCalibrations::kept() const {
  const LoggedPass* pass = controller_.current();
  if (pass == nullptr) return nullptr;
  return keptFor(all_, pass->camera, dayOf(pass->request.clip));
}

std::vector<PassId> KeptCalibrations::standingOnKept() const {
  std::vector<PassId> out;
  const KeptCalibration* k = kept();
  if (k == nullptr) return out;
  for (const LoggedPass& pass : controller_.passes()) {
    if (pass.camera == k->camera && calibrationOf(pass.request) == k->calibration &&
        dayOf(pass.request.clip) == k->day)
      out.push_back(pass.id);
  }
  return out;
}

void KeptCalibrations::use() {
  const KeptCalibration* k = kept();
  if (k == nullptr) return;
  controller_.edit(tr("Use the camera's scale and time"),
                   [c = k->calibration](PassRequest& request) { applyCalibration(request, c); });
}

void KeptCalibrations::keep() {
  const LoggedPass* current = controller_.current();
  if (current == nullptr) return;
  const Calibration now = calibrationOf(current->request);
  const KeptCalibration* k = kept();
  const std::string day = dayOf(current->request.clip);
  if (k != nullptr && k->calibration == now) return;
  Change change{current->camera,
                day,
                k != nullptr ? std::optional(*k) : std::nullopt,
                KeptCalibration{current->camera, day, now, current->request.clip},
                {}};
  for (const PassId id : standingOnKept()) {
    const LoggedPass* pass = controller_.passWith(id);
    if (pass == nullptr) continue;
    change.passes.push_back({*pass, *pass});
    applyCalibration(change.passes.back().after.request, now);
  }
  Change back = change;
  std::swap(back.before, back.after);
  for (PassChange& pass : back.passes) std::swap(pass.before, pass.after);
  (void)edits_.perform(
      tr("Save scale and time for the camera"), [this, change] { return write(change); },
      [this, back] { return write(back); });
}

Result<void> KeptCalibrations::write(const Change& change) {
  const auto done = log_.together([&]() -> Result<void> {
    if (auto kept = log_.keepCalibration(change.camera, change.day, change.before, change.after); !kept)
      return kept;
    return log_.changePasses(change.passes);
  });
  if (!done) return done;
  touched_.clear();
  changes_.clear();
  for (const PassChange& pass : change.passes) touched_.push_back(pass.after.id);
  if (!change.passes.empty()) controller_.show(change.passes);
  queue_.add(touched_, Depth::Read);
  reload();
  return {};
}

void KeptCalibrations::noteChanges(PassId pass, const ReadingSet& before, const ReadingSet& after) {
  if (std::find(touched_.begin(), touched_.end(), pass) == touched_.end()) return;
  if (const LoggedPass* logged = controller_.passWith(pass))
    addChanges(QString::fromStdString(logged->title), before, after, changes_);
  emit changed();
}

}  // namespace fin::app
