// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measuring/measurement.h"

#include "core/measuring/measure.h"

namespace fin {

Provenance provenanceOf(const Measurement& m) {
  return {m.readFrom.clip, m.clip, m.readFrom.firstFrame, m.frames, m.methodVersion, m.madeAt_s};
}

MeasurementState stateOf(const Measurement* measurement, const PassRequest& request,
                         const ClipFingerprint& now) {
  if (measurement == nullptr) return MeasurementState::NeedsFollowing;
  if (measurement->clip != now) return MeasurementState::ClipChanged;
  if (measurement->followingVersion != kFollowingVersion ||
      !sameFollowing(measurement->followedFrom, request))
    return MeasurementState::NeedsFollowing;
  if (measurement->methodVersion != kMethodVersion || !sameReading(measurement->readFrom, request))
    return MeasurementState::NeedsReading;
  return MeasurementState::Current;
}

bool onlySeedsDiffer(const PassRequest& before, const PassRequest& now) {
  return (before.protocol == Protocol::Still) == (now.protocol == Protocol::Still) &&
         before.outline == now.outline && before.hidden == now.hidden &&
         before.firstFrame == now.firstFrame && before.lastFrame == now.lastFrame &&
         followsBackground(before) == followsBackground(now) && turnsOf(before) == turnsOf(now) &&
         (before.view == View::Chase) == (now.view == View::Chase) && before.byField == now.byField;
}

bool sameFollowing(const PassRequest& before, const PassRequest& now) {
  return before.marks == now.marks && onlySeedsDiffer(before, now);
}

bool sameReading(const PassRequest& before, const PassRequest& now) {
  PassRequest alike = before;
  alike.clip = now.clip;
  alike.rigName = now.rigName;
  alike.rigNote = now.rigNote;
  return alike == now;
}

}  // namespace fin
