// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/controllers/pass_changes.h"

#include "app/phrases/words.h"

namespace fin::app {

std::vector<NewPass> asPasses(const LoggedPass& whole, const std::vector<MeasuredPart>& parts) {
  std::vector<NewPass> out;
  for (const MeasuredPart& part : parts) {
    const QString does = spokenName(part.request.protocol).toLower();
    const QString title = QString("%1, %2").arg(QString::fromStdString(whole.title), does);
    out.push_back({title.toStdString(), part.request, whole.clip, whole.planned, whole.camera, whole.day,
                   part.measurement});
  }
  return out;
}

std::vector<PassChange> reversed(std::vector<PassChange> changes) {
  for (PassChange& change : changes) std::swap(change.before, change.after);
  return changes;
}

bool otherClip(const LoggedPass& a, const LoggedPass& b) {
  return a.request.clip != b.request.clip || a.request.byField != b.request.byField || a.clip != b.clip;
}

bool listedOtherwise(const PassChange& change) {
  LoggedPass before = change.before;
  before.request = change.after.request;
  return before != change.after || otherClip(change.before, change.after);
}

std::vector<PassChange> readBy(const Thresholds& thresholds, const std::vector<LoggedPass>& passes) {
  std::vector<PassChange> out;
  for (const LoggedPass& pass : passes) {
    if (pass.request.thresholds == thresholds) continue;
    LoggedPass after = pass;
    after.request.thresholds = thresholds;
    out.push_back({pass, std::move(after)});
  }
  return out;
}

}  // namespace fin::app
