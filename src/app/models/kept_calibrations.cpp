// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/models/kept_calibrations.h"

#include <algorithm>

namespace fin::app {
namespace {

class KeepCalibration : public QUndoCommand {
 public:
  using State = KeptCalibrations::State;
  KeepCalibration(KeptCalibrations& kept, State before, State after)
      : QUndoCommand(QObject::tr("Keep size and time for the camera")),
        kept_(kept),
        before_(std::move(before)),
        after_(std::move(after)) {}
  void undo() override { kept_.apply(before_); }
  void redo() override { kept_.apply(after_); }

 private:
  KeptCalibrations& kept_;
  State before_;
  State after_;
};

std::optional<Reading> named(const ReadingSet& set, const std::string& name) {
  const auto found = std::find_if(set.readings.begin(), set.readings.end(),
                                  [&](const Reading& r) { return r.name == name; });
  return found == set.readings.end() ? std::nullopt : std::optional(*found);
}

bool differ(const std::optional<Reading>& a, const std::optional<Reading>& b) {
  return a.has_value() != b.has_value() || (a && (a->value != b->value || a->u95 != b->u95));
}

void addChanges(const QString& pass, const ReadingSet& before, const ReadingSet& after,
                std::vector<ReadingChange>& to) {
  std::vector<std::string> names;
  for (const ReadingSet* set : {&before, &after}) {
    for (const Reading& r : set->readings) {
      if (std::find(names.begin(), names.end(), r.name) == names.end()) names.push_back(r.name);
    }
  }
  for (const std::string& name : names) {
    const auto was = named(before, name);
    const auto is = named(after, name);
    if (differ(was, is)) to.push_back({pass, name, was, is});
  }
}

}  // namespace

KeptCalibrations::KeptCalibrations(PassDesk& desk, Log& log, QUndoStack& undo, QObject* parent)
    : QObject(parent), desk_(desk), log_(log), undo_(undo) {
  connect(&desk, &PassDesk::passChanged, this, &KeptCalibrations::changed);
  connect(&desk, &PassDesk::requestChanged, this, &KeptCalibrations::changed);
  connect(&desk, &PassDesk::passesChanged, this, &KeptCalibrations::changed);
  reload();
}

void KeptCalibrations::reload() {
  if (auto all = log_.calibrations()) all_ = std::move(*all);
  emit changed();
}

const KeptCalibration* KeptCalibrations::kept() const {
  const LoggedPass* pass = desk_.current();
  if (pass == nullptr) return nullptr;
  const std::string day = dayOf(pass->request.clip);
  const auto found = std::find_if(all_.begin(), all_.end(), [&](const KeptCalibration& k) {
    return k.camera == pass->camera && k.day == day;
  });
  return found == all_.end() ? nullptr : &*found;
}

std::vector<RowId> KeptCalibrations::standingOnKept() const {
  std::vector<RowId> out;
  const KeptCalibration* k = kept();
  if (k == nullptr) return out;
  for (const LoggedPass& pass : desk_.passes()) {
    if (pass.camera == k->camera && calibrationOf(pass.request) == k->calibration &&
        dayOf(pass.request.clip) == k->day)
      out.push_back(pass.id);
  }
  return out;
}

void KeptCalibrations::use() {
  const KeptCalibration* k = kept();
  if (k == nullptr) return;
  desk_.edit(tr("Use the camera's size and time"),
             [c = k->calibration](PassRequest& request) { applyCalibration(request, c); });
}

void KeptCalibrations::keep() {
  const LoggedPass* current = desk_.current();
  if (current == nullptr) return;
  const Calibration now = calibrationOf(current->request);
  const KeptCalibration* k = kept();
  const std::string day = dayOf(current->request.clip);
  State before{current->camera, day, k != nullptr ? std::optional(*k) : std::nullopt, {}};
  State after{current->camera, day, KeptCalibration{current->camera, day, now, current->request.clip}, {}};
  if (k != nullptr && k->calibration == now) return;
  for (const RowId id : standingOnKept()) {
    for (const LoggedPass& pass : desk_.passes()) {
      if (pass.id != id) continue;
      PassRequest request = pass.request;
      applyCalibration(request, now);
      before.requests.emplace_back(id, pass.request);
      after.requests.emplace_back(id, std::move(request));
    }
  }
  undo_.push(new KeepCalibration(*this, std::move(before), std::move(after)));
}

void KeptCalibrations::apply(const State& state) {
  if (auto ok = log_.keepCalibration(state.camera, state.day, state.kept); !ok) {
    emit told(QString::fromStdString(ok.error().message), true);
    return;
  }
  if (!state.requests.empty()) {
    desk_.applyRequests(state.requests);
    readAnew(state.requests);
  } else {
    changes_.clear();
  }
  reload();
}

/// Tracks and readings come out of the log here, as its connection belongs to this thread.
void KeptCalibrations::readAnew(const std::vector<std::pair<RowId, PassRequest>>& requests) {
  std::vector<Task> tasks;
  for (const auto& [id, request] : requests) {
    const auto track = log_.track(id);
    const auto before = log_.readings(id);
    const auto pass = log_.pass(id);
    if (!track || !*track || !before || !pass || !sameFollowing((*track)->followedFrom, request)) continue;
    tasks.push_back({id, QString::fromStdString(pass->title), request, (*track)->track, *before});
  }
  changes_.clear();
  reading_.start(
      [tasks = std::move(tasks)](const std::stop_token& stop) {
        std::vector<Read> out;
        for (const Task& task : tasks) {
          if (stop.stop_requested()) break;
          const auto clip = openClip(task.request, {.job = {stop, {}}});
          out.push_back(
              {task, clip ? readPass(task.request, **clip, task.track) : tl::unexpected(clip.error())});
        }
        return out;
      },
      [this](std::vector<Read> read) { take(std::move(read)); });
}

void KeptCalibrations::take(std::vector<Read> read) {
  for (const Read& r : read) {
    if (!r.result) {
      emit told(QString("%1: %2").arg(r.task.title, QString::fromStdString(r.result.error().message)), true);
      continue;
    }
    if (auto ok = log_.saveReadings(r.task.id, r.result->readings); !ok) {
      emit told(QString::fromStdString(ok.error().message), true);
      continue;
    }
    addChanges(r.task.title, r.task.before, r.result->readings, changes_);
  }
  emit changed();
}

}  // namespace fin::app
